import { shuffled } from '../options.ts';
import type { Option, SignQuestionMaker } from '../question.ts';
import { type Sign, hasPairs, isOfKind, signKey, signsOf, somewhere, takenFor } from '../signs.ts';

const ON_STAFF = 8;

/** Which of these are such a sign? All of them are to be found. */
export const signSpot: SignQuestionMaker = (settings, random) => {
  const signs = signsOf(settings);
  const sign = random.pick(signs);
  // Beamed ones are eighths too; single ones are another question.
  const single = hasPairs(sign) && random.next() < 0.5;
  const alike = takenFor(sign);
  const times = 2 + random.below(3);
  const right = (one: Sign) => isOfKind(one, sign, single);
  const others = shuffled(
    signs.filter((one) => !right(one)),
    random,
  );
  if (others.length === 0) return undefined;
  const near = shuffled(alike, random).flatMap((one) => (right(one.sign) ? [] : [one.sign]));
  const kinds = signs.filter(right);
  const pool = [...near, ...near, ...others, ...others, ...others, ...others];
  const shown: Sign[] = shuffled(
    [...Array.from({ length: times }, () => random.pick(kinds)), ...pool.slice(0, ON_STAFF - times)],
    random,
  );
  const options = shown.map((one, index): Option => {
    const mistake = alike.find((other) => signKey(other.sign) === signKey(one))?.mistake;
    return { answer: { is: 'nth', index }, ...(mistake && !right(one) ? { misconception: mistake } : {}) };
  });
  const answers = shown.flatMap((one, i) => (right(one) ? [i] : []));
  return {
    asked: { kind: 'sign-spot', sign, ...(single ? { single } : {}) },
    shows: '',
    staff: shown.map((one) => somewhere(one, random)),
    options,
    answer: answers[0]!,
    answers,
    steps: [{ step: 'sign', sign }],
  };
};
