import { counted, perLanguage, t } from '../words/say.ts';
import type { MistakeId } from '../exercises/misconceptions.ts';
import type { Answer, Asked, Question, Step } from '../exercises/question.ts';
import { abs, add, mixed, sub } from '../rhythm/fraction.ts';
import { meterText } from '../rhythm/meter.ts';
import { VALUES, type ValueLetter } from '../rhythm/value.ts';
import { ruledOutIn } from './earWords.ts';
import { beatsText } from './plurals.ts';
import {
  matchText,
  sameLengthText,
  signName,
  signStep,
  spotText,
  staffPlaceName,
  stemName,
  stemRule,
} from './signWords.ts';
import type { Part } from '../exercises/valueSums.ts';
import { partName, partWithArticle, sumLines } from './sumWords.ts';
import { type NamingId, capital, inNaming, measureName, valueName, withArticle } from './valueNames.ts';

const plainName = (base: ValueLetter, naming: NamingId, many = false) => valueName({ base, dots: 0 }, naming, many);

/** One sentence for the child who chose a wrong option, for `inNaming`. */
const MISCONCEPTION_SENTENCES = perLanguage((): Readonly<Record<MistakeId, string>> => ({
  'dot-one-beat': t`The dot was taken for one more beat. It adds half of the note it stands beside.`,
  'dot-whole-copy': t`The dot was counted as the same note once more. It adds only half of it.`,
  'dot-ignored': t`The dot was left out. Right of the head it makes the note longer by half; above or
      below the head it only makes it short.`,
  'staccato-lengthens': t`The dot above or below the head was read as the one that lengthens. It only makes
      the note sound short; its beats stay the same.`,
  'rest-nothing': t`The rest was given no time. It is not sounded, but it is counted.`,
  'tie-ignored': t`The tied-on note was left out. A tie adds its time; only the sound is not made again.`,
  'tie-two-sounds': t`The tie was counted as two sounds. Only the first of the tied notes is sounded; the
      other adds its time.`,
  'rest-clapped': t`The rest was clapped. Its time is counted, but it is silent.`,
  'whole-half-swapped': t`The {w} and the {h} rest were swapped. The {w} rest hangs below the line, the {h}
      rest sits on it.`,
  'beat-ignored': t`It was counted as if the {q} got the beat. Ask first which value gets the beat.`,
  'counts-notes': t`The signs were counted, not the beats.`,
  'head-overlooked': t`Open or filled was overlooked. The head of a {h} is open, that of a {q} is filled.`,
  'stem-overlooked': t`The stem was overlooked. A {w} has none.`,
  'flags-miscounted': t`The flags were not counted. Each flag, beam or dot on a hook makes it half as long.`,
  'dot-overlooked': t`The dot right of the head was overlooked. It makes the note longer by half.`,
  'rests-mixed': t`The {q} and the {e} rest were mixed up. The {q} rest zigzags; the {e} rest has a dot on a hook.`,
  'beam-not-counted': t`The beam was overlooked. A beam joins two notes; a single one has a flag.`,
  'clefs-mixed': t`The clefs were mixed up. The treble clef curls around the second line; the bass clef
    has two dots.`,
  'note-for-rest': t`A note was taken for a rest. A note has a head and is sounded; a rest is silent.`,
  'counted-from-above': t`It was counted from above. Lines and spaces are numbered from below.`,
  'line-space-mixed': t`Line and space were mixed up. On a line the line goes through the head.`,
  'stem-side': t`The stem is on the wrong side of the head. Up is on the right, down is on the left.`,
  'stem-way': t`The stem goes the wrong way. Below the middle line it goes up, above it down.`,
}));

export function misconceptionText(id: MistakeId, naming: NamingId): string {
  return inNaming(MISCONCEPTION_SENTENCES()[id], naming);
}

function askedText(asked: Asked, naming: NamingId): string {
  switch (asked.kind) {
    case 'beats': {
      const [first, ...others] = asked.parts;
      const single = first && others.length === 0 && !first.staccato;
      const what = single ? partWithArticle(first, naming) : t`this`;
      return t`How many beats does ${what} last when the ${plainName(asked.beat, naming)} gets the beat?`;
    }
    case 'how-many': {
      const many = plainName(asked.small, naming, true);
      return t`How many ${many} are in ${withArticle(valueName(asked.whole, naming))}?`;
    }
    case 'true-false': {
      const side = (parts: readonly Part[]) => parts.map((part) => partName(part, naming)).join(' + ');
      return t`True or false: ${side(asked.left)} = ${side(asked.right)}`;
    }
    case 'balance':
      return t`Which value makes both sides as long?`;
    case 'claps':
      return t`How many claps is this?`;
    case 'complete':
      return t`Which value completes this ${measureName(naming)} of ${meterText(asked.meter)}?`;
    case 'wrong-measure':
      return inNaming(t`Which {measure} does not add up, and by how much?`, naming);
    case 'order':
      return t`Put these in order, the shortest first.`;
    case 'choose-rhythm':
      return t`Which one do you hear?`;
    case 'sign-name':
      return t`What is this called?`;
    case 'sign-spot':
      return spotText(asked.sign, asked.single === true, naming);
    case 'sign-match':
      return matchText(asked.to, asked.beat, naming);
    case 'staff-place':
      return t`On which line or in which space is this note?`;
    case 'stem-side':
      return t`Where does the stem go?`;
    case 'which-rest':
      return capital(inNaming(t`{w} or {h} rest?`, naming));
    case 'same-length':
      return sameLengthText(asked.to);
  }
}

