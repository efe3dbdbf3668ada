import { DRAWN_SIGN_IDS, strokesOf } from '../../ear/strokes.ts';
import { signName } from '../../exercises/kinds/signName.ts';
import { signSpot } from '../../exercises/kinds/signSpot.ts';
import { TOP_LINE, note, signKey } from '../../exercises/signs.ts';
import type { Question } from '../../exercises/question.ts';
import { signSettings } from '../material.ts';
import type { SheetMaker } from '../sheetQuestion.ts';

/** Heads on one staff. */
const HEADS = 8;

function asked({ asked: it }: Question): string {
  return it.kind === 'sign-spot' ? `${signKey(it.sign)}${it.single ? ' alone' : ''}` : '';
}

/** Circle every such sign. A point for each. */
export const circle: SheetMaker<'circle'> = {
  make: (settings, random) => {
    const question = signSpot(signSettings(settings), random);
    return question && { kind: 'circle', question };
  },
  key: ({ question }) => `${asked(question)} ${question.answers!.join()}`,
  points: ({ question }) => question.answers!.length,
  difficulty: ({ question }) => question.options.filter(({ misconception }) => misconception !== undefined).length,
  usual: 6,
};

/** Write the name under the sign. */
export const nameSign: SheetMaker<'name-sign'> = {
  make: (settings, random) => {
    const question = signName(signSettings(settings), random);
    return question && { kind: 'name-sign', question };
  },
  // The same sign on another line is the same question.
  key: ({ question }) => signKey(question.staff![0]!.sign),
  points: () => 1,
  difficulty: ({ question }) => question.options.filter(({ misconception }) => misconception !== undefined).length,
  usual: 8,
};

/** Heads without stems, each on another line or space than the one before it. A point for each. */
export const stems: SheetMaker<'stems'> = {
  make: (_settings, random) => {
    const heads = Array.from({ length: HEADS }, () => random.below(TOP_LINE + 1));
    if (heads.some((at, i) => at === heads[i - 1])) return undefined;
    return {
      kind: 'stems',
      heads: heads.map((at) => ({ sign: note(random.pick(['h', 'q'] as const)), at, stem: null })),
    };
  },
  key: ({ heads }) => heads.map(({ at, sign }) => `${at}${signKey(sign)}`).join(' '),
  points: ({ heads }) => heads.length,
  difficulty: () => 0,
  usual: 4,
};

/** One sign to trace and to draw, the easiest first. */
export const draw: SheetMaker<'draw'> = {
  make: (_settings, _random, nth) => {
    const sign = DRAWN_SIGN_IDS[nth];
    return sign && { kind: 'draw', sign };
  },
  key: ({ sign }) => sign,
  points: () => 0,
  difficulty: ({ sign }) => strokesOf(sign).length,
  usual: 6,
};
