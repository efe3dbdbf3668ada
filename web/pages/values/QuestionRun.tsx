import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { MisconceptionId } from '../../../core/exercises/misconceptions.ts';
import type { Question } from '../../../core/exercises/question.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { misconceptionText, questionWords } from '../../../core/wording/questionWords.ts';
import type { NamingId } from '../../../core/wording/valueNames.ts';
import { Ruler } from '../../ruler/Ruler.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { OptionButtons, Reveal, optionKeys } from './Answering.tsx';
import { Equation, ShownSigns } from './ShownSigns.tsx';

/** How often each misunderstanding was behind a wrong answer. */
type Tally = Partial<Record<MisconceptionId | 'slip', number>>;

/** Where a run stands. */
function useRun(run: readonly Question[], onAgain: () => void) {
  const [at, setAt] = useState(0);
  const [chosen, setChosen] = useState<number>();
  const [right, setRight] = useState(0);
  const [tally, setTally] = useState<Tally>({});
  const question = run[at];
  const choose = (option: number) => {
    if (!question || chosen !== undefined || option >= question.options.length) return;
    setChosen(option);
    if (option === question.answer) {
      setRight(right + 1);
      return;
    }
    const why = question.options[option]!.misconception ?? 'slip';
    setTally({ ...tally, [why]: (tally[why] ?? 0) + 1 });
  };
  const next = () => {
    if (!question) onAgain();
    else if (chosen !== undefined) {
      setChosen(undefined);
      setAt(at + 1);
    }
  };
  return { at, question, chosen, right, tally, choose, next };
}

interface RunProps {
  readonly run: readonly Question[];
  readonly naming: NamingId;
  readonly onAgain: () => void;
}

/** Questions one after the other, then how it went. */
export function QuestionRun({ run, naming, onAgain }: RunProps) {
  const { at, question, chosen, right, tally, choose, next } = useRun(run, onAgain);
  useKeys({ ...optionKeys(choose), ' ': next });
  if (run.length === 0)
    return <div className="empty">With these values no question can be made. Choose more of them below.</div>;
  if (!question) return <Score right={right} count={run.length} tally={tally} naming={naming} onAgain={onAgain} />;
  return (
    <section className="question" aria-label={`Question ${at + 1} of ${run.length}`}>
      <p className="question-number">
        {at + 1} of {run.length} · {right} right
      </p>
      <h2 className="big-line">{questionWords(question, naming).prompt}</h2>
      <Shown question={question} />
      <OptionButtons question={question} naming={naming} chosen={chosen} onChoose={choose} />
      <Reveal question={question} chosen={chosen} naming={naming}>
        <Button size="lg" onClick={next}>
          {at + 1 < run.length ? 'Next' : 'How it went'} <kbd>space</kbd>
        </Button>
      </Reveal>
    </section>
  );
}

function readable(text: string): Pattern | undefined {
  const parsed = parseRhythm(text);
  return parsed.ok ? parsed.pattern : undefined;
}

/** What a question is about. */
function Shown({ question: { asked, shows, sides, staccato } }: { question: Question }) {
  const pattern = useMemo(() => readable(shows), [shows]);
  if (sides) return <Equation sides={sides} open={asked.kind === 'balance'} />;
  if (!pattern) return null;
  if (asked.kind === 'complete') return <Ruler pattern={pattern} strips={false} beats={false} />;
  return <ShownSigns pattern={pattern} meter={asked.kind === 'wrong-measure'} staccato={staccato} />;
}

interface ScoreProps {
  readonly right: number;
  readonly count: number;
  readonly tally: Tally;
  readonly naming: NamingId;
  readonly onAgain: () => void;
}

function Score({ right, count, tally, naming, onAgain }: ScoreProps) {
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
              <strong>{times} ×</strong> {id === 'slip' ? 'A slip in adding up.' : misconceptionText(id, naming)}
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
