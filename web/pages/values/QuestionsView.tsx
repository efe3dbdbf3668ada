import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { MISCONCEPTION, type MisconceptionId } from '../../../core/exercises/misconceptions.ts';
import { type Question, type QuestionSettings, questions } from '../../../core/exercises/questions.ts';
import { type NamingId, withValueNames, valueName } from '../../../core/wording/valueNames.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { placePattern } from '../../../core/rhythm/place.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { VALUES, type ValueLetter } from '../../../core/rhythm/value.ts';
import { Ruler } from '../../ruler/Ruler.tsx';
import { MeterSign } from '../../ui/signs/MeterSign.tsx';
import { NoteSign } from '../../ui/signs/NoteSign.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { OptionButtons, Reveal, optionKeys } from './Answering.tsx';
import { type ValuesProps } from './valuesProps.ts';

const RUN = 10;
const KNOWN: readonly ValueLetter[] = ['w', 'h', 'q', 'e', 's'];

/** Ten questions answered on the board; wrong options are made from the ways children misunderstand values. */
export function QuestionsView({ naming, beat }: ValuesProps) {
  const [settings, setSettings] = useState<Pick<QuestionSettings, 'values' | 'dots' | 'ties' | 'rests'>>({
    values: ['w', 'h', 'q', 'e'],
    dots: true,
    ties: false,
    rests: true,
  });
  const [seed, setSeed] = useState(() => Math.floor(Math.random() * 10_000));
  const run = useMemo(() => questions({ ...settings, beat, naming }, seed, RUN), [settings, beat, naming, seed]);
  const restart = (next: number) => setSeed(next);
  return (
    <>
      <Run
        key={`${seed}${JSON.stringify(settings)}${beat}${naming}`}
        run={run}
        naming={naming}
        onAgain={() => restart(seed + 1)}
      />
      <fieldset className="question-settings">
        <legend className="visually-hidden">What the questions are about</legend>
        {KNOWN.map((letter) => (
          <Form.Check
            key={letter}
            type="checkbox"
            id={`ask-${letter}`}
            label={valueName({ base: letter, dots: 0 }, naming, true)}
            checked={settings.values.includes(letter)}
            onChange={({ target }) =>
              setSettings({
                ...settings,
                values: VALUES.map((v) => v.letter).filter((known) =>
                  known === letter ? target.checked : settings.values.includes(known),
                ),
              })
            }
          />
        ))}
        {(['dots', 'ties', 'rests'] as const).map((what) => (
          <Form.Check
            key={what}
            type="checkbox"
            id={`ask-${what}`}
            label={what}
            checked={settings[what]}
            onChange={({ target }) => setSettings({ ...settings, [what]: target.checked })}
          />
        ))}
        <label>
          Number of the set{' '}
          <input
            type="number"
            min={0}
            max={99_999}
            value={seed}
            onChange={({ target }) => restart(Math.max(0, Math.min(99_999, Math.floor(Number(target.value)))))}
          />
        </label>
      </fieldset>
    </>
  );
}

type Tally = Partial<Record<MisconceptionId | 'slip', number>>;

