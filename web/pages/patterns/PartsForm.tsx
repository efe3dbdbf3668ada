import { perLanguage, t } from '../../../core/words/say.ts';
import { type FormEvent, Suspense, lazy, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { renamed, withoutPart } from '../../../core/making/editParts.ts';
import { LEVELS, type Level } from '../../../core/making/level.ts';
import { SECOND_WAYS, type SecondWanted, type SecondWay } from '../../../core/making/secondPart.ts';
import { type Joined, passOn } from '../../../core/making/partsOf.ts';
import { beatsInMeasure, sameMeter } from '../../../core/rhythm/meter.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { framesOf } from '../../../core/rhythm/scoreParts.ts';
import { namingOf } from '../../../core/wording/voice.ts';
import { useCurrentClass } from '../../domain/currentClass.ts';
import { toNumber } from '../../../core/rhythm/fraction.ts';
import { MOST_PARTS, type Score } from '../../../core/rhythm/score.ts';
import { parseScore, printScore } from '../../../core/rhythm/scoreText.ts';
import { LONGEST_LABEL, LONGEST_TEXT, errorSentence, parseRhythm } from '../../../core/rhythm/text.ts';
import { partTroubleText } from '../../../core/wording/partTroubles.ts';
import { capital } from '../../../core/wording/valueNames.ts';
import { useOfferedPatterns } from '../../domain/offeredPatterns.ts';
import { Select } from '../../ui/Select.tsx';
import {
  ADDED,
  type AddedWay,
  SECOND_NAMES,
  SPLIT_WAYS,
  addWay,
  canonWay,
  joinWay,
  secondWay,
  splitWay,
} from './partWays.ts';

const StripsPart = lazy(() => import('./StripsPart.tsx'));

interface PartsProps {
  readonly score: Score;
  readonly text: string;
  /** Of the pattern itself: it is not offered beside itself. */
  readonly ownId: string | undefined;
  readonly onWrite: (text: string) => void;
}

/** Changes that can be taken back, as long as nothing else was written since. */
function useUndo(text: string, onWrite: (text: string) => void) {
  const [done, setDone] = useState<readonly { readonly before: string; readonly after: string }[]>([]);
  const last = done.at(-1);
  return {
    write: (after: string) => {
      setDone([...done, { before: text, after }]);
      onWrite(after);
    },
    undo:
      last && last.after === text
        ? () => {
            setDone(done.slice(0, -1));
            onWrite(last.before);
          }
        : undefined,
  };
}

/** One rhythm into several parts, and back: each a button, each taken back by one. */
export default function PartsForm({ score, text, ownId, onWrite }: PartsProps) {
  const { write, undo } = useUndo(text, onWrite);
  const [trouble, setTrouble] = useState('');
  const { parts } = score;
  const put = (joined: Joined) => {
    if (!joined.ok) return setTrouble(partTroubleText(joined.trouble));
    const wanted = printScore(joined.score);
    if (wanted.length > LONGEST_TEXT) return setTrouble(t`so many notes are more than a pattern holds`);
    setTrouble('');
    write(wanted);
  };
  const change = (next: Score) => put({ ok: true, score: next });
  return (
    <div className="parts-form">
      {parts.length > 1 && <PartRows score={score} onChange={change} />}
      {parts.length === 1 && (
        <Row name={t`Two groups share it`}>
          {SPLIT_WAYS().map(([split, label]) => (
            <Button key={split} variant="outline-dark" onClick={() => put(splitWay(score, split))}>
              {label}
            </Button>
          ))}
        </Row>
      )}
      {parts.length < MOST_PARTS && (
        <>
          <Row name={t`Add`}>
            {(Object.keys(ADDED()) as AddedWay[]).map((way) => (
              <Button key={way} variant="outline-dark" onClick={() => put(addWay(score, way))}>
                {ADDED()[way]}
              </Button>
            ))}
          </Row>
          <MadeFor onMake={(wanted) => put(secondWay(score, wanted, Math.floor(Math.random() * 1e6)))} />
          <InStrips score={score} onAdd={(laid) => put(joinWay(score, laid))} />
          <Beside ownId={ownId} onTrouble={setTrouble} onJoin={(other) => put(joinWay(score, other))} />
        </>
      )}
      {parts.length === 1 && <Canon score={score} onCanon={(voices, beats) => put(canonWay(score, voices, beats))} />}
      <div className="parts-row">
        {parts.length > 1 && (
          <Button variant="outline-dark" onClick={() => change(passOn(score))}>
            {parts.length === 2 ? t`Swap the parts` : t`Each part to the next`}
          </Button>
        )}
        <Button variant="outline-dark" disabled={!undo} onClick={undo}>{t`Take back`}</Button>
      </div>
      {trouble !== '' && (
        <p className="field-trouble" role="alert">
          {capital(trouble)}.
        </p>
      )}
    </div>
  );
}

function Row({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div className="parts-row" role="group" aria-label={name}>
      <span className="parts-name">{name}</span>
      {children}
    </div>
  );
}

/** The name of each part, and the way to take it out. */
function PartRows({ score, onChange }: { score: Score; onChange: (next: Score) => void }) {
  return (
    <Row name={t`Parts`}>
      {score.parts.map(({ name }, i) => (
        <span key={`${i} ${name}`} className="part-name-field">
          <Form.Control
            size="sm"
            aria-label={t`Name of part ${i + 1}`}
            defaultValue={name}
            maxLength={LONGEST_LABEL}
            onBlur={({ target }) => {
              const next = renamed(score, i, target.value);
              if (next === score) target.value = name;
              else onChange(next);
            }}
            onKeyDown={({ key, currentTarget }) => key === 'Enter' && currentTarget.blur()}
          />
          <Button
            size="sm"
            variant="outline-dark"
            aria-label={t`Take out ${name}`}
            onClick={() => onChange(withoutPart(score, i))}
          >
            {t`Take out`}
          </Button>
        </span>
      ))}
    </Row>
  );
}

interface BesideProps {
  readonly ownId: string | undefined;
  readonly onJoin: (other: Parameters<typeof joinWay>[1]) => void;
  readonly onTrouble: (trouble: string) => void;
}

const WRITTEN = 'written';

/** Another rhythm beside this one: one of the list, or a few measures written here that come again. */
function Beside({ ownId, onJoin, onTrouble }: BesideProps) {
  const { data } = useOfferedPatterns(ownId);
  const [chosen, setChosen] = useState(WRITTEN);
  const [text, setText] = useState('');
  const offered = (data ?? []).filter(({ id, text: own }) => {
    const read = id === ownId ? undefined : parseScore(own);
    return read?.ok === true && read.score.parts.length === 1;
  });
  const join = (event: FormEvent) => {
    event.preventDefault();
    const read = parseRhythm(chosen === WRITTEN ? text : (offered.find(({ id }) => id === chosen)?.text ?? ''));
    if (read.ok) onJoin(read.pattern);
    else onTrouble(errorSentence(read.at));
  };
  return (
    <form className="parts-row" onSubmit={join}>
      <span className="parts-name">{t`Beside it`}</span>
      <Select
        className="w-auto"
        label={t`Rhythm beside it`}
        value={chosen}
        options={[[WRITTEN, t`What I write`], ...offered.map(({ id, title }) => [id, title] as const)]}
        onChoose={setChosen}
      />
      {chosen === WRITTEN && (
        <Form.Control
          className="parts-text"
          aria-label={t`Rhythm of the part beside it`}
          placeholder={t`4/4 h h, again to the end`}
          spellCheck={false}
          value={text}
          onChange={({ target }) => setText(target.value)}
        />
      )}
      <Button type="submit" variant="outline-dark" disabled={chosen === WRITTEN && text.trim() === ''}>
        {t`Add it`}
      </Button>
    </form>
  );
}

/** The part laid in strips, where one line of them goes with the rhythm. */
function InStrips({ score, onAdd }: { score: Score; onAdd: (laid: Pattern) => void }) {
  const [open, setOpen] = useState(false);
  const naming = namingOf(useCurrentClass());
  const { pickup, measures } = score.parts[0]!.pattern;
  const { meter } = measures[0]!;
  if (pickup || !measures.every((one) => sameMeter(one.meter, meter))) return null;
  const add = (laid: Pattern) => {
    onAdd(laid);
    setOpen(false);
  };
  return (
    <Row name={t`In strips`}>
      <Button variant="outline-dark" aria-expanded={open} onClick={() => setOpen(!open)}>
        {t`Lay a part in strips`}
      </Button>
      {open && (
        <Suspense fallback={null}>
          <StripsPart meter={meter} measures={framesOf(score.parts[0]!.pattern).length} naming={naming} onAdd={add} />
        </Suspense>
      )}
    </Row>
  );
}

const WAYS = perLanguage(() => SECOND_WAYS.map((way) => [way, SECOND_NAMES()[way]] as const));
const LEVEL_NAMES = perLanguage(() => LEVELS.map((level) => [String(level), t`level ${level}`] as const));
const MOST_SHARED = 32;

/** A part that the app makes for the first one. */
function MadeFor({ onMake }: { onMake: (wanted: SecondWanted) => void }) {
  const [way, setWay] = useState<SecondWay>('fills');
  const [level, setLevel] = useState('2');
  const [shared, setShared] = useState('4');
  const wanted = Number(shared);
  const fits = way !== 'meets' || (Number.isInteger(wanted) && wanted >= 0 && wanted <= MOST_SHARED);
  return (
    <Row name={t`Make one that`}>
      <Select className="w-auto" label={t`How it goes with the first`} value={way} options={WAYS()} onChoose={setWay} />
      {way === 'meets' && (
        <>
          <Form.Control
            type="number"
            min={0}
            max={MOST_SHARED}
            className="parts-number"
            aria-label={t`Notes both have`}
            value={shared}
            onChange={({ target }) => setShared(target.value)}
          />
          <span>{t`notes in common`}</span>
        </>
      )}
      {way !== 'follows' && (
        <Select className="w-auto" label={t`Level`} value={level} options={LEVEL_NAMES()} onChoose={setLevel} />
      )}
      <Button
        variant="outline-dark"
        disabled={!fits}
        onClick={() => onMake({ way, level: Number(level) as Level, shared: wanted })}
      >
        {t`Make it`}
      </Button>
    </Row>
  );
}

const VOICES = perLanguage(() => [2, 3, 4].map((n) => [String(n), t`${n} voices`] as const));

/** The same line, each voice later than the one before. */
function Canon({ score, onCanon }: { score: Score; onCanon: (voices: number, beats: number) => void }) {
  const beats = toNumber(beatsInMeasure(score.parts[0]!.pattern.measures[0]!.meter));
  const [voices, setVoices] = useState('2');
  const [later, setLater] = useState<string>();
  const wanted = later ?? String(beats);
  return (
    <Row name={t`Canon`}>
      <Select className="w-auto" label={t`Voices`} value={voices} options={VOICES()} onChoose={setVoices} />
      <Form.Control
        type="number"
        min={1}
        max={64}
        className="parts-number"
        aria-label={t`Beats later`}
        value={wanted}
        onChange={({ target }) => setLater(target.value)}
      />
      <span>{t`beats later`}</span>
      <Button
        variant="outline-dark"
        disabled={!(Number.isInteger(Number(wanted)) && Number(wanted) >= 1 && Number(wanted) <= 64)}
        onClick={() => onCanon(Number(voices), Number(wanted))}
      >
        {t`Make the canon`}
      </Button>
    </Row>
  );
}
