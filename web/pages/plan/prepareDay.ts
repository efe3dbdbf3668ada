import { t } from '../../../core/words/say.ts';
import { v4 as uuid } from 'uuid';
import type { LessonEdit } from '../../../contract/lesson.ts';
import type { PatternEdit, SavedPattern } from '../../../contract/pattern.ts';
import { prepareLesson } from '../../../core/planning/prepare.ts';
import type { PlannedLesson } from '../../../core/planning/term.ts';
import { ELEMENTS, type ElementId } from '../../../core/rhythm/elements.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { lessonTitle } from '../../../core/wording/planWords.ts';
import { type NamingId, capital, inNaming } from '../../../core/wording/valueNames.ts';
import { numbered } from '../../ui/numbered.ts';
import { keptBlocks } from './lessonDraft.ts';

/** A lesson, and the patterns that were made for it. */
export interface PreparedDay {
  readonly lesson: LessonEdit;
  readonly made: readonly (readonly [id: string, edit: PatternEdit])[];
}

const LONGEST_NAME = 60;

/**
 * The lesson of a day of the term.
 * @param met  what the class has met before it
 * @param folder  where made patterns go
 */
export function preparedDay(
  day: PlannedLesson,
  met: readonly ElementId[],
  patterns: readonly SavedPattern[],
  naming: NamingId,
  folder: string,
): PreparedDay {
  const shelf = patterns.flatMap(({ id, text, archived }) => {
    const read = archived ? undefined : parseRhythm(text);
    return read?.ok ? [{ id, pattern: read.pattern }] : [];
  });
  const prepared = prepareLesson(day, met, shelf, seedOf(day.day));
  const about = [...day.steps.map(({ element }) => element), ...day.again][0];
  const title = about ? capital(inNaming(ELEMENTS()[about].title, naming)) : t`Rhythm`;
  const taken = new Set(patterns.map((one) => one.title));
  const made: [string, PatternEdit][] = [];
  const keep = (text: string) => {
    const own = { patternId: uuid(), title: numbered(title, taken) };
    taken.add(own.title);
    made.push([own.patternId, { title: own.title, text, folder: folder.slice(0, LONGEST_NAME) }]);
    return own;
  };
  const blocks = keptBlocks(prepared, keep, patterns);
  const { steps, minutes, starts } = day;
  return {
    lesson: { title: lessonTitle(steps, t`Practice`, naming), minutes, day: day.day, starts, blocks, held: null },
    made,
  };
}

/** The same day is prepared the same. */
const seedOf = (day: string) => Number(day.replaceAll('-', ''));
