import { type ReactNode, useMemo } from 'react';
import { type CountOptions, countPattern, plainCounts } from '../../core/counting/count.ts';
import { COUNTING_SYSTEMS } from '../../core/counting/countingSystems.ts';
import type { Bracket } from '../../contract/pattern.ts';
import { type Fade, hasCounts } from '../../core/leading/fading.ts';
import { handsOf } from '../../core/leading/hands.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { placePattern } from '../../core/rhythm/place.ts';
import { BeatsLane } from './BeatsLane.tsx';
import { BracketsLane } from './BracketsLane.tsx';
import type { HeardMark } from './HeardLane.tsx';
import { MarksLane, hasMarks } from './MarksLane.tsx';
import { SoundLane, type SoundOnRuler } from './SoundLane.tsx';
import { type CountsLane, Lane, type OnPick, SystemLanes } from './SystemLanes.tsx';
import { type RulerLayout, layoutRuler } from '../../drawing/layout.ts';
import type { RulerSize, RulerSystem } from '../../drawing/system.ts';
import { useWidth } from './useWidth.ts';
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
  readonly onPick?: OnPick;
  readonly pickName?: string;
  /** The beat lines. */
  readonly beats?: boolean;
  readonly heard?: readonly HeardMark[] | undefined;
  /** What was heard as notes, measure by measure as long as the pattern; drawn under it on the same axis. */
  readonly heardNotes?: Pattern | undefined;
  /** The sound of the take, when it was heard by a microphone. */
  readonly sound?: SoundOnRuler | undefined;
  /** Words over stretches of it; `numbers` are those on paper, where the measures are written out. */
  readonly brackets?: readonly Bracket[] | undefined;
  readonly numbers?: readonly number[] | undefined;
  /** Counts that fade: what of them is left. */
  readonly fade?: Fade;
  /** Drawn over a line of the ruler: the moving beat, for instance. */
  readonly overlay?: (system: RulerSystem, layout: RulerLayout) => ReactNode;
}

function countsLane(pattern: Pattern, options: CountOptions, given?: string): CountsLane {
  const counted = countPattern(pattern, options);
  const name = given ?? COUNTING_SYSTEMS[options.school].title.replace(/ \(.*/, '');
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

/** From this width on a board is a large one, pixels. */
const WALL_WIDTH = 1500;
const NO_COUNTS: readonly CountOptions[] = [];

/** The written lanes under the notes, and the lines on which everything stands. */
function useLayout(
  { pattern, size = 'desk', counts = NO_COUNTS, countNames, hands = false }: RulerProps,
  width: number,
) {
  const names = countNames?.join('\n');
  const lanes = useMemo(
    () => counts.map((options, i) => countsLane(pattern, options, names?.split('\n')[i])),
    [pattern, counts, names],
  );
  const allLanes = useMemo(
    () => (hands ? [...lanes, { name: 'Hands', measures: handsOf(pattern) }] : lanes),
    [hands, lanes, pattern],
  );
  const layout = useMemo(() => {
    if (width === 0) return undefined;
    const room = letters(allLanes);
    const usual = layoutRuler(pattern, width, size, room);
    if (size !== 'board' || width < WALL_WIDTH) return usual;
    // Larger still, where that does not push a measure onto a further line.
    const larger = layoutRuler(pattern, width, 'wall', room);
    return larger.systems.length > usual.systems.length ? usual : larger;
  }, [pattern, width, size, allLanes]);
  return { lanes, allLanes, layout };
}

/** Nothing but the numbers of the beats. */
const BEAT_NUMBERS = { name: 'Beats', textAt: (_measure: unknown, beat: number) => String(beat + 1) } as const;

/** What is left of a lane of counts: its place stays, so that nothing jumps. */
function faded(lane: CountsLane, fade: Fade): CountsLane[] {
  if (fade === 'all') return [lane];
  if (fade === 'beats') return [];
  return [{ ...lane, measures: lane.measures.map((one, i) => (hasCounts(fade, i) ? one : { ...one, tokens: [] })) }];
}

/** The one axis of the app: time from left to right in exact beats, everything about the rhythm a lane on it. */
export function Ruler(props: RulerProps) {
  const { pattern, notes = true, strips = true, feet = false, beats = true } = props;
  const { onPick, pickName = 'Explain', heard, heardNotes, sound, overlay, brackets, numbers, fade = 'all' } = props;
  const [ref, width] = useWidth();
  const { lanes, allLanes, layout } = useLayout(props, width);
  const size = layout?.size ?? props.size ?? 'desk';
  const marks = useMemo(() => hasMarks(pattern), [pattern]);
  const heardPlaced = useMemo(() => heardNotes && placePattern(heardNotes), [heardNotes]);
  const lanesLeft = useMemo(() => allLanes.flatMap((lane) => faded(lane, fade)), [allLanes, fade]);
  const shown = { size, notes, strips, beats, feet, lanes: lanesLeft, onPick, pickName, heard, heardPlaced };
  return (
    <div ref={ref} className={`ruler ruler-${size}`} data-ruler>
      {lanes.map(({ name, measures, refused }, i) => (
        <p key={i} className={refused ? 'ruler-refused' : 'visually-hidden'}>
          {name}: {refused ?? plainCounts(measures)}
        </p>
      ))}
      {layout?.systems.map((system, i) => (
        <div key={i} className="ruler-system">
          {brackets && <BracketsLane system={system} size={size} scale={layout.scale} {...{ brackets, numbers }} />}
          {marks && <MarksLane system={system} size={size} numbers={numbers} />}
          <SystemLanes system={system} scale={layout.scale} {...shown} />
          {fade === 'beats' && (
            <Lane
              name="Beats"
              content={<BeatsLane system={system} size={size} scale={layout.scale} {...BEAT_NUMBERS} />}
            />
          )}
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