function Run({ run, naming, onAgain }: { run: readonly Question[]; naming: NamingId; onAgain: () => void }) {
  const [at, setAt] = useState(0);
  const [chosen, setChosen] = useState<number>();
  const [right, setRight] = useState(0);
  const [tally, setTally] = useState<Tally>({});
  const question = run[at];
  const pattern = useMemo(() => {
    const parsed = question?.shows === undefined ? undefined : parseRhythm(question.shows);
    return parsed?.ok ? parsed.pattern : undefined;
  }, [question]);
  const choose = (option: number) => {
    if (!question || chosen !== undefined || option >= question.options.length) return;
    setChosen(option);
    if (option === question.answer) setRight(right + 1);
    else {
      const why = question.options[option]!.misconception ?? 'slip';
      setTally({ ...tally, [why]: (tally[why] ?? 0) + 1 });
    }
  };
  const next = () => {
    if (!question) onAgain();
    else if (chosen !== undefined) {
      setChosen(undefined);
      setAt(at + 1);
    }
  };
  useKeys({ ...optionKeys(choose), ' ': next });
  if (run.length === 0)
    return <div className="empty">With these values no question can be made. Choose more of them below.</div>;
  if (!question) return <Score right={right} count={run.length} tally={tally} naming={naming} onAgain={onAgain} />;
  return (
    <section className="question" aria-label={`Question ${at + 1} of ${run.length}`}>
      <p className="question-number">
        {at + 1} of {run.length} · {right} right
      </p>
      <h2 className="big-line">{question.prompt}</h2>
      {pattern &&
        (question.sides ? (
          <Equation sides={question.sides} open={question.kind === 'balance'} />
        ) : question.kind === 'complete' ? (
          <Ruler pattern={pattern} strips={false} beats={false} />
        ) : (
          <Signs pattern={pattern} meter={question.kind === 'wrong-measure'} staccato={question.staccato} />
        ))}
      <OptionButtons question={question} chosen={chosen} onChoose={choose} />
      <Reveal question={question} chosen={chosen} naming={naming}>
        <Button size="lg" onClick={next}>
          {at + 1 < run.length ? 'Next' : 'How it went'} <kbd>space</kbd>
        </Button>
      </Reveal>
    </section>
  );
}

/** What a question is about, the signs side by side: on the ruler, true to time, they would give the answer away. */
function Signs({
  pattern,
  meter,
  staccato = [],
}: {
  pattern: Pattern;
  meter: boolean;
  staccato?: readonly number[] | undefined;
}) {
  const measures = placePattern(pattern);
  return (
    <p className={`shown-signs ${measures.length > 1 ? 'several' : ''}`}>
      {meter && <MeterSign meter={measures[0]!.meter} />}
      {measures.map(({ events, number }) => (
        <span key={number} className="shown-measure">
          {events.map(({ kind, value, tiedToNext }, i) => (
            <span key={i} className={tiedToNext ? 'ties-on' : ''}>
              <NoteSign value={value} rest={kind === 'rest'} staccato={staccato.includes(i)} />
              {tiedToNext && <span className="visually-hidden">tied to</span>}
            </span>
          ))}
        </span>
      ))}
    </p>
  );
}

/** Two sides with the equals sign between; where one is `open` a value is missing at its end. */
function Equation({ sides, open }: { sides: NonNullable<Question['sides']>; open: boolean }) {
  return (
    <p className="shown-signs">
      {sides.map((side, s) => (
        <span key={s} className="shown-measure">
          {s > 0 && <span>=</span>}
          {side.map(({ kind, value }, i) => (
            <span key={i}>
              {i > 0 && <span className="plus">+</span>}
              <NoteSign value={value} rest={kind === 'rest'} />
            </span>
          ))}
          {s > 0 && open && <span>+ ?</span>}
        </span>
      ))}
    </p>
  );
}

function Score({
  right,
  count,
  tally,
  naming,
  onAgain,
}: {
  right: number;
  count: number;
  tally: Tally;
  naming: NamingId;
  onAgain: () => void;
}) {
  const found = (Object.entries(tally) as [MisconceptionId | 'slip', number][]).sort((a, b) => b[1] - a[1]);
  return (
    <section className="question">
      <h2 className="big-line" role="status">
        {right} of {count} right
      </h2>
      {found.length > 0 && (
        <ul className="tally">
          {found.map(([id, times]) => (
            <li key={id}>
              <strong>{times} ×</strong>{' '}
              {id === 'slip' ? 'A slip in adding up.' : withValueNames(MISCONCEPTION[id].sentence, naming)}
            </li>
          ))}
        </ul>
      )}
      <Button size="lg" onClick={onAgain}>
        Ten new ones <kbd>space</kbd>
      </Button>
    </section>
  );
}
