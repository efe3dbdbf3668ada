import type { Pattern } from '../core/rhythm/pattern.ts';
import { COUNT_FONTS } from './heights.ts';
import { type PartBeside, type RulerLayout, layoutRuler } from './layout.ts';

/** A ruler drawn larger or smaller, so that it fills what there is and all of it is seen. */
export interface FittedRuler {
  readonly layout: RulerLayout;
  /** How much larger than its size is. */
  readonly zoom: number;
  /** Lines that are seen at once: all, or of a long rhythm two, the one that sounds and the next. */
  readonly seen: number;
}

export interface Room {
  readonly width: number;
  readonly height: number;
  /** Pixels of one line and of the air between two, before they are zoomed. */
  readonly line: number;
  readonly between: number;
  /** Letters of the counts, by measure and event. */
  readonly tokens?: readonly (readonly number[])[];
  /** Further parts on the same axis. */
  readonly beside?: readonly PartBeside[];
}

/** Up to so many measures are seen all at once. */
const SEEN_WHOLE = 4;
/** Counts are at least this part of the height where all of a long rhythm is shown, and never more than that one. */
const LEAST_COUNT = 1 / 18;
const LARGEST_COUNT = 1 / 7;
const SMALLEST_ZOOM = 0.2;
const STEP = 0.97;

/** Pixels that so many lines take. */
export function linesHeight(lines: number, { line, between }: Pick<Room, 'line' | 'between'>, zoom = 1): number {
  return (lines * line + Math.max(0, lines - 1) * between) * zoom;
}

function layoutIn(pattern: Pattern, { width, tokens, beside }: Room, zoom: number): RulerLayout {
  return layoutRuler(pattern, width / zoom, 'board', tokens, undefined, beside);
}

/**
 * As large as fits: up to four measures all at once; of longer rhythms all where their counts are large enough to be
 * read from the back, else two lines. Where nothing fits, so small that no count runs into the next.
 * @param window  its height, pixels: counts are a part of it
 */
export function fitRuler(pattern: Pattern, room: Room, window: number): FittedRuler {
  const count = pattern.measures.reduce((sum, { rests = 1 }) => sum + rests, pattern.pickup ? -1 : 0);
  const font = COUNT_FONTS.board;
  const fits = (lines: number, zoom: number) => linesHeight(lines, room, zoom) <= room.height;
  let two: FittedRuler | undefined;
  let last: FittedRuler | undefined;
  for (let zoom = (window * LARGEST_COUNT) / font; zoom > SMALLEST_ZOOM; zoom *= STEP) {
    const layout = layoutIn(pattern, room, zoom);
    if (!layout.isRoomy) continue;
    const lines = layout.systems.length;
    const isLarge = zoom * font >= window * LEAST_COUNT;
    last = { layout, zoom, seen: lines };
    if (fits(lines, zoom)) {
      if (count <= SEEN_WHOLE || isLarge) return last;
      break;
    }
    if (count > SEEN_WHOLE && fits(Math.min(2, lines), zoom)) two ??= { layout, zoom, seen: Math.min(2, lines) };
    // Smaller ones would be read less well than two lines are.
    if (two && !isLarge) break;
  }
  const best = two ?? last;
  if (best) return best;
  const layout = layoutIn(pattern, room, SMALLEST_ZOOM);
  return { layout, zoom: SMALLEST_ZOOM, seen: layout.systems.length };
}

/** The same so much larger or smaller than fits; what has no room is reached by scrolling. */
export function fitRulerBy(by: number, pattern: Pattern, room: Room, window: number): FittedRuler {
  const fitted = fitRuler(pattern, room, window);
  if (by === 1) return fitted;
  const zoom = fitted.zoom * by;
  const layout = layoutIn(pattern, room, zoom);
  const lines = Math.floor((room.height / zoom + room.between) / (room.line + room.between));
  return { layout, zoom, seen: Math.max(1, Math.min(lines, layout.systems.length)) };
}
