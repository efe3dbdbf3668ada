import type { BlockEdit, LessonEdit } from '../../../contract/lesson.ts';
import type { Ages } from '../../../core/judging/windows.ts';
import { lessonFor, tempoFor } from '../../../core/planning/lesson.ts';
import type { ElementId } from '../../../core/rhythm/elements.ts';
import { parseRhythm, printRhythm } from '../../../core/rhythm/text.ts';
import { blockIn } from '../../lesson/blocks.ts';

interface OtherClass {
  readonly from: Ages;
  readonly to: Ages;
  readonly className: string;
}

const LONGEST_TITLE = 60;

/** The same one is adapted the same. */
const SEED = 1;

/**
 * A lesson for another class: patterns with what it has not met are made anew, tempos go with its ages; it has no day
 * yet, and was not held.
 * @param keep  stores a pattern that was made, and gives its id
 */
export function copiedFor(
  lesson: LessonEdit,
  met: readonly ElementId[],
  { from, to, className }: OtherClass,
  keep: (title: string, text: string) => string,
): { readonly lesson: LessonEdit; readonly changed: number; readonly unchanged: number } {
  // What cannot be read, or is in parts, stays as it is.
  const readable = lesson.blocks.map(({ patterns }) => patterns.filter(({ text }) => parseRhythm(text).ok));
  const { blocks, changed, unchanged } = lessonFor(
    lesson.blocks.map((block, b) => blockIn({ ...block, patterns: readable[b]! })),
    met,
    SEED,
  );
  const adapted = lesson.blocks.map((block, b): BlockEdit => {
    const patterns = block.patterns.map((own) => {
      const made = blocks[b]!.patterns[readable[b]!.indexOf(own)];
      const text = made && printRhythm(made);
      const read = parseRhythm(own.text);
      if (text === undefined || !read.ok || printRhythm(read.pattern) === text) return own;
      const title = `${own.title}, ${className}`.slice(0, LONGEST_TITLE);
      return { patternId: keep(title, text), title, text };
    });
    return { ...paced(block, from, to), patterns };
  });
  const { again: _again, ...bare } = lesson;
  return { lesson: { ...bare, day: null, starts: null, held: null, blocks: adapted }, changed, unchanged };
}

/** As fast as suits other ages. */
function paced(block: BlockEdit, from: Ages, to: Ages): BlockEdit {
  const { plan, lineUp } = block;
  return {
    ...block,
    ...(plan
      ? { plan: { ...plan, ladder: plan.ladder.map((rung) => ({ ...rung, bpm: tempoFor(rung.bpm, from, to) })) } }
      : {}),
    ...(lineUp ? { lineUp: { ...lineUp, bpm: tempoFor(lineUp.bpm, from, to) } } : {}),
  };
}
