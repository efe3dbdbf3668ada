import { t } from '../../../core/words/say.ts';
import { Maximize } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import ProgressBar from 'react-bootstrap/ProgressBar';
import type { CountOptions } from '../../../core/counting/count.ts';
import { CHANNEL_IDS, type Channel } from '../../../core/leading/cueSounds.ts';
import { oncePlan } from '../../../core/leading/plan.ts';
import { TRACK_LEAD_SECONDS } from '../../../core/leading/practiceTrack.ts';
import { timetable } from '../../../core/leading/timetable.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import type { Seconds } from '../../../core/timing/units.ts';
import type { Voice } from '../../../core/wording/voice.ts';
import type { RulerLayout } from '../../../drawing/layout.ts';
import type { RulerSystem } from '../../../drawing/system.ts';
import { makeTrack } from '../../audio/makeTrack.ts';
import { MovingBeat } from '../../ruler/MovingBeat.tsx';
import { Ruler } from '../../ruler/Ruler.tsx';
import { saveFile } from '../../ui/saveFile.ts';
import { useFullScreen } from '../../ui/useFullScreen.ts';

interface ConcertProps {
  readonly title: string;
  readonly pattern: Pattern;
  readonly bpm: number;
  /** A child each: seconds from beat 1. */
  readonly takes: readonly (readonly Seconds[])[];
  readonly voice: Voice;
}

/** What sounds beneath the claps, each as it is switched. */
const LOUD: Readonly<Record<'beat' | 'counts', Partial<Record<Channel, number>>>> = {
  beat: { click: 0.3, count: 0.45 },
  counts: { syllables: 0.5 },
};

function levelsOf(beat: boolean, counts: boolean): Record<Channel, number> {
  const silent = Object.fromEntries(CHANNEL_IDS.map((id) => [id, 0])) as Record<Channel, number>;
  return { ...silent, ...(beat ? LOUD.beat : {}), ...(counts ? LOUD.counts : {}) };
}

/** Makes the sound of everybody's takes; made anew when something is switched. */
function useConcert({ pattern, bpm, takes, voice }: ConcertProps) {
  const [file, setFile] = useState<Blob>();
  const [done, setDone] = useState<number>();
  const [problem, setProblem] = useState<string>();
  const going = useRef<AbortController>(undefined);
  const table = useMemo(() => timetable(pattern, oncePlan(bpm, 'say-clap'), voice.counts), [pattern, bpm, voice]);
  const section = table.ok ? table.timetable.sections[0]! : undefined;
  const address = useMemo(() => file && URL.createObjectURL(file), [file]);
  useEffect(() => () => (address === undefined ? undefined : URL.revokeObjectURL(address)), [address]);
  useEffect(() => () => going.current?.abort(), []);
  const clear = () => {
    going.current?.abort();
    setFile(undefined);
    setDone(undefined);
  };
  const make = async (beat: boolean, counts: boolean) => {
    clear();
    if (!table.ok || !section) {
      setProblem(t`The pattern is too long for one sound: choose a shorter one.`);
      return;
    }
    setProblem(undefined);
    setDone(0);
    const { cues, seconds } = table.timetable;
    const { signal } = (going.current = new AbortController());
    const claps = takes.map((own) => own.map((time) => time + section.start));
    try {
      setFile(await makeTrack({ cues, seconds, levels: levelsOf(beat, counts), claps }, setDone, signal));
    } catch {
      if (!signal.aborted) setProblem(t`The concert could not be made. Reload the page and try again.`);
    }
    if (!signal.aborted) setDone(undefined);
  };
  return { file, address, done, problem, make, clear, start: section?.start ?? 0 };
}

interface StageProps extends Pick<ConcertProps, 'title' | 'pattern' | 'bpm'> {
  readonly file: Blob;
  readonly address: string | undefined;
  /** Seconds from the first sample to beat 1. */
  readonly zero: Seconds;
  readonly counts: readonly CountOptions[];
}

/** What parents see and hear: the rhythm as large as the window, the moving beat over it. */
function ConcertStage({ title, pattern, bpm, file, address, zero, counts }: StageProps) {
  const player = useRef<HTMLAudioElement>(null);
  const { element, toggle } = useFullScreen();
  const now = useMemo(
    () => () => {
      const audio = player.current;
      return audio && audio.currentTime > 0 ? audio.currentTime - zero : undefined;
    },
    [zero],
  );
  const overlay = (system: RulerSystem, layout: RulerLayout) => (
    <MovingBeat {...{ pattern, bpm, now, system, layout }} />
  );
  return (
    <div className="concert-stage" ref={element}>
      <h3>{title}</h3>
      <Ruler pattern={pattern} size="board" strips={false} counts={counts} overlay={overlay} />
      <div className="together-choice">
        {/* What sounds is on the ruler above it. */}
        {/* oxlint-disable-next-line jsx-a11y/media-has-caption */}
        <audio ref={player} controls src={address} aria-label={t`${title}, everybody together`} />
        <Button variant="outline-dark" onClick={toggle}>
          <Maximize size={16} aria-hidden /> {t`Full screen`}
        </Button>
        <Button variant="outline-dark" onClick={() => saveFile(t`${title}, concert.wav`, file)}>
          {t`Save as a file`}
        </Button>
      </div>
    </div>
  );
}

const NO_COUNTS: readonly CountOptions[] = [];

/** Everybody's claps in one sound, each child from its own place; with the ruler running, for the parents' evening. */
export function Concert(props: ConcertProps) {
  const { title, pattern, bpm, voice } = props;
  const [beat, setBeat] = useState(true);
  const [counts, setCounts] = useState(false);
  const { file, address, done, problem, make, clear, start } = useConcert(props);
  const lanes = useMemo(() => [voice.counts], [voice]);
  return (
    <section className="concert" aria-label={t`Concert`}>
      <h2>{t`Concert`}</h2>
      <div className="together-choice">
        <Form.Check
          type="checkbox"
          id="concert-beat"
          label={t`With the beat`}
          checked={beat}
          onChange={({ target }) => (clear(), setBeat(target.checked))}
        />
        <Form.Check
          type="checkbox"
          id="concert-counts"
          label={t`With the counts`}
          checked={counts}
          onChange={({ target }) => (clear(), setCounts(target.checked))}
        />
        <Button variant="outline-dark" disabled={done !== undefined} onClick={() => void make(beat, counts)}>
          {t`Make the concert`}
        </Button>
        {done !== undefined && (
          <ProgressBar className="flex-grow-1" now={done * 100} aria-label={t`Making the concert`} />
        )}
        {problem && <span className="lead-trouble">{problem}</span>}
      </div>
      {file && (
        <ConcertStage
          {...{ title, pattern, bpm, file, address }}
          zero={TRACK_LEAD_SECONDS + start}
          counts={counts ? lanes : NO_COUNTS}
        />
      )}
      <p className="hearing-key">{t`Each child claps from its own place between left and right. Nothing of it leaves
          this device.`}</p>
    </section>
  );
}
