import type { MisreadingCode } from '../judging/misreadings/table.ts';
import { type ClassElement, HAS_PART } from '../records/classStanding.ts';
import { ELEMENT_IDS, type ElementId } from '../rhythm/elements.ts';
import { type Focus, PLACED_MISREADINGS, needsBrick } from './focus.ts';
import { type Level, LEVELS } from './level.ts';
import { elementsAt } from './makePattern.ts';

/** How many children of a class made a misreading lately. */
export interface MisreadBy {
  readonly code: MisreadingCode;
  readonly children: number;
}

/** What to make for a class, and why. */
export interface Next {
  readonly elements: readonly ElementId[];
  readonly focus: Focus | undefined;
  readonly level: Level;
  readonly because:
    | { readonly kind: 'nothing-heard' }
    /** So many of those who were heard often enough to tell are not firm in it, and so many of these unsure. */
    | { readonly kind: 'weakest'; readonly notFirm: number; readonly unsure: number; readonly heard: number }
    /** So many of those heard were hardly heard yet. */
    | { readonly kind: 'hardly-heard'; readonly hardly: number; readonly heard: number }
    | { readonly kind: 'misread'; readonly children: number; readonly of: number }
    /** It has all it has met: this one comes next. */
    | { readonly kind: 'new' };
}

/** A misreading is a class's own when this part of it makes it. */
const COMMON = 1 / 4;

/** The highest level whose usual elements the class has. */
function masteryOf(has: ReadonlySet<ElementId>): Level {
  return LEVELS.findLast((level) => elementsAt(level).every((id) => has.has(id))) ?? 1;
}

/** All elements in a teacher's order: what it leaves out comes after it, as usual. */
export function withUsual(order: readonly ElementId[]): ElementId[] {
  const [first, ...rest] = ELEMENT_IDS;
  return [...new Set([first!, ...order, ...rest])];
}

/**
 * What comes next for a class (rules §11): what it has met, with a focus on what most children misread, else on what
 * it is least sure of, a step below the level it has.
 * @param standing  how the class stands with each element (`classStanding`)
 * @param misread   lately, and by how many children
 * @param order     the order in which elements come; the teacher may have another
 */
export function whatNext(
  standing: readonly ClassElement[],
  misread: readonly MisreadBy[],
  children: number,
  order: readonly ElementId[] = ELEMENT_IDS,
): Next {
  const met = standing.filter((one) => one.met);
  const first = order[0]!;
  if (met.length === 0) return { elements: [first], focus: undefined, level: 1, because: { kind: 'nothing-heard' } };
  const elements = met.map(({ element }) => element);
  const mastery = masteryOf(new Set(met.filter(({ has }) => has).map(({ element }) => element)));
  const level = Math.max(1, mastery - 1) as Level;
  const [common] = misread
    .filter(({ code, children: by }) => by >= children * COMMON && isPlaced(code))
    .sort((a, b) => b.children - a.children);
  if (common) {
    const because = { kind: 'misread', children: common.children, of: children } as const;
    return { elements, focus: { kind: 'misreading', code: common.code }, level, because };
  }
  const open = met.filter(({ has }) => !has);
  const [weakest] = open
    .map(({ element, heard, states: { new: few, shaky, growing } }) => {
      const told = heard - few;
      return { element, told, shaky, notFirm: shaky + growing, weight: (2 * shaky + growing) / told };
    })
    .filter(({ told, notFirm }) => notFirm > told * (1 - HAS_PART))
    .sort((a, b) => b.weight - a.weight);
  if (weakest) {
    const { notFirm, shaky, told } = weakest;
    const because = { kind: 'weakest', notFirm, unsure: shaky, heard: told } as const;
    return { elements, focus: { kind: 'element', element: weakest.element }, level, because };
  }
  const [hardly] = [...open].sort((a, b) => b.states.new / b.heard - a.states.new / a.heard);
  if (hardly) {
    const because = { kind: 'hardly-heard', hardly: hardly.states.new, heard: hardly.heard } as const;
    return { elements, focus: { kind: 'element', element: hardly.element }, level, because };
  }
  const next = order.find((id) => !elements.includes(id));
  const focus: Focus = { kind: 'element', element: next ?? elements.at(-1)! };
  return { elements: next ? [...elements, next] : elements, focus, level, because: { kind: 'new' } };
}

function isPlaced(code: MisreadingCode): boolean {
  return PLACED_MISREADINGS.includes(code) && needsBrick({ kind: 'misreading', code });
}
