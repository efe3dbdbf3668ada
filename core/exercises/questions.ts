import { type Random, randomFrom } from '../random.ts';
import { balance } from './kinds/balance.ts';
import { beats } from './kinds/beats.ts';
import { claps } from './kinds/claps.ts';
import { complete } from './kinds/complete.ts';
import { howMany } from './kinds/howMany.ts';
import { order } from './kinds/order.ts';
import { sameLength } from './kinds/sameLength.ts';
import { signMatch } from './kinds/signMatch.ts';
import { signName } from './kinds/signName.ts';
import { signSpot } from './kinds/signSpot.ts';
import { staffPlaceQuestion } from './kinds/staffPlace.ts';
import { stemSide } from './kinds/stemSide.ts';
import { trueFalse } from './kinds/trueFalse.ts';
import { whichRest } from './kinds/whichRest.ts';
import { wrongMeasure } from './kinds/wrongMeasure.ts';
import type { Question, QuestionKind, QuestionMaker, QuestionSettings, SignQuestionMaker } from './question.ts';
import type { SignSettings } from './signs.ts';

/**
 * Every kind of question. To add one: its file, its facts in `Asked`, and a row here; the compiler asks for its words.
 */
const MAKERS = {
  beats,
  'how-many': howMany,
  'true-false': trueFalse,
  balance,
  claps,
  complete,
  'wrong-measure': wrongMeasure,
  order,
} as const satisfies Partial<Record<QuestionKind, QuestionMaker>>;
export type ValueQuestionKind = keyof typeof MAKERS;
export const QUESTION_KINDS = Object.keys(MAKERS) as readonly ValueQuestionKind[];

/** The same for questions about signs on five lines. */
const SIGN_MAKERS = {
  'sign-name': signName,
  'sign-spot': signSpot,
  'sign-match': signMatch,
  'staff-place': staffPlaceQuestion,
  'stem-side': stemSide,
  'which-rest': whichRest,
  'same-length': sameLength,
} as const satisfies Partial<Record<QuestionKind, SignQuestionMaker>>;
export type SignQuestionKind = keyof typeof SIGN_MAKERS;
export const SIGN_QUESTION_KINDS = Object.keys(SIGN_MAKERS) as readonly SignQuestionKind[];

/**
 * Questions from a seed: the same seed and settings give the same ones, no two in a row of one kind where several were
 * asked for.
 * @param kinds  which kinds; all when left out
 */
export function questions(
  settings: QuestionSettings,
  seed: number,
  count: number,
  kinds: readonly ValueQuestionKind[] = QUESTION_KINDS,
): Question[] {
  return mixed(kinds, (kind, random) => MAKERS[kind](settings, random), seed, count);
}

/** Questions about signs from a seed, in the same way. */
export function signQuestions(
  settings: SignSettings,
  seed: number,
  count: number,
  kinds: readonly SignQuestionKind[] = SIGN_QUESTION_KINDS,
): Question[] {
  return mixed(kinds, (kind, random) => SIGN_MAKERS[kind](settings, random), seed, count);
}

/** How often a kind is tried again: some find nothing half of the time, and would else come half as often. */
const TRIES_OF_A_KIND = 12;

function ofKind<Kind extends QuestionKind>(
  kind: Kind,
  make: (kind: Kind, random: Random) => Question | undefined,
  random: Random,
): Question | undefined {
  for (let tries = 0; tries < TRIES_OF_A_KIND; tries++) {
    const question = make(kind, random);
    if (question) return question;
  }
  return undefined;
}

function mixed<Kind extends QuestionKind>(
  kinds: readonly Kind[],
  make: (kind: Kind, random: Random) => Question | undefined,
  seed: number,
  count: number,
): Question[] {
  const random = randomFrom(seed);
  const asked: Question[] = [];
  const seen = new Set<string>();
  for (let tries = 0; asked.length < count && tries < count * 60; tries++) {
    const kind = random.pick(kinds);
    if (kinds.length > 1 && kind === asked.at(-1)?.asked.kind) continue;
    const question = kinds.length > 1 ? ofKind(kind, make, random) : make(kind, random);
    const key = question && JSON.stringify([question.asked, question.shows, question.staff]);
    // With few values there are few different questions; then they may come again.
    if (!question || (seen.has(key!) && tries < count * 30)) continue;
    seen.add(key!);
    asked.push(question);
  }
  return asked;
}
