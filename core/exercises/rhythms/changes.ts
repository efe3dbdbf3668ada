import { compare, div, equal, isWhole } from '../../rhythm/fraction.ts';
import { beatOf, meterKind } from '../../rhythm/meter.ts';
import type { Item, Measure, Pattern } from '../../rhythm/pattern.ts';
import { itemText } from '../../rhythm/text.ts';
import { itemLength } from '../../rhythm/place.ts';
import { cellsIn, itemStarts, itemsFrom } from './cells.ts';

/**
 * How a rhythm is changed a little, in a way that can be named and counted (rules §7): written notes and rests, and
 * what may stand in their place. Those that are known misreadings (§8) carry their name.
 */
const RULES = {
  'rest-clapped': { known: true, rows: ['(w) > w', '(h) > h', '(q) > q', '(e) > e', '(q.) > q.'] },
  'dot-too-short': { known: true, rows: ['q. e > q q', 'h. q > h h', 'e. s > e e'] },
  'tie-restruck': { known: true, rows: [] },
  'hold-pulsed': { known: true, rows: ['h > q q', 'w > h h', 'h. > h q', 'h. > q q q', 'h. > q. q.', 'w > h. q'] },
  'upbeat-on-beat': { known: true, rows: ['(e) e > e (e)', '(q) e > e (q)'] },
  'eighths-uneven': { known: true, rows: ['e e > e. s'] },
  'sixteenths-slow': { known: true, rows: ['s s s s > e e', 'e s s > e e', 's s e > e e'] },
  'syncopation-straightened': { known: true, rows: ['e q e > q q', 'e q e > q e e', 'e q e > e e q'] },
  'rest-skipped': { known: true, rows: [] },
  'note-silent': { rows: ['h > (h)', 'q > (q)', 'e > (e)', 'q. > (q.)'] },
  split: {
    rows: ['q > e e', 'e > s s', 'w > q h.', 'h. > q h', 'q. > e e e', 'q. > q e', 'q > e (e)', 'e e e > e s s e'],
  },
  joined: { rows: ['e e > q', 'q q > h', 's s > e', 'h h > w', 'h q > h.', 'q h > h.', 'e e e > q.', 'q e > q.'] },
  'dot-moved': { rows: ['q. e > e q.', 'e q. > q. e', 'h. q > q h.', 'q h. > h. q', 'e. s > s e.'] },
  dotted: { rows: ['q q > q. e', 'h h > h. q'] },
  syncopated: { rows: ['q e e > e q e', 'e e q > e q e', 'q q > e q e'] },
  'eighths-fast': { rows: ['e e > s s s s', 'e e > e s s', 'e e > s s e'] },
  'sixteenths-turned': { rows: ['e s s > s s e', 's s e > e s s'] },
  'rest-moved': {
    rows: ['q (q) > (q) q', '(q) q > q (q)', 'e (e) > (e) e', 'h (h) > (h) h', '(h) h > h (h)', 'q (e) > (e) q'],
  },
  'triplet-even': { rows: ['3{e e e} > e e'] },
  'triplet-made': { rows: ['e e > 3{e e e}'] },
  'three-turned': { rows: ['q e > e q', 'e q > q e', 'q e > e e e', 'e e e > q e', 'e (e) e > e e (e)'] },
  'tie-added': { rows: [] },
  'beats-swapped': { rows: [] },
  'measures-swapped': { rows: [] },
} as const satisfies Readonly<Record<string, { readonly known?: true; readonly rows: readonly string[] }>>;

export type ChangeId = keyof typeof RULES;
export const CHANGE_IDS = Object.keys(RULES) as readonly ChangeId[];

/** Whether children are known to misread in this way. */
export function isMisreading(id: ChangeId): boolean {
  return 'known' in RULES[id];
}

export interface Change {
  readonly id: ChangeId;
  readonly pattern: Pattern;
}

interface Row {
  readonly id: ChangeId;
  /** As rhythm text, so that it is found by its words. */
  readonly from: readonly string[];
  readonly to: readonly Item[];
}

const ROWS: readonly Row[] = CHANGE_IDS.flatMap((id) =>
  RULES[id].rows.map((row: string): Row => {
    const [from, to] = row.split(' > ') as [string, string];
    return { id, from: itemsFrom(from).map(itemText), to: itemsFrom(to) };
  }),
);
const ROWS_BY_FIRST = new Map<string, Row[]>();
for (const row of ROWS) ROWS_BY_FIRST.set(row.from[0]!, [...(ROWS_BY_FIRST.get(row.from[0]!) ?? []), row]);

/** A measure with other items; everything else of it stays. */
type Rewrite = (measure: Measure) => readonly { readonly id: ChangeId; readonly items: readonly Item[] }[];

/** Three in a beat are turned only where a beat is three; triplets and syncopation belong where it is two. */
const IN_COMPOUND: Partial<Record<ChangeId, boolean>> = {
  'three-turned': true,
  'triplet-made': false,
  'triplet-even': false,
  syncopated: false,
  dotted: false,
};

