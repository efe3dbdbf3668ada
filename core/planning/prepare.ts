import type { Focus } from '../making/focus.ts';
import { withMeter } from '../making/makePattern.ts';
import { makeSet } from '../making/makeSet.ts';
import { type ElementId, elementsOf } from '../rhythm/elements.ts';
import { COMMON_TIME, type Meter } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { soundKey } from '../rhythm/soundings.ts';
import { type BlockKind, USUAL_MINUTES } from './lesson.ts';
import { type PlannedLesson, STEPS, type Step, type TermStep } from './term.ts';

/** A pattern the teacher has. */
export interface ShelfPattern {
  readonly id: string;
  readonly pattern: Pattern;
}

/** A block with its material; a pattern without an id was made for it. */
export interface PreparedBlock {
  readonly kind: BlockKind;
  readonly steps: readonly TermStep[];
  readonly patterns: readonly { readonly id?: string; readonly pattern: Pattern }[];
}

/** Where each step is done (rules §12): met by echo, then read, then written, then heard for a mark. */
export const BLOCK_OF: Readonly<Record<Step, BlockKind>> = {
  meet: 'warm-up',
  read: 'read',
  write: 'make',
  hear: 'line-up',
};
/** In compound meter everything stands in this one. */
const COMPOUND_TIME: Meter = { upper: 6, lower: 8 };
const MADE = { measures: 2, level: 2 } as const;
/** A class that is heard gets more than one rhythm, so that neighbours do not copy. */
const HEARD_ON = 2;

/** Which block goes where. */
const ORDER: readonly BlockKind[] = ['warm-up', 'know', 'read', 'lead', 'ear', 'make', 'line-up', 'close'];
/** What fills the rest of a lesson, as far as there is time, with what is old or has just been read. */
const FILLING: readonly BlockKind[] = ['lead', 'ear', 'read', 'make'];

/**
 * The lesson of a day of the term: a block for each step, one to come back to what is old, and patterns of the teacher
 * in which nothing is new but what the lesson is about; where there are none they are made. The time that is left is
 * filled with practice.
 * @param known  elements the class has met before this lesson
 * @param shelf  the teacher's patterns, in their order
 */
export function prepareLesson(
  { steps, again, minutes }: Pick<PlannedLesson, 'steps' | 'again' | 'minutes'>,
  known: readonly ElementId[],
  shelf: readonly ShelfPattern[],
  seed: number,
): PreparedBlock[] {
  const allowed = new Set<ElementId>(['quarter', ...known, ...again, ...steps.map(({ element }) => element)]);
  const { find, count } = patternFinder([...allowed], shelf, seed);
  const stepsIn = (kind: BlockKind) => steps.filter(({ step }) => BLOCK_OF[step] === kind);
  const needed = ORDER.filter((kind) => isNeeded(kind, { steps, again }) || stepsIn(kind).length > 0);
  const filling: BlockKind[] = [];
  const planned = () => [...needed, ...filling].reduce((all, kind) => all + USUAL_MINUTES[kind], 0);
  for (const kind of FILLING)
    if (!needed.includes(kind) && planned() + USUAL_MINUTES[kind] <= minutes) filling.push(kind);
  const practised = again[0] ?? steps[0]?.element ?? known.at(-1) ?? 'quarter';
  // What the lesson is about is chosen first, the scarcest before all; practice takes what is left.
  const scarce = [...steps].sort((a, b) => count(a.element) - count(b.element));
  const chosen = new Map<BlockKind, PreparedBlock['patterns']>();
  for (const { element, step } of scarce) {
    const kind = BLOCK_OF[step];
    const found = find(element, STEPS.indexOf(step), step === 'hear' ? HEARD_ON : 1);
    chosen.set(kind, [...(chosen.get(kind) ?? []), ...found]);
  }
  for (const element of again) chosen.set('lead', [...(chosen.get('lead') ?? []), ...find(element, 0, 1)]);
  // The ear works with all the class has met.
  for (const kind of filling) if (kind !== 'ear') chosen.set(kind, find(practised, 0, 1));
  return ORDER.filter((kind) => needed.includes(kind) || filling.includes(kind)).map((kind) => ({
    kind,
    steps: stepsIn(kind),
    patterns: chosen.get(kind) ?? [],
  }));
}

/** What stands in a lesson although no step asks for it. */
function isNeeded(kind: BlockKind, { steps, again }: Pick<PlannedLesson, 'steps' | 'again'>): boolean {
  if (kind === 'know') return steps.some(({ step }) => step === 'meet');
  if (kind === 'lead') return again.length > 0;
  return kind === 'warm-up' || kind === 'close';
}

/**
 * Gives patterns with an element, none twice in a lesson.
 * @returns `find`: by element, which of the fitting ones comes first (from lesson to lesson another), and how many;
 * `count`: how many of the teacher’s fit
 */
function patternFinder(allowed: readonly ElementId[], shelf: readonly ShelfPattern[], seed: number) {
  const fitting = shelf.flatMap((one) => {
    const elements = [...elementsOf(one.pattern).keys()];
    return elements.every((id) => allowed.includes(id)) ? [{ ...one, elements }] : [];
  });
  const heard = new Set(shelf.map(({ pattern }) => soundKey(pattern)));
  const used = new Set<string>();
  const count = (element: ElementId) => fitting.filter(({ elements }) => elements.includes(element)).length;
  const find = (element: ElementId, first: number, many: number): PreparedBlock['patterns'] => {
    const own = fitting.filter(({ id, elements }) => elements.includes(element) && !used.has(id));
    const begin = first % Math.max(1, own.length);
    const turned = [...own.slice(begin), ...own.slice(0, begin)];
    const found = turned.slice(0, many).map(({ id, pattern }) => ({ id, pattern }));
    for (const { id } of found) used.add(id);
    const made = madeWith(element, allowed, many - found.length, seed + first, heard);
    for (const { pattern } of made) heard.add(soundKey(pattern));
    return [...found, ...made];
  };
  return { find, count };
}

function madeWith(
  element: ElementId,
  allowed: readonly ElementId[],
  count: number,
  seed: number,
  heard: ReadonlySet<string>,
): { readonly pattern: Pattern }[] {
  if (count === 0) return [];
  const meter = element === 'compound' ? COMPOUND_TIME : COMMON_TIME;
  const elements = withMeter(
    allowed.filter((id) => id !== 'compound'),
    meter,
  );
  // Quarters and compound meter stand in every pattern there is.
  const focus: Focus | undefined =
    element === 'compound' || element === 'quarter' ? undefined : { kind: 'element', element };
  const set = makeSet({ ...MADE, meter, elements, ...(focus ? { focus } : {}) }, count, seed, heard);
  return typeof set === 'string' ? [] : set.made.map(({ pattern }) => ({ pattern }));
}
