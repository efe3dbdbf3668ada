import { sub } from '../rhythm/fraction.ts';
import { type Meter, beatOf } from '../rhythm/meter.ts';
import type { Item, Measure, Note, Pattern, Rest } from '../rhythm/pattern.ts';
import { spell } from '../rhythm/spell.ts';
import { fromTicks, soundingTicks } from './ticks.ts';
import type { SpokenEvent } from './places.ts';
import type { SpanParse } from './barSpan.ts';

type Written = Pick<SpanParse, 'measures' | 'from'>;

/** What spans write: first where their last note is not tied on, then where it is. */
export type WrittenSpans = Map<Written, (readonly Measure[] | undefined)[]>;

/**
 * The pattern that some spans write, one after the other. Neighbouring measures of rest become one run.
 * @param known  what was written already and is kept: the parses of a text differ in a span or two
 */
export function writeParse(spans: readonly Written[], meter: Meter, known?: WrittenSpans): Pattern {
  const measures: Measure[] = [];
  for (let i = 0; i < spans.length; i++) {
    const span = spans[i]!;
    const tiedOn = startsTied(spans[i + 1]);
    for (const measure of known ? writtenOnce(span, tiedOn, meter, known) : measuresOf(span, tiedOn, meter)) {
      const before = measures.at(-1)?.rests;
      if (before !== undefined && measure.rests !== undefined)
        measures[measures.length - 1] = { ...measure, rests: before + measure.rests };
      else measures.push(measure);
    }
  }
  return { pickup: spans[0]!.from > 0, measures };
}

function writtenOnce(span: Written, tiedOn: boolean, meter: Meter, known: WrittenSpans): readonly Measure[] {
  let both = known.get(span);
  if (!both) known.set(span, (both = [undefined, undefined]));
  return (both[tiedOn ? 1 : 0] ??= measuresOf(span, tiedOn, meter));
}

/** It goes on with a note that sounds already. */
export function startsTied(span: Written | undefined): boolean {
  return span?.measures[0]?.[0]?.kind === 'tied';
}

function measuresOf(span: Written, tiedOn: boolean, meter: Meter): Measure[] {
  const measures: Measure[] = [];
  for (let i = 0; i < span.measures.length; i++) {
    const events = span.measures[i]!;
    const next = span.measures[i + 1]?.[0];
    if (events[0]?.kind === 'measure-rest') measures.push({ meter, items: [], rests: 1 });
    else measures.push({ meter, items: itemsOf(events, next ? next.kind === 'tied' : tiedOn) });
  }
  return measures;
}

function itemsOf(events: readonly SpokenEvent[], tiedOn: boolean): Item[] {
  const items: Item[] = [];
  let open: { at: number | undefined; kind: SpokenEvent['tuplet']; events: (Note | Rest)[] } | undefined;
  for (let i = 0; i < events.length; i++) {
    const event = events[i]!;
    const next = events[i + 1];
    const tied = next ? next.kind === 'tied' : tiedOn;
    const written: Note | Rest =
      event.kind === 'rest'
        ? { kind: 'rest', value: event.value }
        : tied
          ? { kind: 'note', value: event.value, tied }
          : { kind: 'note', value: event.value };
    if (!event.tuplet) {
      items.push(written);
      open = undefined;
      continue;
    }
    if (!open || open.at !== event.tupletAt || open.kind !== event.tuplet) {
      open = { at: event.tupletAt, kind: event.tuplet, events: [] };
      items.push({ kind: 'tuplet', n: event.tuplet.n, m: event.tuplet.m, events: open.events });
    }
    open.events.push(written);
  }
  return items;
}

/** The other parse of speech without holds: each note as long as was said, then a rest. */
export function withRests({ measures, from, said }: SpanParse, meter: Meter): Written {
  const beat = beatOf(meter);
  return {
    from,
    measures: measures.map((events, m) => {
      let at = m === 0 ? from : 0;
      return events.flatMap((event, i): SpokenEvent[] => {
        const start = at;
        const length = soundingTicks(event.value, event.tuplet);
        at += length;
        const spoken = said.find(({ measure, event: index }) => measure === m && index === i)?.ticks;
        if (spoken === undefined || spoken >= length) return [event];
        const note = spell(fromTicks(start), fromTicks(spoken), beat, 'note').slice(0, 1);
        const rests = spell(fromTicks(start + spoken), sub(fromTicks(length), fromTicks(spoken)), beat, 'rest');
        return [
          ...note.map((value): SpokenEvent => ({ kind: event.kind, value })),
          ...rests.map((value): SpokenEvent => ({ kind: 'rest', value })),
        ];
      });
    }),
  };
}
