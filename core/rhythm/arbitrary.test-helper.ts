import fc from 'fast-check';
import { type Meter, meterKind } from './meter.ts';
import type { Item, Measure, Note, Pattern, Rest } from './pattern.ts';
import { parseRhythm } from './text.ts';
import type { Dots, ValueLetter } from './value.ts';

/** Reads a text that a test knows to be right. */
export function patternOf(text: string): Pattern {
  const parsed = parseRhythm(text);
  if (!parsed.ok) throw new Error(`${text}: ${JSON.stringify(parsed.at)}`);
  return parsed.pattern;
}

const value = fc.record({
  base: fc.constantFrom<ValueLetter>('w', 'h', 'q', 'e', 's', 't'),
  dots: fc.constantFrom<Dots>(0, 0, 0, 1, 2),
});
const note: fc.Arbitrary<Note> = fc.record(
  { kind: fc.constant('note' as const), value, label: fc.stringMatching(/^[a-zA-Z]{1,6}$/) },
  { requiredKeys: ['kind', 'value'] },
);
const rest: fc.Arbitrary<Rest> = fc.record({ kind: fc.constant('rest' as const), value });
const event = fc.oneof({ weight: 3, arbitrary: note }, { weight: 1, arbitrary: rest });
const tuplet: fc.Arbitrary<Item> = fc.record({
  kind: fc.constant('tuplet' as const),
  n: fc.integer({ min: 2, max: 9 }),
  m: fc.integer({ min: 1, max: 8 }),
  events: fc.array(event, { minLength: 1, maxLength: 5 }),
});
const item: fc.Arbitrary<Item> = fc.oneof({ weight: 6, arbitrary: event }, { weight: 1, arbitrary: tuplet });

export const anyMeter: fc.Arbitrary<Meter> = fc.oneof(
  fc.constantFrom<Meter>(
    { upper: 2, lower: 4 },
    { upper: 3, lower: 4 },
    { upper: 4, lower: 4 },
    { upper: 2, lower: 2 },
    { upper: 3, lower: 2 },
    { upper: 3, lower: 8 },
    { upper: 6, lower: 8 },
    { upper: 9, lower: 8 },
    { upper: 12, lower: 8 },
    { upper: 6, lower: 16 },
    { upper: 5, lower: 4 },
    { upper: 5, lower: 8 },
  ),
  fc.constantFrom<Meter>({ upper: 7, lower: 8, groups: [2, 2, 3] }, { upper: 5, lower: 8, groups: [3, 2] }),
);

const measure: fc.Arbitrary<Measure> = fc.oneof(
  {
    weight: 8,
    arbitrary: fc.record(
      {
        meter: anyMeter,
        items: fc.array(item, { minLength: 1, maxLength: 6 }),
        repeatStart: fc.constant(true as const),
        repeatEnd: fc.constant(true as const),
      },
      { requiredKeys: ['meter', 'items'] },
    ),
  },
  {
    weight: 1,
    arbitrary: fc.record({ meter: anyMeter, items: fc.constant([]), rests: fc.integer({ min: 1, max: 9 }) }),
  },
);

/** Any pattern that rhythm text can write; measures need not add up. Ties are put where a note follows a note. */
export const anyPattern: fc.Arbitrary<Pattern> = fc
  .record({
    pickup: fc.boolean(),
    measures: fc.array(measure, { minLength: 1, maxLength: 5 }),
    ties: fc.array(fc.boolean(), { minLength: 40, maxLength: 40 }),
  })
  .map(({ pickup, measures, ties }) => ({
    pickup: pickup && measures[0]!.rests === undefined,
    measures: tieSome(measures, ties),
  }));

function tieSome(measures: readonly Measure[], ties: readonly boolean[]): Measure[] {
  const flat: (Note | Rest | undefined)[] = measures.flatMap((m) =>
    m.rests === undefined ? m.items.flatMap((it) => (it.kind === 'tuplet' ? it.events : [it])) : [undefined],
  );
  let k = 0;
  const tie = <E extends Note | Rest>(e: E): E => {
    const next = flat[k + 1];
    const tied = e.kind === 'note' && next?.kind === 'note' && ties[k % ties.length];
    k++;
    return tied ? { ...e, tied: true } : e;
  };
  return measures.map((m) => {
    if (m.rests !== undefined) {
      k++;
      return m;
    }
    return {
      ...m,
      items: m.items.map((it) => (it.kind === 'tuplet' ? { ...it, events: it.events.map(tie) } : tie(it))),
    };
  });
}

/** Cells of one beat, by how the beat divides. */
const CELLS = {
  2: ['q', 'q', 'e e', '(q)', 'e (e)', '(e) e', 's s s s', 'e s s', 's s e', 'e. s', '3{e e e}'],
  3: ['q.', 'e e e', 'q e', 'e q', '(q.)', 'q (e)', 's s e e', 'e (e) e'],
} as const;

/** Patterns as teachers write them: full measures of everyday cells, in a common meter. */
export const everydayPattern: fc.Arbitrary<Pattern> = fc
  .record({
    meter: fc.constantFrom<Meter>(
      { upper: 2, lower: 4 },
      { upper: 3, lower: 4 },
      { upper: 4, lower: 4 },
      { upper: 6, lower: 8 },
      { upper: 9, lower: 8 },
    ),
    measures: fc.integer({ min: 1, max: 4 }),
    choices: fc.array(fc.nat(1000), { minLength: 20, maxLength: 20 }),
  })
  .map(({ meter, measures, choices }) => {
    const compound = meterKind(meter) === 'compound';
    const cells: readonly string[] = CELLS[compound ? 3 : 2];
    const beats = compound ? meter.upper / 3 : meter.upper;
    const bars = Array.from({ length: measures }, (_, m) =>
      Array.from({ length: beats }, (_b, b) => cells[choices[(m * beats + b) % choices.length]! % cells.length]).join(
        ' ',
      ),
    );
    return patternOf(`${meter.upper}/${meter.lower} ${bars.join(' | ')}`);
  });
