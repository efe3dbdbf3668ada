import { optionsOf, shuffled } from '../options.ts';
import type { Answer, Option, SignQuestionMaker } from '../question.ts';
import { type Sign, note, notesOf, rest, signKey, somewhere, takenFor } from '../signs.ts';

/** Which rest lasts as long as this note, which note as long as this rest? */
export const sameLength: SignQuestionMaker = (settings, random) => {
  const letters = notesOf(settings).flatMap((sign) =>
    'value' in sign && sign.value.dots === 0 ? [sign.value.base] : [],
  );
  const base = random.pick(letters);
  const to = random.pick(['note', 'rest'] as const);
  const make = to === 'rest' ? rest : note;
  const [shown, sign]: [Sign, Sign] = [to === 'rest' ? note(base) : rest(base), make(base)];
  const say = (one: Sign): Answer => ({ is: 'sign', sign: one });
  const wrong = takenFor(sign).flatMap(({ sign: other, mistake }): Option[] =>
    other.sign === to ? [{ answer: say(other), misconception: mistake }] : [],
  );
  const slips = shuffled(
    (['w', 'h', 'q', 'e', 's'] as const).map((letter) => make(letter)),
    random,
  )
    .filter((one) => signKey(one) !== signKey(sign))
    .map(say);
  const made = optionsOf(say(sign), wrong, slips, random);
  return (
    made && {
      asked: { kind: 'same-length', to },
      shows: '',
      staff: [somewhere(shown, random)],
      ...made,
      steps: [
        { step: 'sign', sign: shown },
        { step: 'sign', sign },
      ],
    }
  );
};