/** "1/2 beat short", "1 beat too long". */
export function offText(beats: Extract<Answer, { is: 'off' }>['beats']): string {
  const size = abs(beats);
  return beats.n < 0 ? t`${beatsText(size)} short` : t`${beatsText(size)} too long`;
}

function answerText(answer: Answer, naming: NamingId): string {
  switch (answer.is) {
    case 'beats':
      return beatsText(answer.beats);
    case 'count':
      return mixed(answer.count);
    case 'claps':
      return counted(answer.claps, 'clap');
    case 'value':
      return valueName(answer.value, naming);
    case 'values':
      return answer.values.map((value) => valueName(value, naming)).join(', ');
    case 'truth':
      return answer.truth ? t`true` : t`false`;
    case 'off':
      return `${measureName(naming)} ${answer.measure}, ${offText(answer.beats)}`;
    case 'rhythm':
    case 'syllable':
      return answer.text;
    case 'sign':
      return signName(answer.sign, naming);
    case 'nth':
      return String(answer.index + 1);
    case 'staff':
      return staffPlaceName(answer);
    case 'stem':
      return stemName(answer);
  }
}

/** "1 whole = 2 halves = 4 quarters": each fold doubles. */
function foldsText(from: ValueLetter, to: ValueLetter, naming: NamingId): string {
  const letters = VALUES.map(({ letter }) => letter);
  const chain = letters.slice(letters.indexOf(from), letters.indexOf(to) + 1);
  return chain.map((letter, i) => `${2 ** i} ${plainName(letter, naming, i > 0)}`).join(' = ');
}

function stepLines(step: Step, naming: NamingId, question: Question): string[] {
  switch (step.step) {
    case 'sum':
      return sumLines(step, naming);
    case 'other-side':
      return [t`on the other side: ${beatsText(step.beats)}`];
    case 'staccato':
      return [t`the dot above or below a head makes it short and adds nothing`];
    case 'missing': {
      const lacks = beatsText(sub(step.all, step.used));
      return [`${mixed(step.all)} − ${mixed(step.used)} = ${lacks}: ${valueName(step.value, naming)}`];
    }
    case 'clap-notes':
      return [t`one clap for each note: ${step.notes}`];
    case 'no-clap-tied':
      return [t`less ${step.tied} for what is tied on: it sounds already`];
    case 'no-clap-rests':
      return [
        step.rests === 1
          ? t`nothing for the rest: it is counted in silence`
          : t`nothing for the rests: they are counted in silence`,
      ];
    case 'folds':
      return [foldsText(step.from, step.to, naming)];
    case 'dot-of-folds': {
      const { plain, half } = step;
      return [t`the dot adds half of them: ${mixed(plain)} + ${mixed(half)} = ${mixed(add(plain, half))}`];
    }
    case 'wrong-total':
      return [`${measureName(naming)} ${step.measure}: ${beatsText(step.total)}, ${offText(step.off)}`];
    case 'others-full':
      return [t`the others add up to ${mixed(step.beats)}`];
    case 'ruled-out':
      return [ruledOutIn(question, step, naming)];
    case 'sign':
      return [signStep(step.sign, naming)];
    case 'staff':
      return [t`counted from below: ${staffPlaceName(step)}`];
    case 'stem':
      return [stemRule(step.at)];
  }
}

/** A question in words. */
export interface QuestionWords {
  readonly prompt: string;
  /** In the order of the options. */
  readonly options: readonly string[];
  /** The worked answer, a line a step. */
  readonly steps: readonly string[];
}

export function questionWords(question: Question, naming: NamingId): QuestionWords {
  const { asked, options, steps } = question;
  return {
    prompt: askedText(asked, naming),
    options: options.map(({ answer }) => answerText(answer, naming)),
    steps: steps.flatMap((step) => stepLines(step, naming, question)),
  };
}
