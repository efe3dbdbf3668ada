import type { Hypothesis } from '../judging/misreadings/hypothesis.ts';
import { type MisreadingCode, MISREADINGS, MISREADING_CODES } from '../judging/misreadings/table.ts';
import { type Score, scoreOf } from '../judging/scoreEvents.ts';
import { type ElementId, type WrittenPlace, elementPlaces } from '../rhythm/elements.ts';
import type { Meter } from '../rhythm/meter.ts';
import type { Item, Pattern } from '../rhythm/pattern.ts';
import { placePattern } from '../rhythm/place.ts';
import { scheduleOf } from '../timing/schedule.ts';
import type { Brick, BrickBox } from './bricks.ts';

/** What a pattern is to practise: an element, or what children misread. */
export type Focus =
  | { readonly kind: 'element'; readonly element: ElementId }
  | { readonly kind: 'misreading'; readonly code: MisreadingCode };

const ANYWHERE: readonly MisreadingCode[] = [
  ...(['lost-and-recovered', 'joined-late', 'looped', 'measures-too-long', 'measures-too-short'] as const),
  'beat-misread',
];

/**
 * Misreadings that happen at a place, so that a pattern can be made for them. Who is lost for a stretch may be so
 * anywhere: no pattern brings it out.
 */
export const PLACED_MISREADINGS: readonly MisreadingCode[] = MISREADING_CODES.filter(
  (code) => MISREADINGS[code].about === 'place' && !ANYWHERE.includes(code),
);

/** In which so many places the judge would hear a misreading that a pattern is made for (rules §11). */
export const MISREAD_AT = 2;

/** Any tempo will do where only places are asked for. */
const BPM = 60;

function hypothesesIn(code: MisreadingCode, score: Score): Hypothesis[] {
  const kind = MISREADINGS[code];
  return 'hypotheses' in kind ? kind.hypotheses(score) : [];
}

/** Swung pairs are one hypothesis of the whole take, and stand wherever a pair does. */
function pairsOf(pattern: Pattern): readonly WrittenPlace[] {
  return elementPlaces(pattern).get('eighth-pair') ?? [];
}

/** The places where a focus stands in a pattern, in order. */
export function focusPlaces(pattern: Pattern, focus: Focus): readonly WrittenPlace[] {
  if (focus.kind === 'element') return elementPlaces(pattern).get(focus.element) ?? [];
  if (focus.code === 'eighths-uneven') return pairsOf(pattern);
  const score = scoreOf(scheduleOf(pattern, BPM));
  const events = [...new Set(hypothesesIn(focus.code, score).map(({ event }) => event))].sort((a, b) => a - b);
  return events.map((index) => {
    const { event, measure } = score.events[index]!.source;
    return { measure: measure.number, onset: event.onset };
  });
}

/** Whether it is a tie: that is no cell, but joins two. */
export function isTie(focus: Focus): boolean {
  return focus.kind === 'element' ? focus.element === 'tie' : focus.code === 'tie-restruck';
}

/**
 * Whether a focus asks for something that is written, and does not stand in every measure anyhow: a child can leave out
 * a measure, or stop, in any pattern.
 */
export function needsBrick(focus: Focus): boolean {
  if (focus.kind === 'element') return focus.element !== 'compound';
  return 'hypotheses' in MISREADINGS[focus.code] && !focus.code.startsWith('measure-');
}

function withPlain(meter: Meter, items: readonly Item[], plain: readonly Item[]): Pattern {
  const measure = (own: readonly Item[]) => ({ meter, items: own });
  return { pickup: false, measures: [measure(plain), measure(items), measure(plain), measure(plain)] };
}

/** The bricks in which a focus stands. */
export function bricksFor({ meter, bricks }: BrickBox, focus: Focus): readonly Brick[] {
  if (focus.kind === 'element') return bricks.filter(({ elements }) => elements.has(focus.element));
  const plain = bricks.find((brick) => brick.plain)?.items ?? [];
  return bricks.filter(({ items }) => {
    // Only what is in the brick itself counts, with something after it, for else nothing could come too early.
    const pattern = withPlain(meter, items, plain);
    const [, second] = placePattern(pattern);
    return focusPlaces(pattern, focus).some(({ measure }) => measure === second!.number);
  });
}
