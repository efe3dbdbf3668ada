import { sub } from '../../rhythm/fraction.ts';
import { type Meter, beatOf } from '../../rhythm/meter.ts';
import type { Item, Measure, Note, Pattern, Rest } from '../../rhythm/pattern.ts';
import { spell } from '../../rhythm/spell.ts';
import type { SpokenEvent } from './edges.ts';
import { fromTicks, soundingTicks } from './grid.ts';
import type { StretchReading } from './stretch.ts';

type Written = Pick<StretchReading, 'measures' | 'from'>;

/** The pattern that some stretches write, one after the other. Neighbouring measures of rest become one run. */
export function writeReading(stretches: readonly Written[], meter: Meter): Pattern {
  const measures: Measure[] = [];
  stretches.forEach((stretch, i) => {
    for (const measure of measuresOf(stretch, startsTied(stretches[i + 1]), meter)) {
      const before = measures.at(-1)?.rests;
      if (before !== undefined && measure.rests !== undefined) measures[measures.length - 1] = { ...measure, rests: before + measure.rests };
      else measures.push(measure);
    }
  });
  return { pickup: stretches[0]!.from > 0, measures };
}

/** It goes on with a note that sounds already. */
export function startsTied(stretch: Written | undefined): boolean {
  return stretch?.measures[0]?.[0]?.kind === 'tied';
}

function measuresOf(stretch: Written, tiedOn: boolean, meter: Meter): readonly Measure[] {
  return stretch.measures.map((events, i): Measure => {
    const next = stretch.measures[i + 1]?.[0];
    if (events[0]?.kind === 'measure-rest') return { meter, items: [], rests: 1 };
    return { meter, items: itemsOf(events, next ? next.kind === 'tied' : tiedOn) };
  });
}

function itemsOf(events: readonly SpokenEvent[], tiedOn: boolean): Item[] {
  const items: Item[] = [];
  let open: { at: number | undefined; kind: SpokenEvent['tuplet']; events: (Note | Rest)[] } | undefined;
  events.forEach((event, i) => {
    const next = events[i + 1];
    const tied = next ? next.kind === 'tied' : tiedOn;
    const written: Note | Rest = event.kind === 'rest' ? { kind: 'rest', value: event.value } : tied ? { kind: 'note', value: event.value, tied } : { kind: 'note', value: event.value };
    if (!event.tuplet) {
      items.push(written);
      open = undefined;
      return;
    }
    if (!open || open.at !== event.tupletAt || open.kind !== event.tuplet) {
      open = { at: event.tupletAt, kind: event.tuplet, events: [] };
      items.push({ kind: 'tuplet', n: event.tuplet.n, m: event.tuplet.m, events: open.events });
    }
    open.events.push(written);
  });
  return items;
}

/** The other reading of speech without holds: each note as long as was said, then a rest. */
export function withRests({ measures, from, said }: StretchReading, meter: Meter): Written {
  const beat = beatOf(meter);
  return {
    from,
    measures: measures.map((events, m) => {
      let at = m === 0 ? from : 0;
      return events.flatMap((event, i): SpokenEvent[] => {
        const start = at;
        const length = soundingTicks(event);
        at += length;
        const spoken = said.find(({ measure, event: index }) => measure === m && index === i)?.ticks;
        if (spoken === undefined || spoken >= length) return [event];
        const note = spell(fromTicks(start), fromTicks(spoken), beat, 'note').slice(0, 1);
        const rests = spell(fromTicks(start + spoken), sub(fromTicks(length), fromTicks(spoken)), beat, 'rest');
        return [...note.map((value): SpokenEvent => ({ kind: event.kind, value })), ...rests.map((value): SpokenEvent => ({ kind: 'rest', value }))];
      });
    }),
  };
}
