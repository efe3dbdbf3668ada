import { type ReactNode, memo, useEffect, useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { type CountOptions, type CountedMeasure, countPattern, plainCounts } from '../../core/counting/count.ts';
import { SCHOOLS } from '../../core/counting/schools.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { type PlacedMeasure, placePattern } from '../../core/rhythm/place.ts';
import { handsOf } from '../../core/leading/hands.ts';
import { toNumber } from '../../core/rhythm/fraction.ts';
import { StepsLane } from './HandsFeet.tsx';
import { HeardLane, type HeardMark } from './HeardLane.tsx';
import { NotesLane } from './NotesLane.tsx';
import { SoundLane, type SoundOnRuler } from './SoundLane.tsx';
import { StripsLane } from './StripsLane.tsx';
import { TokensLane } from './TokensLane.tsx';
import { type RulerLayout, type RulerSize, type RulerSystem, beatXs, layoutRuler, xOf } from './layout.ts';
import './ruler.scss';

export interface RulerProps {
  readonly pattern: Pattern;
  readonly size?: RulerSize;
  /** The counts to show, one lane each, in order. */
  readonly counts?: readonly CountOptions[];
  /** Names of the count lanes where the school's own name does not tell them apart. */
  readonly countNames?: readonly string[];
  readonly notes?: boolean;
  readonly strips?: boolean;
  /** What the hands do at each note, and the feet at each beat. */
  readonly hands?: boolean;
  readonly feet?: boolean;
  /** Makes every note a button; `pickName` is what it does. */
  readonly onPick?: (picked: { measure: number; event: number }) => void;
  readonly pickName?: string;
  /** The beat lines. */
  readonly beats?: boolean;
  readonly heard?: readonly HeardMark[] | undefined;
  /** What was heard as notes, measure by measure as long as the pattern; drawn under it on the same axis. */
  readonly heardNotes?: Pattern | undefined;
  /** The sound of the take, when it was heard by a microphone. */
  readonly sound?: SoundOnRuler | undefined;
  /** Drawn over a line of the ruler: the moving beat, for instance. */
  readonly overlay?: (system: RulerSystem, layout: RulerLayout) => ReactNode;
}

/** What fits on a sheet of A4 or Letter with the usual margins, at 96 pixels an inch. */
const PAPER_WIDTH = 680;

/** The width of an element as it is laid out, in whole pixels. */
export function useWidth(): [React.RefObject<HTMLDivElement | null>, number] {
  const ref = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const here = ref.current;
    if (!here) return undefined;
    const measure = () => setWidth(Math.floor(here.clientWidth));
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(here);
    // A sheet of paper is narrower than the window, and it is laid out before anything here is told of it.
    const onPaper = () => flushSync(() => setWidth(PAPER_WIDTH));
    addEventListener('beforeprint', onPaper);
    addEventListener('afterprint', measure);
    return () => {
      observer.disconnect();
      removeEventListener('beforeprint', onPaper);
      removeEventListener('afterprint', measure);
    };
  }, []);
  return [ref, width];
}

interface CountsLane {
  readonly name: string;
  readonly measures: readonly CountedMeasure[];
  readonly refused?: string;
}

