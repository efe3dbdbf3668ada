import { optionsOf, shuffled } from '../options.ts';
import type { Answer, SignQuestionMaker, Step } from '../question.ts';
import { signKey, signsOf, somewhere, takenFor } from '../signs.ts';

/** What is this sign called? */
export const signName: SignQuestionMaker = (settings, random) => {
  const signs = signsOf(settings);
  const sign = random.pick(signs);
  const say = (one: typeof sign): Answer => ({ is: 'sign', sign: one });
  const wrong = takenFor(sign).map(({ sign: other, mistake }) => ({ answer: say(other), misconception: mistake }));
  const slips = shuffled(
    signs.filter((one) => signKey(one) !== signKey(sign)),
    random,
  ).map(say);
  const made = optionsOf(say(sign), wrong, slips, random);
  const steps: Step[] = [{ step: 'sign', sign }];
  return made && { asked: { kind: 'sign-name' }, shows: '', staff: [somewhere(sign, random)], ...made, steps };
};
