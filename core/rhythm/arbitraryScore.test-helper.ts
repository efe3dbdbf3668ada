import fc from 'fast-check';
import { anyPattern, patternOf } from './arbitrary.test-helper.ts';
import { withoutLastTie } from './lastTie.ts';
import type { Item, Pattern } from './pattern.ts';
import type { Part, Score } from './score.ts';
import { type Filling, framesOf, inFrame } from './scoreParts.ts';
import { parseScore } from './scoreText.ts';

/** Reads a text that a test knows to be right. */
export function scoreOfText(text: string): Score {
  const parsed = parseScore(text);
  if (!parsed.ok) throw new Error(`${text}: ${JSON.stringify(parsed.at)}`);
  return parsed.score;
}

const NAMES = ['clap', 'pat', 'stamp', 'snap', 'group A', 'Möwen', '1', '4', '2+2', '* b', 'left', 'x y'];

const CELLS: readonly (readonly Item[])[] = ['q q', 'h', 'e e (q)', '3{e e e} q', "q'crab' e. s", '(h)', 'e~ e q'].map(
  (text) => patternOf(`2/4 ${text}`).measures[0]!.items,
);

/** Other parts in the frame of one: items of their own, measures of rest, or one that comes again. */
function partIn(lead: Pattern, name: string, numbers: readonly number[], ostinato: boolean): Part {
  const frames = framesOf(lead);
  const first = lead.pickup ? 1 : 0;
  const take = (i: number) => numbers[i % numbers.length]!;
  const one = (i: number): Filling => {
    const k = take(i) % (CELLS.length + 2);
    return k < CELLS.length ? { items: CELLS[k]!, run: -1 } : { items: undefined, run: take(i + 1) % 2 };
  };
  const pickup = first === 0 ? [] : [{ items: withoutLastTie(lead.measures[0]!.items), run: -1 }];
  const wanted = frames.length - first;
  const sizes = Array.from({ length: wanted }, (_, i) => i + 1).filter((size) => size > 0 && wanted % size === 0);
  if (!ostinato || wanted === 0) {
    const fillings = [...pickup, ...Array.from({ length: wanted }, (_, i) => one(i))];
    return { name, pattern: inFrame(lead.pickup, frames, fillings) };
  }
  const size = sizes[take(0) % sizes.length]!;
  const own = Array.from({ length: size }, (_, i): Filling => ({ items: one(i).items, run: -1 }));
  const again = Array.from({ length: wanted / size }, () => own).flat();
  return { name, pattern: inFrame(lead.pickup, frames, [...pickup, ...again]), ostinato: size };
}

/** Any score that rhythm text can write, of two to four parts; measures need not add up. */
export const anyScore: fc.Arbitrary<Score> = fc
  .record({
    lead: anyPattern,
    names: fc.uniqueArray(fc.constantFrom(...NAMES), { minLength: 2, maxLength: 4 }),
    numbers: fc.array(fc.array(fc.nat(40), { minLength: 3, maxLength: 9 }), { minLength: 4, maxLength: 4 }),
    ostinati: fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
    at: fc.nat(3),
  })
  .map(({ lead, names, numbers, ostinati, at }) => {
    const leading = at % names.length;
    // The first part that is written to its end gives the frame, so only those that come again stand before it.
    const parts = names.map((name, i): Part =>
      i === leading ? { name, pattern: lead } : partIn(lead, name, numbers[i]!, i < leading || ostinati[i]!),
    );
    return { parts };
  });
