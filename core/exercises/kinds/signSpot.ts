import { shuffled } from '../options.ts';
import type { Option, SignQuestionMaker } from '../question.ts';
import { type Sign, signKey, signsOf, somewhere, takenFor } from '../signs.ts';

const ON_STAFF = 8;

/** Which of these are such a sign? All of them are to be found. */
export const signSpot: SignQuestionMaker = (settings, random) => {
  const signs = signsOf(settings);
  const sign = random.pick(signs);
  const alike = takenFor(sign);
  const times = 2 + random.below(3);
  const others = shuffled(
    signs.filter((one) => signKey(one) !== signKey(sign)),
    random,
  );
  if (others.length === 0) return undefined;
  const near = shuffled(alike, random).map((one) => one.sign);
  const pool = [...near, ...near, ...others, ...others, ...others, ...others];
  const shown: Sign[] = shuffled(
    [...Array.from({ length: times }, () => sign), ...pool.slice(0, ON_STAFF - times)],
    random,
  );
  const right = (one: Sign) => signKey(one) === signKey(sign);
  const options = shown.map((one, index): Option => {
    const mistake = alike.find((other) => signKey(other.sign) === signKey(one))?.mistake;
    return { answer: { is: 'nth', index }, ...(mistake && !right(one) ? { misconception: mistake } : {}) };
  });
  const answers = shown.flatMap((one, i) => (right(one) ? [i] : []));
  return {
    asked: { kind: 'sign-spot', sign },
    shows: '',
    staff: shown.map((one) => somewhere(one, random)),
    options,
    answer: answers[0]!,
    answers,
    steps: [{ step: 'sign', sign }],
  };
};
