import { perLanguage, t } from '../../core/words/say.ts';
import { type CSSProperties, type ReactNode, useMemo } from 'react';
import { type CountOptions, countPattern, plainCounts } from '../../core/counting/count.ts';
import { COUNTING_SYSTEMS } from '../../core/counting/countingSystems.ts';
import type { Bracket } from '../../contract/pattern.ts';
import { type Fade, hasCounts } from '../../core/leading/fading.ts';
import { handsOf } from '../../core/leading/hands.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import type { Part } from '../../core/rhythm/score.ts';
import { placePattern } from '../../core/rhythm/place.ts';
import { BeatsLane } from './BeatsLane.tsx';
import { BracketsLane } from './BracketsLane.tsx';
import type { HeardMark } from './HeardLane.tsx';
import { MarksLane, hasMarks } from './MarksLane.tsx';
import { SoundLane, type SoundOnRuler } from './SoundLane.tsx';
import { type PartGroup, PartLanes } from './PartLanes.tsx';
import { type CountsLane, HANDS, Lane, type OnPick, SystemLanes } from './SystemLanes.tsx';
import { type FittedRuler, fitRulerBy, linesHeight } from '../../drawing/fit.ts';
import {
  BAND_HEIGHTS,
  COUNTS_HEIGHTS,
  HEARD_HEIGHTS,
  MARKS_HEIGHTS,
  NOTES_HEIGHTS,
  STRIPS_HEIGHTS,
} from '../../drawing/heights.ts';
import { type PartBeside, type RulerLayout, layoutRuler } from '../../drawing/layout.ts';
import type { RulerSize, RulerSystem } from '../../drawing/system.ts';
import { useHeight } from './useHeight.ts';
import { useWidth } from './useWidth.ts';
import './ruler.scss';

export interface RulerProps {
  /** Of several parts the first one's. */
  readonly pattern: Pattern;
  /** All parts that sound together, where there are several: a group of lanes each. */
  readonly parts?: readonly Part[] | undefined;
  /** Two parts have one line of notes, with stems up and down. */
  readonly oneLine?: boolean;
  /** Indices of parts that rest while the others go. */
  readonly resting?: readonly number[];
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
  /**
   * As large as the element around it, which has a height of its own, lets it be: for a class that reads from far. Of a
   * long rhythm two lines are seen, and the rest by scrolling.
   */
  readonly fit?: boolean;
  /** So much larger or smaller than fits. */
  readonly fitBy?: number;
  /** A lane of its own under the others: how together a class was. */
  readonly band?: ((system: RulerSystem, layout: RulerLayout) => ReactNode) | undefined;
  /** Drawn over a line of the ruler: the moving beat, for instance. */
  readonly overlay?: (system: RulerSystem, layout: RulerLayout) => ReactNode;
}

