import { frac, mul } from '../rhythm/fraction.ts';
import { meterLength } from '../rhythm/meter.ts';
import type { Item, Measure, Note, Pattern, Rest } from '../rhythm/pattern.ts';
import { placePattern } from '../rhythm/place.ts';
import { lengthOf } from '../rhythm/value.ts';
import type { RawEvent, RawMeasure, Ratio } from './piece.ts';

const NO_RATIO: Ratio = { n: 1, m: 1 };

function rawEvent(event: Note | Rest, ratio: Ratio | undefined, first: boolean, last: boolean): RawEvent {
  const { n, m } = ratio ?? NO_RATIO;
  return {
    kind: event.kind,
    value: event.value,
    length: mul(lengthOf(event.value), frac(m, n)),
    ...(ratio ? { ratio, ...(first ? { groupStart: true } : {}), ...(last ? { groupEnd: true } : {}) } : {}),
    ...(event.kind === 'note' && event.tied ? { tied: true } : {}),
    ...(event.kind === 'note' && event.label !== undefined ? { label: event.label } : {}),
  };
}

function rawEvents(item: Item): RawEvent[] {
  if (item.kind !== 'tuplet') return [rawEvent(item, undefined, false, false)];
  const { n, m, events } = item;
  return events.map((event, i) => rawEvent(event, { n, m }, i === 0, i === events.length - 1));
}

/** The measures of a written one in the shape in which a file has them; `(M3)` becomes three. */
export function rawMeasures(measure: Measure): RawMeasure[] {
  const { meter, items, rests, repeatStart, repeatEnd, letter } = measure;
  const opening = { ...(repeatStart ? { repeatStart } : {}), ...(letter === undefined ? {} : { letter }) };
  const closing = repeatEnd ? { repeatEnd: 2 } : {};
  if (rests === undefined) return [{ meter, events: items.flatMap(rawEvents), ...opening, ...closing }];
  return Array.from({ length: rests }, (_, i) => ({
    meter,
    events: [{ kind: 'rest' as const, length: meterLength(meter), wholeMeasure: true }],
    ...(i === 0 ? { ...opening, ...(rests > 1 ? { restRun: rests } : {}) } : {}),
    ...(i === rests - 1 ? closing : {}),
  }));
}

/** A pattern in the shape in which a file has it. */
export function rawPattern(pattern: Pattern): RawMeasure[] {
  const placed = placePattern(pattern);
  const raw = pattern.measures.flatMap(rawMeasures);
  return raw.map((measure, i) => ({
    ...measure,
    number: placed[i]!.number,
    ...(i === 0 ? { pickup: pattern.pickup } : {}),
  }));
}
