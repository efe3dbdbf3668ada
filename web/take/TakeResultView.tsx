import { Suspense, lazy, useEffect, useMemo, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import type { TakeResult } from '../../contract/take.ts';
import type { CountOptions } from '../../core/counting/count.ts';
import { adviceOn } from '../../core/wording/advice.ts';
import { besidesOf } from '../../core/wording/feetAndHolds.ts';
import { MARK_BORDERS, type MarkBorder } from '../../core/judging/mark.ts';
import { hardestMeasure } from '../../core/judging/nextStep.ts';
import { pairsOf, tempoLine } from '../../core/judging/tempoLine.ts';
import type { Windows } from '../../core/judging/windows.ts';
import { toNumber } from '../../core/rhythm/fraction.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { playPattern, unfold } from '../../core/rhythm/place.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { scheduleOf } from '../../core/timing/schedule.ts';
import { playPercussion } from '../audio/playPercussion.ts';
import { MARK_NAMES, MarkSign, type MarkShape } from '../ruler/HeardLane.tsx';
import { Ruler } from '../ruler/Ruler.tsx';
import type { SoundOnRuler } from '../ruler/SoundLane.tsx';
import type { Outline } from '../workers/listen.worker.ts';
import { heardMarks } from '../ruler/heardMarks.ts';
import { useStored } from '../ui/stored.ts';
import './take.scss';
import { beatTimes } from '../../core/timing/pulses.ts';

const TempoChart = lazy(() => import('./TempoChart.tsx'));

export interface JudgedTake {
  readonly patternId: string | null;
  readonly patternText: string;
  readonly bpm: number;
  readonly free: boolean;
  readonly windows: Windows;
  readonly onsets: readonly number[];
  readonly result: TakeResult;
  /** The outline of its sound, while this page knows it. */
  readonly outline?: Outline | undefined;
}

interface ViewProps {
  readonly take: JudgedTake;
  readonly counts: readonly CountOptions[];
  readonly mark: number;
  readonly borders: readonly MarkBorder[] | null | undefined;
}

/** A measure is practised alone at no more than this. */
const PRACTICE_BPM = 60;

/** What was right and the one thing to fix, on the same ruler as the rhythm; for a child only the words. */
export function TakeResultView({ take, counts, mark, borders }: ViewProps) {
  const { result, bpm, windows, patternId } = take;
  const [face, setFace] = useStored('take.face', 'teacher');
  const [zoom, setZoom] = useState<number>();
  const advice = adviceOn(result);
  const unfolded = useMemo(() => {
    const parsed = parseRhythm(take.patternText);
    return parsed.ok ? unfold(parsed.pattern) : undefined;
  }, [take.patternText]);
  const heard = useMemo(
    () => (unfolded ? heardMarks(unfolded, bpm, result, windows, take.free) : []),
    [unfolded, bpm, result, windows, take.free],
  );
  const heardPattern = useMemo(() => {
    const parsed = parseRhythm(result.heard);
    return parsed.ok && result.notes.some(({ verdict }) => verdict !== 'missed') ? parsed.pattern : undefined;
  }, [result]);
  const shapes = [...new Set(heard.map(({ shape }) => shape))];
  const [first, ...others] = advice.fix;
  const hardest = hardestMeasure(result);
  const forChild = face === 'child';
  const only = (pattern: Pattern | undefined) =>
    pattern && zoom !== undefined && pattern.measures[zoom]
      ? { pickup: pattern.pickup && zoom === 0, measures: [pattern.measures[zoom]] }
      : pattern;
  const sound = useMemo((): SoundOnRuler | undefined => {
    if (!take.outline || !unfolded) return undefined;
    const { whole } = scheduleOf(unfolded, bpm);
    const begin = zoom === undefined ? 0 : toNumber(playPattern(unfolded)[zoom]?.at ?? { n: 0, d: 1 }) * whole;
    // Without a click the child's own tempo and first clap say where the sound lies.
    const pace = take.free ? bpm / result.tempo.bpm : 1;
    const [first] = take.free ? pairsOf(unfolded, bpm, result, take.onsets) : [];
    const zero = first ? first.heard - first.written * pace : -result.tempo.leadMs / 1000;
    return { outline: take.outline, whole: whole * pace, zero: zero + begin * pace };
  }, [take.outline, take.free, take.onsets, unfolded, bpm, zoom, result]);
  const marks =
    zoom === undefined ? heard : heard.filter(({ measure }) => measure === zoom).map((one) => ({ ...one, measure: 0 }));
  return (
    <section className={`take-result ${forChild ? 'for-child' : ''}`} aria-label="Result">
      <div className="result-head">
        <div className="mark-box">
          <span className="mark-number">{mark}</span>
          <span>of 4</span>
        </div>
        <div role="status">
          <p className="well">{advice.well}</p>
          <p className="fix-first">{first ?? 'Nothing to fix.'}</p>
          {!forChild &&
            others.map((sentence) => (
              <p key={sentence} className="fix-more">
                {sentence}
              </p>
            ))}
          {besidesOf(result).map((sentence) => (
            <p key={sentence} className="fix-more">
              {sentence}
            </p>
          ))}
        </div>
      </div>
      <div className="result-tools no-print">
        {hardest !== undefined && patternId && (
          <Link
            className="btn btn-outline-dark"
            to={`/lead?pattern=${patternId}&from=${hardest}&bpm=${Math.min(PRACTICE_BPM, bpm)}`}
          >
            Practise measure {hardest} at {Math.min(PRACTICE_BPM, bpm)}
          </Link>
        )}
        {unfolded && <PlayBack take={take} pattern={unfolded} />}
        {unfolded && unfolded.measures.length > 1 && (
          <Form.Select
            size="sm"
            className="zoom"
            aria-label="Show"
            value={zoom ?? ''}
            onChange={(event) => setZoom(event.target.value === '' ? undefined : Number(event.target.value))}
          >
            <option value="">all measures</option>
            {unfolded.measures.map((_, i) => (
              <option key={i} value={i}>
                {unfolded.pickup && i === 0 ? 'the pickup' : `measure ${unfolded.pickup ? i : i + 1} alone`}
              </option>
            ))}
          </Form.Select>
        )}
        <Form.Check
          type="switch"
          id="child-face"
          label="For the child"
          checked={forChild}
          onChange={(event) => setFace(event.target.checked ? 'child' : 'teacher')}
        />
      </div>
      {unfolded && (
        <Ruler
          pattern={only(unfolded)!}
          size={zoom === undefined ? 'desk' : 'board'}
          counts={counts}
          heard={marks}
          heardNotes={only(heardPattern)}
          sound={sound}
        />
      )}
      <Legend shapes={shapes} />
      {!forChild && unfolded && <Numbers take={take} pattern={unfolded} borders={borders ?? MARK_BORDERS} />}
    </section>
  );
}

/** The claps as they came, against the click. */
function PlayBack({ take, pattern }: { take: JudgedTake; pattern: Pattern }) {
  const [playing, setPlaying] = useState(false);
  const stop = useRef<() => void>(undefined);
  useEffect(() => () => stop.current?.(), []);
  const toggle = async () => {
    if (playing) {
      stop.current?.();
      setPlaying(false);
      return;
    }
    const started = await playPercussion(
      take.onsets.map((time) => ({ time, sound: 'clap' })),
      take.free ? [] : beatTimes(pattern, take.bpm),
    );
    if (!started) return;
    setPlaying(true);
    const timer = setTimeout(() => setPlaying(false), started.ms);
    stop.current = () => {
      clearTimeout(timer);
      started.stop();
    };
  };
  return (
    <Button variant="outline-dark" onClick={() => void toggle()}>
      {playing ? 'Stop' : 'Hear it again'}
    </Button>
  );
}

function Legend({ shapes }: { shapes: readonly MarkShape[] }) {
  return (
    <ul className="legend" aria-label="Signs">
      {shapes.map((shape) => (
        <li key={shape}>
          <svg width="24" height="24" viewBox="-12 -12 24 24" aria-hidden>
            <MarkSign shape={shape} />
          </svg>
          {MARK_NAMES[shape]}
        </li>
      ))}
    </ul>
  );
}

const percent = (part: number) => `${Math.round(part * 1000) / 10} %`;

/** Which border gave the mark, in words. */
function borderWords(mark: number, borders: readonly MarkBorder[]): string {
  if (mark === 0) return '0: nothing was heard.';
  const border = borders.find((one) => one.mark === mark);
  if (!border) return `${mark}: below the border of ${percent(borders.at(-1)?.accuracy ?? 0)}.`;
  return `${mark}: at least ${percent(border.accuracy)}${border.driftPct === undefined ? '' : `, the tempo kept within ${border.driftPct} %`}.`;
}

/** The arithmetic behind the mark, folded until it is asked for. */
function Numbers({
  take: { result, bpm, free, onsets },
  pattern,
  borders,
}: {
  take: JudgedTake;
  pattern: Pattern;
  borders: readonly MarkBorder[];
}) {
  const [open, setOpen] = useState(false);
  const { notes, extras, tempo, accuracy, withBeat, follow, feet, holds } = result;
  const count = (verdict: string) => notes.filter((note) => note.verdict === verdict).length;
  const half = count('early') + count('late');
  const ms = (value: number) => `${Math.abs(Math.round(value))} ms`;
  const line = useMemo(
    () => (open ? tempoLine(pattern, bpm, result, onsets) : []),
    [open, pattern, bpm, result, onsets],
  );
  const ticks = useMemo(() => {
    const { whole } = scheduleOf(pattern, bpm);
    return playPattern(pattern).map(({ at, measure }) => ({
      at: toNumber(at) * whole,
      name: measure.number === 0 ? '' : String(measure.number),
    }));
  }, [pattern, bpm]);
  return (
    <details className="numbers" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>How the mark came about</summary>
      <p>
        ({count('on-time')} on time + half of {half} early or late − half of {extras.length} too many) ÷ {notes.length}{' '}
        notes = {percent(accuracy)}. Mark {borderWords(result.mark, borders)}
      </p>
      <p>
        {free ? `No click; played at about ${tempo.bpm}.` : `Click at ${bpm}, played at ${tempo.bpm}. `}
        {!free &&
          (Math.abs(tempo.leadMs) < 1
            ? 'With the click'
            : tempo.leadMs > 0
              ? `${ms(tempo.leadMs)} ahead of the click`
              : `${ms(tempo.leadMs)} behind the click`)}
        {!free && ' (taken off before judging); '}
        {free && ' '}
        {tempo.driftPct === 0
          ? 'tempo kept'
          : `${Math.abs(tempo.driftPct)} % ${tempo.driftPct > 0 ? 'faster' : 'slower'} by the end`}
        ; unsteadiness {ms(tempo.spreadMs)}.
      </p>
      {typeof withBeat === 'number' && (
        <p>With the beat itself, the child not followed: {percent(withBeat)} of the notes.</p>
      )}
      {follow.map(({ fromNote, beatsAhead }) => (
        <p key={fromNote}>{followWords(beatsAhead, notes[fromNote])}</p>
      ))}
      {feet && (
        <p>
          Feet: {feet.onBeat} of {feet.beats} beats{feet.extras > 0 ? `, ${feet.extras} steps too many` : ''}
          {feet.leadMs === undefined
            ? ''
            : `, ${ms(feet.leadMs)} ${feet.leadMs >= 0 ? 'ahead of' : 'behind'} the beat on the whole (taken off)`}
          ; hands {ms(feet.handsLaterMs)} {feet.handsLaterMs >= 0 ? 'after' : 'before'} the feet, give or take{' '}
          {ms(feet.apartMs)}.
        </p>
      )}
      {holds?.map(({ index, verdict, heldS, writtenS }) => (
        <p key={index}>
          Measure {notes[index]?.measure}, beat {notes[index]?.beat}: held {heldS} s of {writtenS} s
          {verdict === 'kept' ? '' : verdict === 'cut' ? ', cut short' : ', held over'}.
        </p>
      ))}
      {line.length > 2 && (
        <Suspense fallback={null}>
          <TempoChart points={line} bpm={free ? tempo.bpm : bpm} ticks={ticks} />
        </Suspense>
      )}
    </details>
  );
}

function followWords(beatsAhead: string, note: TakeResult['notes'][number] | undefined): string {
  const where = note ? ` since measure ${note.measure}, beat ${note.beat}` : '';
  if (beatsAhead === '0') return `With the beat again${where}.`;
  const behind = beatsAhead.startsWith('-');
  const size = beatsAhead.replace('-', '');
  return `${size === '1/2' ? 'Half a beat' : size === '1' ? 'A beat' : `${size} beats`} ${behind ? 'behind' : 'ahead'}${where}; followed from there, so what came after counts as it was clapped.`;
}
