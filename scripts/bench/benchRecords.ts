import { type Random, randomFrom } from '../../core/random.ts';
import { heardElements } from '../../core/records/heardElements.ts';
import { type HeardTake, type MasteryState, STATES, masteryOf, recordsOf } from '../../core/records/mastery.ts';
import { toldPlaces } from '../../core/records/toldPlaces.ts';
import { ELEMENT_IDS, type ElementId, elementsOf } from '../../core/rhythm/elements.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { read } from './benchReport.ts';
import { UNSTEADY } from './clappedTakes.ts';
import { type TermChild, termTake } from './simulatedTerm.ts';

/** Measures by meter; together they hold every element. */
const CELLS: Readonly<Record<string, readonly string[]>> = {
  '4/4': [
    ...['q q q q', 'q q e e q', 'e e q e e q', 'q (q) q q', 'q q q (q)', 'h q q', 'q q h', 'h h', 'h (h)', '(h) q q'],
    ...['h. q', 'q h.', 'w', 'q q q q~ | q q q q', 'q q~ q q', '(e) e q q q', 'q e (e) q q', 'e q e q q', 'q e q e q'],
    ...['q. e q q', 'q q q. e', 's s s s q q q', 'q s s s s h', 'e. s q q q', 'q e. s h', '3{e e e} q q q'],
    ...['q 3{e e e} h', 'e e e e q q', 'q e e h', 'q (q) h', 'e e q (q) q'],
  ],
  '3/4': ['q q q', 'h q', 'q e e q', 'q (q) q', 'h.', 'q. e q', 'e e q q', 'q q (q)', '(e) e q q', 'e. s q q'],
  '2/4': ['q q', 'e e q', 'h', 'q (q)', 'q. e', 's s s s q', 'e q e', 'e. s q', 'q e e', '3{e e e} q'],
  '6/8': ['q. q.', 'e e e q.', 'q e q e', 'q e q.', 'q. e e e', 'e e e e e e', 'q. (q) e', 'h.'],
  '9/8': ['q. q. q.', 'e e e q. q.', 'q e q e q.', 'q. e e e q e'],
  '2/2': ['h h', 'h q q', 'q q h', 'q q q q', 'w', 'h. q', 'h (h)'],
  '5/4': ['q q q q q', 'h q q q', 'q e e q h', 'h. h', 'q (q) q h'],
};

type Kind = 'learns' | 'rushes' | 'unsteady' | 'twice';
const KINDS: readonly Kind[] = ['learns', 'learns', 'learns', 'learns', 'learns', 'rushes', 'unsteady', 'twice'];

/** Days of a term, of which some are lessons; half way through some things are learned. */
const DAYS = 42;
const LEARNED = 21;
const DAY_MS = 86_400_000;

/** A pattern of what a child meets: mostly what is known, and something that is not. */
function someRhythm(allowed: ReadonlySet<ElementId>, random: Random): Pattern {
  for (;;) {
    const meter =
      allowed.has('compound') && random.next() < 0.3
        ? random.pick(['6/8', '6/8', '9/8'])
        : random.pick(['4/4', '4/4', '4/4', '3/4', '3/4', '2/4', '2/2', '5/4']);
    const fitting = CELLS[meter]!.filter((cell) =>
      [...elementsOf(read(`${meter} ${cell}`)).keys()].every((id) => allowed.has(id)),
    );
    if (fitting.length === 0) continue;
    const count = 2 + random.below(3);
    return read(`${meter} ${Array.from({ length: count }, () => random.pick(fitting)).join(' | ')}`);
  }
}

interface Term {
  readonly kind: Kind;
  readonly child: TermChild;
  readonly takes: readonly HeardTake[];
}