function suits({ id }: Row, { meter }: Measure): boolean {
  const compound = meterKind(meter) === 'compound';
  return (IN_COMPOUND[id] ?? compound) === compound;
}

const byRule: Rewrite = (measure) => {
  const { items } = measure;
  const words = items.map(itemText);
  return words.flatMap((word, i) =>
    (ROWS_BY_FIRST.get(word) ?? [])
      .filter((row) => row.from.every((one, k) => words[i + k] === one) && suits(row, measure))
      .map(({ id, from, to }) => ({ id, items: [...items.slice(0, i), ...to, ...items.slice(i + from.length)] })),
  );
};

const untied: Rewrite = ({ items }) =>
  items.flatMap((item, i) => {
    if (item.kind !== 'note' || !item.tied) return [];
    const { tied: _tied, ...free } = item;
    return [{ id: 'tie-restruck' as const, items: items.with(i, free) }];
  });

/** Ties over the bar line are left to the writer of the pattern. */
const tied: Rewrite = ({ items }) =>
  items.flatMap((item, i) =>
    item.kind === 'note' && !item.tied && items[i + 1]?.kind === 'note'
      ? [{ id: 'tie-added' as const, items: items.with(i, { ...item, tied: true }) }]
      : [],
  );

/** A child who skips a rest is early with all that follows. */
const restSkipped: Rewrite = ({ items }) =>
  items.flatMap((item, i) => {
    const after = items.slice(i + 1);
    if (item.kind !== 'rest' || after.every(({ kind }) => kind === 'rest') || tiesOn(after)) return [];
    return [{ id: 'rest-skipped' as const, items: [...items.slice(0, i), ...after, item] }];
  });

const beatsSwapped: Rewrite = ({ items, meter }) => {
  const cells = cellsIn(items, beatOf(meter).length);
  const words = cells.map((cell) => cell.map(itemText).join(' '));
  return cells.flatMap((a, i) =>
    cells.slice(i + 1).flatMap((b, k) => {
      const j = i + 1 + k;
      if (words[i] === words[j] || tiesOn(a) || tiesOn(b)) return [];
      return [{ id: 'beats-swapped' as const, items: cells.with(i, b).with(j, a).flat() }];
    }),
  );
};

function sameWords(a: readonly Item[], b: readonly Item[]): boolean {
  return a.length === b.length && a.every((item, i) => itemText(item) === itemText(b[i]!));
}

function tiesOn(items: readonly Item[]): boolean {
  const last = eventsIn(items).at(-1);
  return last?.kind === 'note' && last.tied === true;
}

const REWRITES: readonly Rewrite[] = [byRule, untied, tied, restSkipped, beatsSwapped];

/** Every pattern that is this one changed a little, once; repeat signs and bars stay. */
export function changesOf(pattern: Pattern): Change[] {
  const { measures } = pattern;
  const changed = measures.flatMap((measure, m) =>
    REWRITES.flatMap((rewrite) => rewrite(measure)).flatMap(({ id, items }): Change[] => {
      const made = measures.with(m, { ...measure, items });
      return tidy(items, measure) && tiesLead(made) ? [{ id, pattern: { ...pattern, measures: made } }] : [];
    }),
  );
  return [...changed, ...measuresSwapped(pattern)];
}

/** A rest starts on what its value divides a measure into; nothing lasts from off the beat into the next measure. */
function tidy(items: readonly Item[], { meter }: Measure): boolean {
  const beat = beatOf(meter).length;
  if (items.every(({ kind }) => kind !== 'rest')) return true;
  const starts = itemStarts(items);
  return items.every((item, i) => {
    if (item.kind !== 'rest') return true;
    const length = itemLength(item);
    return compare(length, beat) < 0 || isWhole(div(starts[i]!, beat));
  });
}

const eventsIn = (items: readonly Item[]) => items.flatMap((item) => (item.kind === 'tuplet' ? item.events : [item]));

/** Every tie leads to a note. */
function tiesLead(measures: readonly Measure[]): boolean {
  const events = measures.flatMap(({ items }) => (items.length === 0 ? [undefined] : eventsIn(items)));
  return events.every((event, i) => event?.kind !== 'note' || !event.tied || events[i + 1]?.kind === 'note');
}

function measuresSwapped(pattern: Pattern): Change[] {
  const { measures, pickup } = pattern;
  return measures.slice(0, -1).flatMap((measure, m): Change[] => {
    const next = measures[m + 1]!;
    const alike = equal(beatOf(measure.meter).length, beatOf(next.meter).length) && measure.rests === next.rests;
    if ((pickup && m === 0) || !alike || measure.rests || sameWords(measure.items, next.items)) return [];
    const made = measures.with(m, { ...measure, items: next.items }).with(m + 1, { ...next, items: measure.items });
    const tiesOver = [measure, next].some(({ items }) => tiesOn(items));
    return tiesOver || !tiesLead(made) ? [] : [{ id: 'measures-swapped', pattern: { ...pattern, measures: made } }];
  });
}