function countsLane(pattern: Pattern, options: CountOptions, given?: string): CountsLane {
  const counted = countPattern(pattern, options);
  const name = given ?? COUNTING_SYSTEMS()[options.school].title.replace(/ \(.*/, '');
  return counted.ok ? { name, measures: counted.measures } : { name, measures: [], refused: counted.reason };
}

/** How many letters each count takes at most, small numbers counted half. */
function letters(lanes: readonly CountsLane[], ofHand?: number): number[][] {
  const width = (text: string) => text.length - (text.match(/[₀-₉]/g)?.length ?? 0) * 0.4;
  const longest: number[][] = [];
  for (const lane of lanes) {
    const own = ofHand !== undefined && isHands(lane) ? ofHand : undefined;
    lane.measures.forEach(({ tokens }, m) => {
      longest[m] ??= [];
      tokens.forEach(({ text }, i) => (longest[m]![i] = Math.max(longest[m]![i] ?? 0, own ?? width(text))));
    });
  }
  return longest;
}

/** From this width on a board is a large one, pixels. */
const WALL_WIDTH = 1500;
const NO_COUNTS: readonly CountOptions[] = [];
const NONE: readonly number[] = [];
/** Pixels between two lines that are fitted; the style sheet says the same. */
const BETWEEN = 10;
/** Letters that the drawn sign of a hand is wide. */
const SIGN_LETTERS = 1.2;
/** Words of the hands give way to signs where all could be so much larger. */
const WORTH_SIGNS = 1.15;

/** The written lanes of each part under its notes. */
function useGroups({ pattern, parts, counts = NO_COUNTS, countNames, hands = false }: RulerProps): PartGroup[] {
  const names = countNames?.join('\n');
  return useMemo(() => {
    const several = parts !== undefined && parts.length > 1;
    // Of several parts each has its words once: more of them nobody reads.
    const own = several ? counts.slice(0, 1) : counts;
    const all = several ? parts : [{ name: '', pattern }];
    return all.map(({ name, pattern: one }) => {
      const spoken = own.map((options, i) => countsLane(one, options, names?.split('\n')[i]));
      const lanes = hands ? [...spoken, { name: HANDS(), measures: handsOf(one) }] : spoken;
      return { name, pattern: one, placed: placePattern(one), spoken, lanes };
    });
  }, [pattern, parts, counts, names, hands]);
}

/** Pixels of all lanes of one line. */
function lineHeight(props: RulerProps, groups: readonly PartGroup[]): number {
  const { notes = true, strips = true, feet, brackets, pattern, heard, band, oneLine } = props;
  const marks = hasMarks(pattern) ? MARKS_HEIGHTS.board : 0;
  const lanes = groups.reduce((sum, group) => sum + group.lanes.length, 0);
  const written = lanes + (feet ? 1 : 0) + (brackets && brackets.length > 0 ? 1 : 0);
  const lines = oneLine && groups.length === 2 ? 1 : groups.length;
  const drawn = (notes ? NOTES_HEIGHTS.board * lines : 0) + (strips ? STRIPS_HEIGHTS.board * groups.length : 0);
  const below = (heard ? HEARD_HEIGHTS.board : 0) + (band ? BAND_HEIGHTS.board : 0);
  return marks + drawn + written * COUNTS_HEIGHTS.board + below;
}

interface Drawn extends Omit<FittedRuler, 'seen'> {
  /** Pixels that are seen at once, where the ruler is fitted; and whether there is more. */
  readonly height?: number;
  readonly scrolls?: boolean;
  /** What the hands do is drawn, for its words have no room. */
  readonly handSigns: boolean;
}

/** The lines on which everything stands, and how large they are. */
function useLayout(props: RulerProps, groups: readonly PartGroup[], width: number, height: number) {
  const { pattern, size = 'desk', fit = false, fitBy = 1 } = props;
  const line = lineHeight(props, groups);
  return useMemo((): Drawn | undefined => {
    if (width === 0 || (fit && height === 0)) return undefined;
    const roomOf = (ofHand?: number) => {
      const [tokens = [], ...others] = groups.map(({ lanes }) => letters(lanes, ofHand));
      const beside = others.map((own, i): PartBeside => ({ placed: groups[i + 1]!.placed, tokens: own }));
      return { tokens, beside };
    };
    const room = roomOf();
    if (fit) {
      const fitted = (own: typeof room) =>
        fitRulerBy(fitBy, pattern, { width, height, line, between: BETWEEN, ...own }, window.innerHeight);
      const words = fitted(room);
      const signs = groups.some(({ lanes }) => lanes.some(isHands)) ? fitted(roomOf(SIGN_LETTERS)) : words;
      const handSigns = signs.zoom > words.zoom * WORTH_SIGNS;
      const { layout, zoom, seen } = handSigns ? signs : words;
      const seenHeight = linesHeight(seen, { line, between: BETWEEN }, zoom);
      return { layout, zoom, handSigns, height: seenHeight, scrolls: seen < layout.systems.length };
    }
    const as = (layout: RulerLayout): Drawn => ({ layout, zoom: 1, handSigns: false });
    const laid = (wanted: RulerSize) => layoutRuler(pattern, width, wanted, room.tokens, undefined, room.beside);
    const usual = laid(size);
    if (size !== 'board' || width < WALL_WIDTH) return as(usual);
    // Larger still, where that does not push a measure onto a further line.
    const larger = laid('wall');
    return as(larger.systems.length > usual.systems.length ? usual : larger);
  }, [pattern, width, height, size, fit, fitBy, line, groups]);
}

const isHands = ({ name }: CountsLane) => name === HANDS();

/** Nothing but the numbers of the beats. */
const BEAT_NUMBERS = perLanguage(
  () => ({ name: t`Beats`, textAt: (_measure: unknown, beat: number) => String(beat + 1) }) as const,
);

/** What is left of a lane of counts: its place stays, so that nothing jumps. */
function faded(lane: CountsLane, fade: Fade): CountsLane[] {
  if (fade === 'all') return [lane];
  if (fade === 'beats') return [];
  return [{ ...lane, measures: lane.measures.map((one, i) => (hasCounts(fade, i) ? one : { ...one, tokens: [] })) }];
}

const fadedGroup = (group: PartGroup, fade: Fade): PartGroup => ({
  ...group,
  lanes: group.lanes.flatMap((lane) => faded(lane, fade)),
});

/** The one axis of the app: time from left to right in exact beats, everything about the rhythm a lane on it. */
export function Ruler(props: RulerProps) {
  const { pattern, notes = true, strips = true, feet = false, beats = true } = props;
  const { onPick, pickName = t`Explain`, heard, heardNotes, overlay, brackets, numbers, fade = 'all' } = props;
  const [ref, width] = useWidth();
  const groups = useGroups(props);
  const drawn = useLayout(props, groups, width, useHeight(ref, props.fit === true));
  const layout = drawn?.layout;
  const size = layout?.size ?? props.size ?? 'desk';
  const marks = useMemo(() => hasMarks(pattern), [pattern]);
  const heardPlaced = useMemo(() => heardNotes && placePattern(heardNotes), [heardNotes]);
  const left = useMemo(() => groups.map((group) => fadedGroup(group, fade)), [groups, fade]);
  const handSigns = drawn?.handSigns === true;
  const shown = { size, handSigns, notes, strips, beats, feet, onPick, pickName };
  return (
    <div ref={ref} className={`ruler ruler-${size} ${props.fit ? 'ruler-fit' : ''}`} data-ruler>
      <PlainCounts groups={groups} />
      <Lines drawn={drawn}>
        {layout?.systems.map((system, i) => (
          <div key={i} className="ruler-system">
            {brackets && <BracketsLane system={system} size={size} scale={layout.scale} {...{ brackets, numbers }} />}
            {marks && <MarksLane system={system} size={size} numbers={numbers} />}
            {left.length === 1 ? (
              <SystemLanes
                system={system}
                scale={layout.scale}
                {...shown}
                lanes={left[0]!.lanes}
                heard={heard}
                heardPlaced={heardPlaced}
              />
            ) : (
              <PartLanes
                system={system}
                scale={layout.scale}
                shown={shown}
                groups={left}
                oneLine={props.oneLine === true}
                resting={props.resting ?? NONE}
              />
            )}
            {fade === 'beats' && (
              <Lane
                name={t`Beats`}
                content={<BeatsLane system={system} size={size} scale={layout.scale} {...BEAT_NUMBERS()} />}
              />
            )}
            <LanesBelow {...props} system={system} layout={layout} size={size} />
            {overlay?.(system, layout)}
          </div>
        ))}
      </Lines>
    </div>
  );
}

/** How together a class was, and the sound of a take. */
function LanesBelow(
  props: Pick<RulerProps, 'band' | 'sound' | 'pattern'> & {
    readonly system: RulerSystem;
    readonly layout: RulerLayout;
    readonly size: RulerSize;
  },
) {
  const { band, sound, pattern, system, layout, size } = props;
  return (
    <>
      {band && <Lane name={t`Together`} content={band(system, layout)} />}
      {sound && (
        <Lane name={t`Sound`} content={<SoundLane {...{ system, size, pattern, sound }} scale={layout.scale} />} />
      )}
    </>
  );
}

/** The counts of each part for those who do not see them drawn, and why one cannot be counted. */
function PlainCounts({ groups }: { groups: readonly PartGroup[] }) {
  return groups.map((group, g) =>
    group.spoken.map(({ name, measures, refused }, i) => (
      <p key={`${g}-${i}`} className={refused ? 'ruler-refused' : 'visually-hidden'}>
        {group.name === '' ? name : `${group.name}, ${name}`}: {refused ?? plainCounts(measures)}
      </p>
    )),
  );
}

/** All lines; where they are fitted, so many of them as are seen, as large as they are to be. */
function Lines({ drawn, children }: { drawn: Drawn | undefined; children: ReactNode }) {
  if (drawn?.height === undefined) return children;
  const { height, zoom, scrolls } = drawn;
  // It scrolls where the rhythm is longer, so it can be reached and scrolled by keys; elsewhere it is in nobody's way.
  const reached = scrolls ? { tabIndex: 0, role: 'group', 'aria-label': t`The rhythm` } : {};
  return (
    <div className="ruler-seen" style={{ height }} {...reached}>
      <div style={{ zoom, '--fit-zoom': zoom } as CSSProperties}>{children}</div>
    </div>
  );
}