function countsLane(pattern: Pattern, options: CountOptions, given?: string): CountsLane {
  const counted = countPattern(pattern, options);
  const name = given ?? SCHOOLS[options.school].title.replace(/ \(.*/, '');
  return counted.ok ? { name, measures: counted.measures } : { name, measures: [], refused: counted.reason };
}

/** How many letters each count takes at most, small numbers counted half. */
function letters(lanes: readonly CountsLane[]): number[][] {
  const width = (text: string) => text.length - (text.match(/[₀-₉]/g)?.length ?? 0) * 0.4;
  const longest: number[][] = [];
  for (const { measures } of lanes) {
    measures.forEach(({ tokens }, m) => {
      longest[m] ??= [];
      tokens.forEach(({ text }, i) => (longest[m]![i] = Math.max(longest[m]![i] ?? 0, width(text))));
    });
  }
  return longest;
}

const NO_COUNTS: readonly CountOptions[] = [];

/** The one axis of the app: time from left to right in exact beats, everything about the rhythm a lane on it. */
export function Ruler({
  pattern,
  size = 'desk',
  counts = NO_COUNTS,
  countNames,
  notes = true,
  strips = true,
  hands = false,
  feet = false,
  onPick,
  pickName = 'Explain',
  beats = true,
  heard,
  heardNotes,
  sound,
  overlay,
}: RulerProps) {
  const [ref, width] = useWidth();
  const names = countNames?.join('\n');
  const lanes = useMemo(
    () => counts.map((options, i) => countsLane(pattern, options, names?.split('\n')[i])),
    [pattern, counts, names],
  );
  const allLanes = useMemo(
    () => (hands ? [...lanes, { name: 'Hands', measures: handsOf(pattern) }] : lanes),
    [hands, lanes, pattern],
  );
  const layout = useMemo(
    () => (width > 0 ? layoutRuler(pattern, width, size, letters(allLanes)) : undefined),
    [pattern, width, size, allLanes],
  );
  const heardPlaced = useMemo(() => heardNotes && placePattern(heardNotes), [heardNotes]);
  return (
    <div ref={ref} className={`ruler ruler-${size}`} data-ruler>
      {lanes.map(({ name, measures, refused }, i) => (
        <p key={i} className={refused ? 'ruler-refused' : 'visually-hidden'}>
          {name}: {refused ?? plainCounts(measures)}
        </p>
      ))}
      {layout?.systems.map((system, i) => (
        <div key={i} className="ruler-system">
          <SystemLanes
            system={system}
            scale={layout.scale}
            size={size}
            notes={notes}
            strips={strips}
            beats={beats}
            feet={feet}
            lanes={allLanes}
            onPick={onPick}
            pickName={pickName}
            heard={heard}
            heardPlaced={heardPlaced}
          />
          {sound && (
            <Lane
              name="Sound"
              content={<SoundLane system={system} size={size} scale={layout.scale} pattern={pattern} sound={sound} />}
            />
          )}
          {overlay?.(system, layout)}
        </div>
      ))}
    </div>
  );
}

interface SystemProps {
  readonly system: RulerSystem;
  readonly scale: number;
  readonly size: RulerSize;
  readonly notes: boolean;
  readonly strips: boolean;
  readonly beats: boolean;
  readonly feet: boolean;
  readonly onPick: RulerProps['onPick'] | undefined;
  readonly pickName: string;
  readonly lanes: readonly CountsLane[];
  readonly heard: readonly HeardMark[] | undefined;
  readonly heardPlaced: readonly PlacedMeasure[] | undefined;
}

/** Everything a line of the ruler shows, but for what was heard. */
function shown({ system, scale, size, notes, strips, beats, feet, lanes }: SystemProps): string {
  const tokens = lanes.map(({ name, measures }) => [
    name,
    system.measures.map(({ index }) => measures[index]?.tokens.map(({ kind, text }) => kind + text)),
  ]);
  return JSON.stringify([system, scale, size, notes, strips, beats, feet, tokens]);
}

/** The lanes of one line. While a measure is typed, the lines that show the same as before are left alone. */
const SystemLanes = memo(
  function SystemLanes({
    system,
    scale,
    size,
    notes,
    strips,
    beats,
    feet,
    lanes,
    onPick,
    pickName,
    heard,
    heardPlaced,
  }: SystemProps) {
    const where = { system, size, scale };
    return (
      <>
        {beats && <BeatLines system={system} scale={scale} />}
        {notes && <Lane name="Notes" content={<NotesLane {...where} />} />}
        {strips && <Lane name="Strips" content={<StripsLane {...where} />} />}
        {lanes.map(
          ({ name, measures }, k) =>
            measures.length > 0 && (
              <Lane key={k} name={name} content={<TokensLane {...where} measures={measures} name={name} />} />
            ),
        )}
        {feet && <Lane name="Steps" content={<StepsLane {...where} />} />}
        {heard && <Lane name="Heard" content={<HeardLane {...where} marks={heard} />} />}
        {heardPlaced && (
          <Lane name="Heard, as notes" content={<NotesLane {...where} system={withNotes(system, heardPlaced)} />} />
        )}
        {onPick && <PickLane system={system} scale={scale} onPick={onPick} name={pickName} />}
      </>
    );
  },
  (before, now) =>
    before.heard === now.heard &&
    before.heardPlaced === now.heardPlaced &&
    before.onPick === now.onPick &&
    shown(before) === shown(now),
);

/** A button over each note and rest, as wide as its time. */
function PickLane({
  system,
  scale,
  name,
  onPick,
}: {
  system: RulerSystem;
  scale: number;
  name: string;
  onPick: (picked: { measure: number; event: number }) => void;
}) {
  return (
    <div className="pick-lane">
      {system.measures.map((measure) =>
        measure.placed.events.map((event, i) => (
          <button
            key={`${measure.index}-${i}`}
            type="button"
            aria-label={`${name} measure ${measure.placed.number}, sign ${i + 1}`}
            style={{ left: xOf(measure, event.onset, scale) - 8, width: toNumber(event.length) * scale - 4 }}
            onClick={() => onPick({ measure: measure.index, event: i })}
          />
        )),
      )}
    </div>
  );
}

/** A line of the ruler with other notes in its measures. */
function withNotes(system: RulerSystem, placed: readonly PlacedMeasure[]): RulerSystem {
  return {
    ...system,
    measures: system.measures.map((measure) => ({ ...measure, placed: placed[measure.index] ?? measure.placed })),
  };
}

function Lane({ name, content }: { name: string; content: ReactNode }) {
  return (
    <div className="lane">
      <span className="lane-name" aria-hidden>
        {name}
      </span>
      {content}
    </div>
  );
}

function BeatLines({ system, scale }: { system: RulerSystem; scale: number }) {
  return (
    <svg className="beat-lines" width={system.width} height="100%" aria-hidden>
      {system.measures.map((measure) =>
        beatXs(measure, scale).map(({ x, first }) => (
          <line key={x} className={first ? 'beat-first' : 'beat'} x1={x} x2={x} y1="0" y2="100%" />
        )),
      )}
    </svg>
  );
}
