import fc from 'fast-check';
import { type Meter, meterKind } from './meter.ts';
import { plainNumbers } from './plainNumbers.ts';
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
/** Words of a child's language, and what a file format might take for a sign of its own. */
const label = fc.oneof(
  { weight: 6, arbitrary: fc.stringMatching(/^[a-zA-Z]{1,6}$/) },
  {
    weight: 1,
    arbitrary: fc.constantFrom(
      'crab',
      'Möwe',
      'a b',
      'x  y',
      '&amp;',
      '<b>',
      ']]>',
      '%%',
      '\\"',
      '!f!',
      '"',
      '[|:]',
      '𝄞',
    ),
  },
);
const letter = fc.oneof(fc.constantFrom('A', 'B', 'Verse', '12', "O'Hara", 'A & B', '[C]', 'D]', '%', '\\'));

const note: fc.Arbitrary<Note> = fc.record(
  { kind: fc.constant('note' as const), value, label: label },
  { requiredKeys: ['kind', 'value'] },
);
const rest: fc.Arbitrary<Rest> = fc.record({ kind: fc.constant('rest' as const), value });
const event = fc.oneof({ weight: 3, arbitrary: note }, { weight: 1, arbitrary: rest });
const tuplet: fc.Arbitrary<Item> = fc.record({
  kind: fc.constant('tuplet' as const),
  n: fc.integer({ min: 2, max: 16 }),
  m: fc.integer({ min: 1, max: 16 }),
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
    weight: 2,
    arbitrary: fc.record(
      {
        meter: anyMeter,
        items: fc.array(item, { minLength: 1, maxLength: 3 }),
        number: fc.integer({ min: 1, max: 9999 }),
        letter,
      },
      { requiredKeys: ['meter', 'items'] },
    ),
  },
  {
    weight: 1,
    arbitrary: fc.record(
      {
        meter: anyMeter,
        items: fc.constant([]),
        rests: fc.integer({ min: 1, max: 9 }),
        repeatEnd: fc.constant(true as const),
        letter,
      },
      { requiredKeys: ['meter', 'items', 'rests'] },
    ),
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
    measures: plainNumbers(tieSome(measures, ties), pickup && measures[0]!.rests === undefined),
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

/** What a full measure is filled from: an item and its length in thirty-seconds; the usual ones more often. */
const FILLINGS: readonly (readonly [Item, number])[] = [
  ...(
    [
      ['w', 0, 32],
      ['h', 1, 24],
      ['h', 0, 16],
      ['h', 0, 16],
      ['q', 2, 14],
      ['q', 1, 12],
      ['q', 0, 8],
      ['q', 0, 8],
      ['q', 0, 8],
      ['e', 1, 6],
      ['e', 0, 4],
      ['e', 0, 4],
      ['e', 0, 4],
      ['s', 0, 2],
      ['t', 0, 1],
    ] as const
  ).flatMap(([base, dots, length]) =>
    (['note', 'note', 'note', 'rest'] as const).map((kind) => [{ kind, value: { base, dots } }, length] as const),
  ),
  ...(
    [
      [3, 2, 'q', 16],
      [3, 2, 'e', 8],
      [3, 2, 's', 4],
      [5, 4, 's', 8],
      [2, 3, 'e', 12],
    ] as const
  ).flatMap(([n, m, base, length]) => {
    const written = { base, dots: 0 } as const;
    const sounded = Array.from({ length: n }, (): Note => ({ kind: 'note', value: written }));
    const broken = sounded.map((one, i): Note | Rest => (i === 1 ? { kind: 'rest', value: written } : one));
    return [sounded, broken].map((events) => [{ kind: 'tuplet', n, m, events } satisfies Item, length] as const);
  }),
];

/** Items that fill so many thirty-seconds, taken as the numbers say. */
function filled(length: number, choices: readonly number[]): Item[] {
  const items: Item[] = [];
  let left = length;
  for (let k = 0; left > 0; k++) {
    const fitting = FILLINGS.filter(([, takes]) => takes <= left);
    const [one, takes] = fitting[choices[k % choices.length]! % fitting.length]!;
    items.push(one);
    left -= takes;
  }
  return items;
}

const EVERY_METER: readonly string[] = [
  ...['2/4', '3/4', '4/4', '2/2', '3/2', '4/2', '3/8', '4/8', '6/8', '9/8', '12/8', '6/16', '6/4'],
  ...['5/4', '7/4', '5/8', '7/8', '11/8', '5/8[2+3]', '7/8[3+2+2]', '8/8[3+3+2]'],
];

/**
 * Patterns in which every measure adds up: in every meter, which may change; with long notes, dots, ties, also over the
 * bar line, tuplets, rests, repeats, and a pickup or none.
 */
export const fullPattern: fc.Arbitrary<Pattern> = fc
  .record({
    bars: fc.array(
      fc.record({
        choices: fc.array(fc.nat(5000), { minLength: 12, maxLength: 12 }),
        repeatStart: fc.boolean(),
        repeatEnd: fc.nat(3),
      }),
      { minLength: 1, maxLength: 5 },
    ),
    meters: fc.array(fc.constantFrom(...EVERY_METER), { minLength: 2, maxLength: 2 }),
    changes: fc.boolean(),
    pickup: fc.option(fc.constantFrom(1, 2, 4, 6), { nil: undefined }),
    ties: fc.array(fc.nat(4), { minLength: 40, maxLength: 40 }),
  })
  .map(({ bars, meters, changes, pickup, ties }) => {
    const [first, second] = meters.map((text) => patternOf(`${text} (M1)`).measures[0]!.meter) as [Meter, Meter];
    const measures = bars.map(({ choices, repeatStart, repeatEnd }, i): Measure => {
      const meter = changes && i > bars.length / 2 ? second : first;
      return {
        meter,
        items: filled((meter.upper * 32) / meter.lower, choices),
        ...(repeatStart && { repeatStart }),
        ...(repeatEnd === 0 && { repeatEnd: true }),
      };
    });
    const before = pickup === undefined ? [] : [{ meter: first, items: filled(pickup, bars[0]!.choices) }];
    return {
      pickup: pickup !== undefined,
      measures: tieSome(
        [...before, ...measures],
        ties.map((tie) => tie === 0),
      ),
    };
  });

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
