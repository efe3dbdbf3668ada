import { type Fraction, ZERO, compare, equal, sub } from './fraction.ts';
import { type Meter, beatOf, meterLength, sameMeter } from './meter.ts';
import type { Item, Measure, Pattern, Rest } from './pattern.ts';
import { contentLength } from './place.ts';
import { plainNumbers } from './plainNumbers.ts';
import { restsFor } from './restsFor.ts';

/** What all parts have in one measure; a run of rests is so many measures. */
export interface Frame {
  readonly meter: Meter;
  readonly repeatStart: boolean;
  readonly repeatEnd: boolean;
  readonly number?: number;
  readonly letter?: string;
}

/** What one part has in one measure. */
export interface Filling {
  /** Undefined for a whole measure of rest. */
  readonly items: readonly Item[] | undefined;
  /** Measures of rest of one sign have the same; else -1. */
  readonly run: number;
}

/** The frame of each measure of a pattern. */
export function framesOf({ measures }: Pattern): Frame[] {
  return measures.flatMap(({ meter, rests = 1, repeatStart, repeatEnd, number, letter }) =>
    Array.from({ length: rests }, (_, k): Frame => ({
      meter,
      repeatStart: k === 0 && repeatStart === true,
      repeatEnd: k === rests - 1 && repeatEnd === true,
      ...(k === 0 && number !== undefined ? { number } : {}),
      ...(k === 0 && letter !== undefined ? { letter } : {}),
    })),
  );
}

/** What fills each measure of a pattern. */
export function fillingsOf({ measures }: Pattern): Filling[] {
  return measures.flatMap(({ items, rests }, run): Filling[] =>
    rests === undefined ? [{ items, run: -1 }] : Array.from({ length: rests }, () => ({ items: undefined, run })),
  );
}

/** One sign of rests can stand over both measures: nothing stands on paper between them. */
function goOn(frame: Frame, next: Frame): boolean {
  return (
    sameMeter(frame.meter, next.meter) &&
    !frame.repeatEnd &&
    !next.repeatStart &&
    next.number === undefined &&
    next.letter === undefined
  );
}

/** A part as a pattern of its own: its measures in the frame of all. */
export function inFrame(pickup: boolean, frames: readonly Frame[], fillings: readonly Filling[]): Pattern {
  const measures: Measure[] = [];
  fillings.forEach(({ items, run }, i) => {
    const frame = frames[i]!;
    const before = measures.at(-1);
    const sameRun = items === undefined && i > 0 && run >= 0 && fillings[i - 1]!.run === run;
    if (sameRun && before?.rests !== undefined && goOn(frames[i - 1]!, frame)) {
      const { repeatEnd: _, ...run } = before;
      measures[measures.length - 1] = { ...run, rests: before.rests + 1, ...ends(frame) };
      return;
    }
    const { meter, repeatStart, number, letter } = frame;
    measures.push({
      meter,
      items: items ?? [],
      ...(items === undefined ? { rests: 1 } : {}),
      ...(repeatStart ? { repeatStart } : {}),
      ...ends(frame),
      ...(number === undefined ? {} : { number }),
      ...(letter === undefined ? {} : { letter }),
    });
  });
  return { pickup, measures: plainNumbers(measures, pickup) };
}

const ends = ({ repeatEnd }: Frame): { readonly repeatEnd?: true } => (repeatEnd ? { repeatEnd: true } : {});

/** How long the pickup of a pattern is; 0 where it has none. */
export function pickupLength({ pickup, measures }: Pattern): Fraction {
  return pickup ? contentLength(measures[0]!) : ZERO;
}

/** Rests as long as a pickup, for a part that has nothing in it. */
export function restsOfPickup(length: Fraction, meter: Meter): Rest[] {
  const full = meterLength(meter);
  const from = compare(full, length) > 0 ? sub(full, length) : ZERO;
  return restsFor(from, length, beatOf(meter)).map((value) => ({ kind: 'rest', value }));
}

/** What two patterns do not have in common, so that they are no parts of one score. */
export type FrameDifference =
  | { readonly code: 'measures'; readonly of: readonly [other: number, lead: number] }
  | { readonly code: 'pickup' }
  | { readonly code: 'frame'; readonly measure: number };

/** Where a pattern does not have the measures of another; undefined where both can be parts of one score. */
export function frameDifference(lead: Pattern, other: Pattern): FrameDifference | undefined {
  const [frames, others] = [framesOf(lead), framesOf(other)];
  if (frames.length !== others.length) return { code: 'measures', of: [others.length, frames.length] };
  if (lead.pickup !== other.pickup || !equal(pickupLength(lead), pickupLength(other))) return { code: 'pickup' };
  const at = frames.findIndex((frame, i) => {
    const { meter, repeatStart, repeatEnd } = others[i]!;
    return !sameMeter(frame.meter, meter) || frame.repeatStart !== repeatStart || frame.repeatEnd !== repeatEnd;
  });
  return at < 0 ? undefined : { code: 'frame', measure: at + (lead.pickup ? 0 : 1) };
}
