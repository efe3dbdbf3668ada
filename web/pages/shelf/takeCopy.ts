import type { PatternEdit, SavedPattern } from '../../../contract/pattern.ts';
import type { ShelfThing } from '../../../contract/schoolShelf.ts';
import type { TermPlanEdit } from '../../../contract/termPlan.ts';
import { lessonSlots } from '../../../core/planning/slots.ts';

/** One thing to be stored. */
export interface Write {
  readonly path: string;
  readonly body: object;
}

/** Where a copy goes. */
export interface Place {
  /** The folder for patterns. */
  readonly folder: string;
  /** For a lesson or a term plan. */
  readonly classId?: string | undefined;
  /** What the class has planned, where a term plan goes into it. */
  readonly term?: TermPlanEdit | null | undefined;
}

/** What a copy of a thing is stored as, and where it is looked at then. */
export interface Copy {
  readonly writes: readonly Write[];
  readonly to: string;
}

interface Maker {
  /** Who made the thing, and where. */
  readonly from: string;
  /** Patterns the teacher has: one that is the same is not copied a second time. */
  readonly own: readonly SavedPattern[];
  readonly newId: () => string;
}

/** Patterns as writes, and the id that each has then. */
function patternCopies(
  patterns: readonly Pick<PatternEdit, 'title' | 'text' | 'brackets'>[],
  { from, own, newId }: Maker,
  folder: string,
): { readonly writes: Write[]; readonly ids: string[] } {
  const writes: Write[] = [];
  const known = new Map(own.map(({ id, title, text }) => [`${title}\n${text}`, id]));
  const ids = patterns.map(({ title, text, brackets }) => {
    const key = `${title}\n${text}`;
    const there = known.get(key);
    if (there !== undefined) return there;
    const id = newId();
    known.set(key, id);
    writes.push({ path: `/patterns/${id}`, body: { title, text, ...(brackets ? { brackets } : {}), folder, from } });
    return id;
  });
  return { writes, ids };
}

/** The writes by which a teacher has a copy of a thing that says where it is from. */
export function copyOf(thing: ShelfThing, maker: Maker, { folder, classId, term }: Place): Copy | undefined {
  const { from, newId } = maker;
  switch (thing.kind) {
    case 'pattern': {
      const { writes, ids } = patternCopies([thing.pattern], maker, folder);
      return { writes, to: `/patterns/${ids[0]}` };
    }
    case 'lines': {
      const { writes } = patternCopies(thing.patterns, maker, folder);
      return { writes, to: '/patterns' };
    }
    case 'plan':
      return { writes: [{ path: `/plans/${newId()}`, body: { ...thing.plan, from } }], to: '/lead' };
    case 'sheet': {
      const id = newId();
      const body = { ...thing.sheet, classId: null, names: false, from };
      return { writes: [{ path: `/sheets/${id}`, body }], to: `/sheets/${id}` };
    }
    case 'lesson': {
      if (classId === undefined) return undefined;
      const id = newId();
      const needed = thing.lesson.blocks.flatMap(({ patterns }) => patterns);
      const { writes, ids } = patternCopies(needed, maker, folder);
      const now = new Map(needed.map(({ patternId }, i) => [patternId, ids[i]!]));
      const blocks = thing.lesson.blocks.map((block) => ({
        ...block,
        patterns: block.patterns.map((one) => ({ ...one, patternId: now.get(one.patternId)! })),
      }));
      const body = { ...thing.lesson, blocks, day: null, starts: null, held: null, from };
      const lesson = { path: `/classes/${classId}/lessons/${id}`, body };
      return { writes: [...writes, lesson], to: `/plan/${classId}/${id}` };
    }
    case 'term': {
      if (classId === undefined || !term) return undefined;
      const fit = lessonSlots(term).length;
      const { order, contents } = thing.term;
      // What does not fit into the term of this class waits beside it.
      const body = { ...term, order, contents: contents.slice(0, fit), left: contents.slice(fit).flat(), was: term };
      return { writes: [{ path: `/classes/${classId}/term-plan`, body }], to: '/plan/term' };
    }
  }
}