function simulatedTerm(random: Random): Term {
  const kind = random.pick(KINDS);
  const [ages, steady] = random.pick(UNSTEADY);
  const met = 4 + random.below(ELEMENT_IDS.length - 3);
  const knowsAll = kind === 'rushes' || kind === 'unsteady';
  const knows = new Map<ElementId, number>();
  ELEMENT_IDS.slice(0, met).forEach((id, i) => {
    // The first ones are known; of the last ones some are not, and some are learned half way.
    const isLate = i >= met - 4 && i > 0;
    knows.set(id, knowsAll || !isLate || random.next() < 0.35 ? 0 : random.next() < 0.5 ? LEARNED : Infinity);
  });
  const spread = steady * (kind === 'unsteady' ? 1.8 : 0.8 + 0.4 * random.next());
  const drift = kind === 'rushes' ? (random.next() < 0.7 ? 1 : -1) * (0.08 + 0.1 * random.next()) : 0;
  const child: TermChild = { ages, spread, drift, knows };
  const allowed = new Set(knows.keys());
  const lessons =
    kind === 'twice' ? [7, 30] : Array.from({ length: 12 }, (_, i) => Math.floor(i / 2) * 7 + (i % 2) * 3);
  const takes = lessons.flatMap((day) =>
    Array.from({ length: 1 + random.below(2) }, (_, i): HeardTake => {
      const pattern = someRhythm(allowed, random);
      const bpm = (pattern.measures[0]!.meter.lower === 8 ? 48 : 63) + random.below(30);
      const result = termTake(pattern, bpm, child, day, random);
      return { elements: heardElements(toldPlaces(pattern, result)), takenAt: day * DAY_MS + i * 60_000 };
    }),
  );
  return { kind, child, takes };
}

const TRUTHS = ['known', 'learned', 'unknown', 'rushes', 'unsteady', 'twice'] as const;
type Truth = (typeof TRUTHS)[number];
type Row = Record<MasteryState, number> & { of: number };

/** What is written down about children of whom it is known what they know. */
export interface TermFigures {
  readonly rows: Readonly<Record<Truth, Row>>;
  /** Known elements heard at six places on two days or more, and how many of them were called firm. */
  readonly firm: readonly [called: number, of: number];
  /** Unknown ones heard at four places or more, and how many of them were called shaky. */
  readonly shaky: readonly [called: number, of: number];
}

/** Places at which something was told of an element from a day on. */
const toldFrom = (takes: readonly HeardTake[], element: ElementId, day: number) =>
  takes
    .filter(({ takenAt }) => takenAt >= day * DAY_MS)
    .flatMap(({ elements }) => elements.filter((one) => one.element === element))
    .reduce((sum, { right, misread }) => sum + right + misread, 0);

/** Terms of six weeks of so many children. @param seed  those the model was tuned on are 1 to 3 */
export function termFigures(seed: number, children: number): TermFigures {
  const random = randomFrom(seed);
  const row = (): Row => ({ new: 0, growing: 0, shaky: 0, firm: 0, due: 0, of: 0 });
  const rows = Object.fromEntries(TRUTHS.map((truth) => [truth, row()])) as Record<Truth, Row>;
  const [firm, shaky]: [number, number][] = [
    [0, 0],
    [0, 0],
  ];
  for (let i = 0; i < children; i++) {
    const { kind, child, takes } = simulatedTerm(random);
    const records = recordsOf(takes);
    for (const { element, state, places } of masteryOf(records, (DAYS - 1) * DAY_MS)) {
      const since = child.knows.get(element)!;
      const truth = kind !== 'learns' ? kind : since === 0 ? 'known' : since === LEARNED ? 'learned' : 'unknown';
      // What was not heard since it was learned nobody can know.
      if (truth === 'learned' && toldFrom(takes, element, LEARNED) < 2) continue;
      // Of what is not known by who is hardly heard nothing is asked.
      if (truth === 'twice' && since > 0) continue;
      rows[truth][state]++;
      rows[truth].of++;
      const told = places.right + places.misread;
      if (truth === 'known' && told >= 6 && records.get(element)!.days > 1) {
        firm![1]++;
        if (state === 'firm' || state === 'due') firm![0]++;
      }
      if (truth === 'unknown' && told >= 4) {
        shaky![1]++;
        if (state === 'shaky') shaky![0]++;
      }
    }
  }
  return { rows, firm: firm!, shaky: shaky! };
}

/** What is written down about children whose knowledge is known, beside what must be (rules §9). */
export function benchRecords(seed = 1001, children = 200): void {
  const { rows, firm, shaky } = termFigures(seed, children);
  console.log(`\nrecords, terms of seed ${seed}   elements   ${STATES.map((state) => state.padStart(8)).join('')}`);
  for (const truth of TRUTHS) {
    const own = rows[truth];
    const parts = STATES.map((state) => `${((100 * own[state]) / Math.max(1, own.of)).toFixed(1)} %`.padStart(8));
    console.log(`${truth.padEnd(30)} ${String(own.of).padStart(8)}   ${parts.join('')}`);
  }
  const percent = ([called, of]: readonly [number, number]) =>
    `${((100 * called) / Math.max(1, of)).toFixed(1)} % of ${of}`;
  console.log(`known, six places on two days or more, called firm (at least 85): ${percent(firm)}`);
  console.log(`unknown, four places or more, called shaky (at least 90): ${percent(shaky)}`);
}
