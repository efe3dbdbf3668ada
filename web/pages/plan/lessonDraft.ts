import { type BlockEdit, type LessonEdit, MOST_AGAIN } from '../../../contract/lesson.ts';
import type { SavedPattern } from '../../../contract/pattern.ts';
import { type Plan, READY_PLANS } from '../../../core/leading/plan.ts';
import { type BlockKind, LESSON_TEMPLATES, type LessonTemplate } from '../../../core/planning/lesson.ts';
import type { PreparedBlock } from '../../../core/planning/prepare.ts';
import type { TermStep } from '../../../core/planning/term.ts';
import { printRhythm } from '../../../core/rhythm/text.ts';
import { moved } from '../../ui/lists.ts';

const USUAL_LENGTH = 40;
const LINE_UP = { bpm: 76, tries: 1 } as const;

/** A plan as a block keeps it. */
export function planIn({ title, ...plan }: Plan & { readonly id?: string }): NonNullable<BlockEdit['plan']> {
  const { id: _id, ...parts } = plan;
  return structuredClone({ title, ...parts }) as NonNullable<BlockEdit['plan']>;
}

/** How a block is done until something else is chosen. */
function usual(kind: BlockKind): Pick<BlockEdit, 'plan' | 'lineUp'> {
  if (kind === 'lead') return { plan: planIn(READY_PLANS()[0]!) };
  return kind === 'line-up' ? { lineUp: LINE_UP } : {};
}

export function newBlock(kind: BlockKind, key: number, steps: readonly TermStep[] = []): BlockEdit {
  return { key, kind, patterns: [], steps: [...steps], ...usual(kind) };
}

const nextKey = (blocks: readonly BlockEdit[]) => 1 + Math.max(-1, ...blocks.map(({ key }) => key));

/** A lesson of one of the kinds, still without material. */
export function lessonOf(template: LessonTemplate, title: string): LessonEdit {
  const blocks = LESSON_TEMPLATES[template].map((kind, key) => newBlock(kind, key));
  return { title, minutes: USUAL_LENGTH, day: null, starts: null, blocks, held: null };
}

/**
 * Blocks that were prepared, as they are kept.
 * @param keep  gives a made pattern an id and a title
 */
export function keptBlocks(
  prepared: readonly PreparedBlock[],
  keep: (text: string) => { readonly patternId: string; readonly title: string },
  known: readonly SavedPattern[],
): BlockEdit[] {
  return prepared.map(({ kind, steps, patterns }, key) => ({
    ...newBlock(kind, key, steps),
    patterns: patterns.map(({ id, pattern }) => {
      const own = known.find((one) => one.id === id);
      if (own) return chosenPattern(own);
      const text = printRhythm(pattern);
      return { ...keep(text), text };
    }),
  }));
}

export function chosenPattern({ id, title, text }: SavedPattern): BlockEdit['patterns'][number] {
  return { patternId: id, title, text };
}

/** One more block, before the close. */
export function addBlock(lesson: LessonEdit, kind: BlockKind, steps: readonly TermStep[] = []): LessonEdit {
  const block = newBlock(kind, nextKey(lesson.blocks), steps);
  const close = lesson.blocks.at(-1)?.kind === 'close' && kind !== 'close' ? 1 : 0;
  const at = lesson.blocks.length - close;
  return { ...lesson, blocks: [...lesson.blocks.slice(0, at), block, ...lesson.blocks.slice(at)] };
}

export type BlockChange = { readonly [Field in keyof BlockEdit]?: BlockEdit[Field] | undefined };

/** @param change  undefined takes a part away */
export function changeBlock(lesson: LessonEdit, key: number, change: BlockChange): LessonEdit {
  const changed = (block: BlockEdit) =>
    Object.fromEntries(Object.entries({ ...block, ...change }).filter(([, value]) => value !== undefined)) as BlockEdit;
  return { ...lesson, blocks: lesson.blocks.map((block) => (block.key === key ? changed(block) : block)) };
}

export function removeBlock(lesson: LessonEdit, key: number): LessonEdit {
  return { ...lesson, blocks: lesson.blocks.filter((block) => block.key !== key) };
}

/** Puts a block where another stands. */
export function moveBlock(lesson: LessonEdit, key: number, to: number): LessonEdit {
  const from = lesson.blocks.findIndex((block) => block.key === key);
  if (from < 0 || to < 0 || to >= lesson.blocks.length) return lesson;
  return { ...lesson, blocks: moved(lesson.blocks, from, to) };
}

/** The first time is taken back: the next one counts, if there was one. */
export function notHeld({ again = [], held: _held, ...lesson }: LessonEdit): LessonEdit {
  const [next, ...later] = again;
  return { ...lesson, held: next ?? null, ...(later.length > 0 ? { again: later } : {}) };
}

/** A lesson held once more: the first record stays, and what it says of the term; this one is kept beside it. */
export function heldOnce(lesson: LessonEdit, record: NonNullable<LessonEdit['held']>): LessonEdit {
  const { held, again = [] } = lesson;
  if (!held) return { ...lesson, held: record };
  if ([held, ...again].some(({ at }) => at === record.at)) return lesson;
  return { ...lesson, again: [...again, record].slice(-MOST_AGAIN) };
}

/** What of the term a lesson did, and what it left out. */
export function stepsOf({ blocks, held }: LessonEdit): { readonly done: TermStep[]; readonly left: TermStep[] } {
  const isLeft = ({ key }: BlockEdit) => held?.leftOut.includes(key) ?? false;
  return {
    done: blocks.filter((block) => !isLeft(block)).flatMap(({ steps }) => steps),
    left: blocks.filter(isLeft).flatMap(({ steps }) => steps),
  };
}
