import { t } from '../../core/words/say.ts';
import type { ClassPieces } from '../../contract/classCopy.ts';
import { type Scale, highestOf } from '../../core/judging/scale.ts';
import { Problem } from '../problem.ts';
import { checkDay } from './days.ts';
import { checkTally } from './ear.ts';
import { readEach } from './patternText.ts';
import { checkLesson, checkTermPlan } from './planning.ts';
import { checkPoints } from './records.ts';

const wrong = (field: string, what: string) => new Problem(422, 'bad-request', `${field}: ${what}.`, { field });

const LONGEST_TITLE = 60;
const LAST_MOMENT = 8_640_000_000_000;

/** Does what it has to say about a part of a file with the place of that part. */
function at(place: string, check: () => void): void {
  try {
    check();
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    throw new Problem(error.status, error.code, `${place}: ${error.message}`, { ...error.detail, field: place });
  }
}

function eachOnce(list: readonly { readonly id: string }[] = [], name: string): void {
  const seen = new Set<string>();
  for (const [i, { id }] of list.entries()) {
    if (seen.has(id)) throw wrong(`${name}.${i}.id`, t`this is in the file twice`);
    seen.add(id);
  }
}

function checkTerms(terms: ClassPieces['terms'] = []): void {
  for (const [i, { title, fromAt, untilAt, names }] of terms.entries()) {
    const place = `terms.${i}`;
    if (title.trim() === '' || title.length > LONGEST_TITLE)
      throw wrong(`${place}.title`, t`expected a title of at most ${LONGEST_TITLE} letters`);
    if (!(fromAt >= 0 && fromAt <= untilAt && untilAt <= LAST_MOMENT))
      throw wrong(`${place}.untilAt`, t`expected a term that ends after it begins, within the calendar`);
    if (names.some((name) => name.length > LONGEST_TITLE)) throw wrong(`${place}.names`, t`a name is too long`);
  }
}

/**
 * What of a file fits its schema and makes no sense all the same, each with its place; before anything is read in.
 * @param scale  of the class: marks by hand are its steps
 */
export async function checkPieces(pieces: ClassPieces, scale: Scale): Promise<void> {
  const { terms, takes = [], paper = [], lineUps = [], practice = [], ear = [], lessons = [], termPlan } = pieces;
  for (const [name, list] of Object.entries({ terms, takes, paper, lineUps, practice, ear, lessons }))
    eachOnce(list, name);
  checkTerms(terms);
  for (const [i, { override }] of takes.entries())
    if (override !== null && override > highestOf(scale))
      throw wrong(`takes.${i}.override`, t`there is no such step in the scale of the class`);
  for (const [i, column] of paper.entries()) at(`paper.${i}`, () => checkPoints(column));
  for (const [i, { turns }] of lineUps.entries()) {
    eachOnce(
      turns.map(({ childId }) => ({ id: childId })),
      `lineUps.${i}.turns`,
    );
    if (turns.some(({ mark }) => mark !== null && mark > highestOf(scale)))
      throw wrong(`lineUps.${i}.turns`, t`there is no such step in the scale of the class`);
  }
  for (const [i, tally] of ear.entries()) checkTally(tally, `ear.${i}.`);
  for (const [i, { starts, plan }] of practice.entries()) {
    checkDay(starts, `practice.${i}.starts`);
    await readEach(plan.items.map(({ text }, k) => [text, `practice.${i}.plan.items.${k}.text`] as const));
  }
  for (const [i, { id: _id, ...lesson }] of lessons.entries()) await checkLesson(lesson, `lessons.${i}.`);
  if (termPlan) checkTermPlan(termPlan, 'termPlan.');
}
