import { perLanguage, t } from '../../core/words/say.ts';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { OUT_FACTS, OUT_IDS, type OutId } from '../../core/formats/formatFacts.ts';
import type { NamedPattern } from '../../core/formats/formats.ts';
import type { CountOptions } from '../../core/counting/count.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { Notice } from '../ui/Notice.tsx';
import { Select } from '../ui/Select.tsx';
import { saveFile } from '../ui/saveFile.ts';
import { outFile } from './outFile.ts';
import './takeOut.scss';

interface TakeOutProps {
  readonly patterns: readonly NamedPattern[];
  /** Name of the file where there are several. */
  readonly name: string;
  /** How the class counts, for counts under the notes. */
  readonly counts: CountOptions;
}

const FIRST: OutId = 'pdf';
const USUAL_BPM = 84;
type ClapSound = 'clap' | 'wood';
const SOUNDS = perLanguage((): readonly (readonly [ClapSound, string])[] => [
  ['clap', t`hand clap`],
  ['wood', t`wood block`],
]);
const options = perLanguage(() =>
  OUT_IDS.map((id) => [id, `${OUT_FACTS()[id].title}: ${OUT_FACTS()[id].use}`] as const),
);

/** Patterns as a file of any format, for other programs. */
export default function TakeOut({ patterns, name, counts }: TakeOutProps) {
  const [id, setId] = useState<OutId>(FIRST);
  const [bpm, setBpm] = useState(USUAL_BPM);
  const [withCounts, setWithCounts] = useState(false);
  const [eachRest, setEachRest] = useState(false);
  const [countIn, setCountIn] = useState(false);
  const [sound, setSound] = useState<ClapSound>('clap');
  const [making, setMaking] = useState(false);
  const [problem, setProblem] = useState<Error>();
  const format = OUT_FACTS()[id];
  const save = async () => {
    setMaking(true);
    setProblem(undefined);
    try {
      const wanted = {
        bpm,
        sound,
        eachRest,
        ...(withCounts || format.isCounts ? { counts } : {}),
        ...(countIn ? { countIn } : {}),
      };
      const title = patterns.length === 1 ? patterns[0]!.title || t`Pattern` : name;
      const { name: file, content } = await outFile(title, id, patterns, wanted);
      saveFile(file, content);
    } catch (error) {
      setProblem(error as Error);
    }
    setMaking(false);
  };
  return (
    <div className="take-out">
      <Select label={t`As`} value={id} options={options()} onChoose={setId} />
      {format.takes.includes('bpm') && <TempoBox bpm={bpm} onBpm={setBpm} />}
      {format.takes.includes('counts') && (
        <Tick id="out-counts" label={t`counts under the notes`} on={withCounts} onChange={setWithCounts} />
      )}
      {format.takes.includes('each-rest') && patterns.some(({ pattern }) => hasLongRests(pattern)) && (
        <Tick id="out-each-rest" label={t`each measure of rest by itself`} on={eachRest} onChange={setEachRest} />
      )}
      {format.takes.includes('count-in') && (
        <Tick id="out-count-in" label={t`count-in`} on={countIn} onChange={setCountIn} />
      )}
      {format.takes.includes('sound') && (
        <Select label={t`Sound`} value={sound} options={SOUNDS()} onChoose={setSound} />
      )}
      <Button disabled={making || patterns.length === 0} onClick={() => void save()}>
        {making ? t`Making it …` : patterns.length > 1 ? t`Save ${patterns.length} patterns` : t`Save the file`}
      </Button>
      {!format.parts && patterns.some(({ score }) => score !== undefined) && (
        <p className="take-out-note">{t`Of several parts this holds the first alone.`}</p>
      )}
      {problem && <Notice problem={problem} />}
    </div>
  );
}

/** Several measures of rest in one: drawn as one sign, unless each is wanted. */
function hasLongRests({ measures }: Pattern): boolean {
  return measures.some(({ rests = 1 }) => rests > 1);
}

function Tick(props: { id: string; label: string; on: boolean; onChange: (on: boolean) => void }) {
  const { id, label, on, onChange } = props;
  return (
    <Form.Check
      type="checkbox"
      id={id}
      label={label}
      checked={on}
      onChange={({ target }) => onChange(target.checked)}
    />
  );
}

const [SLOWEST, FASTEST] = [30, 240];

function TempoBox({ bpm, onBpm }: { bpm: number; onBpm: (bpm: number) => void }) {
  return (
    <Form.Group controlId="out-tempo" className="out-tempo">
      <Form.Label>{t`at`}</Form.Label>
      <Form.Control
        type="number"
        min={SLOWEST}
        max={FASTEST}
        value={bpm || ''}
        onChange={({ target }) => onBpm(Number(target.value))}
        onBlur={() => onBpm(Math.min(FASTEST, Math.max(SLOWEST, bpm || USUAL_BPM)))}
      />
      <span>{t`beats a minute`}</span>
    </Form.Group>
  );
}
