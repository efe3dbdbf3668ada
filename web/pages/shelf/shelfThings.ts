import type { LessonEdit } from '../../../contract/lesson.ts';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { PlanEdit } from '../../../contract/plan.ts';
import type { ShelfThing } from '../../../contract/schoolShelf.ts';
import type { SheetEdit } from '../../../contract/sheet.ts';
import type { TermPlanEdit } from '../../../contract/termPlan.ts';

type BarePattern = Extract<ShelfThing, { kind: 'pattern' }>['pattern'];

const barePattern = ({ title, text, brackets }: SavedPattern): BarePattern => ({
  title,
  text,
  ...(brackets ? { brackets } : {}),
});

export const patternThing = (pattern: SavedPattern): ShelfThing => ({ kind: 'pattern', pattern: barePattern(pattern) });

export const linesThing = (patterns: readonly SavedPattern[]): ShelfThing => ({
  kind: 'lines',
  patterns: patterns.map(barePattern),
});

export function planThing({ id: _id, from: _from, ...plan }: PlanEdit & { readonly id?: string }): ShelfThing {
  return { kind: 'plan', plan };
}

/** A sheet without its class and the names of children. */
export function sheetThing(saved: SheetEdit & { readonly id?: string }): ShelfThing {
  const { id: _id, from: _from, classId: _class, names: _names, ...sheet } = saved;
  return { kind: 'sheet', sheet };
}

/** A lesson without its day and how it went. */
export function lessonThing(saved: LessonEdit & { readonly id?: string }): ShelfThing {
  const { id: _id, from: _from, day: _day, starts: _starts, held: _held, again: _again, ...lesson } = saved;
  return { kind: 'lesson', lesson };
}

/** What is new in a term, lesson by lesson, without its days. */
export const termThing = ({ order, contents }: TermPlanEdit): ShelfThing => ({
  kind: 'term',
  term: { order: [...order], contents: contents.map((steps) => [...steps]) },
});
