import { counted, decimal, perLanguage, t } from '../words/say.ts';
import { type CountOptions, countPattern, plainCounts } from '../counting/count.ts';
import { strokesOf } from '../ear/strokes.ts';
import { rightStems, signKey } from '../exercises/signs.ts';
import { partsText } from '../exercises/material.ts';
import { type Part, totalBeats } from '../exercises/valueSums.ts';
import { type Fraction, ONE, abs, add, compare, div, frac, mixed, mul, sub, sum } from '../rhythm/fraction.ts';
import { type Meter, beatOf, meterKind, meterText } from '../rhythm/meter.ts';
import type { Item, Pattern } from '../rhythm/pattern.ts';
import { itemLength, placePattern } from '../rhythm/place.ts';
import { itemText, printRhythm } from '../rhythm/text.ts';
import { VALUE, type ValueLetter, lengthOf, valueText } from '../rhythm/value.ts';
import { addedUp } from '../sheets/material.ts';
import type { QuestionOf, SheetKind, SheetQuestion } from '../sheets/sheetQuestion.ts';
import { drawnSignName, strokeText } from './drawWords.ts';
import { OPTION_LETTERS } from './earWords.ts';
import { beatsText } from './plurals.ts';
import { offText, questionWords } from './questionWords.ts';
import { signName, spotName, stemName, stemRule } from './signWords.ts';
import { partName, workedSteps } from './sumWords.ts';
import type { Voice } from './voice.ts';
import { type NamingId, capital, inNaming, measureName, valueName, withArticle } from './valueNames.ts';

interface KindWords {
  /** Over the part. */
  readonly title: string;
  /** What it is, for who chooses. */
  readonly about: string;
  /** To the child, for `inNaming`. */
  readonly task: string;
}

/** The names of all kinds (rules §13). */
export const SHEET_WORDS = perLanguage((): Readonly<Record<SheetKind, KindWords>> => ({
  counts: {
    title: t`Write the counts`,
    about: t`write the counts under the notes and rests`,
    task: t`Write the counts under the notes and rests.`,
  },
  complete: {
    title: t`Complete the measure`,
    about: t`complete the measure with the one note or rest that is missing`,
    task: t`One note or rest is missing. Write it into the box.`,
  },
  'bar-lines': {
    title: t`Draw the bar lines`,
    about: t`draw the bar lines into a rhythm without any`,
    task: t`Draw the bar lines.`,
  },
  'wrong-measure': {
    title: t`Which measure is wrong?`,
    about: t`which measure is wrong, and by how much`,
    task: t`One {measure} of each rhythm does not add up. Circle it, and write by how much.`,
  },
  'missing-part': {
    title: t`The missing part`,
    about: t`add the missing part, so that on every beat one of two claps`,
    task: t`Two clap together: on every beat just one of them claps. Write the part that is missing.`,
  },
  'how-many': {
    title: t`How many?`,
    about: t`how many of a value are in a longer one`,
    task: t`How many? Write the number.`,
  },
  'true-false': {
    title: t`True or false?`,
    about: t`true or false: this lasts as long as that`,
    task: t`Does one side last as long as the other? Circle true or false.`,
  },
  sums: {
    title: t`Other beats`,
    about: t`sums under another beat value: how many beats together`,
    task: t`How many beats together? Look first at which value gets the beat.`,
  },
  circle: {
    title: t`Circle the signs`,
    about: t`circle all of a sign among others`,
    task: t`Circle every sign that is asked for.`,
  },
  'name-sign': {
    title: t`Name the sign`,
    about: t`name the sign: write what it is called`,
    task: t`Write the name of each sign.`,
  },
  stems: {
    title: t`Add the stems`,
    about: t`add the stems to the heads, on the right side and the right way`,
    task: t`Add the stems.`,
  },
  draw: {
    title: t`Trace and draw`,
    about: t`trace and draw: clefs, rests and notes, stroke by stroke`,
    task: t`Trace the grey signs, then draw your own.`,
  },
  choose: {
    title: t`Which one do you hear?`,
    about: t`choose A to D: answer sheet for rhythms the teacher claps`,
    task: t`Listen. Circle the letter of the rhythm you hear.`,
  },
  write: {
    title: t`Write what you hear`,
    about: t`write what you hear: empty rulers, with the list to clap from`,
    task: t`Listen. Write the rhythm; each mark is a beat.`,
  },
  strips: {
    title: t`Strips to cut`,
    about: t`strips to cut: a whole is exactly 24 cm, and its parts`,
    task: t`Cut along the lines.`,
  },
  fold: {
    title: t`The sheet to fold`,
    about: t`the sheet to fold in halves, again and again`,
    task: t`Fold it in half, and again. How many parts are there each time?`,
  },
  cards: {
    title: t`Cards`,
    about: t`cards: one cell or one measure each, the counts on the back`,
    task: t`Cut along the lines.`,
  },
  slip: {
    title: t`Practice slip`,
    about: t`a practice slip per child: a pattern, its counts and the days`,
    task: t`Clap it, and tick the day.`,
  },
}));

/** A question as it is printed by the command line. */
export interface PrintedQuestion {
  readonly prompt: string;
  /** Rhythm text of what is seen or heard. */
  readonly text?: string;
  readonly school?: string;
  readonly answer: string;
  /** The worked answer, a line a step. */
  readonly steps: readonly string[];
  /** The same as facts, for a program that checks the key. */
  readonly facts?: Readonly<Record<string, unknown>>;
}

type Words<Kind extends SheetKind> = (question: QuestionOf<Kind>, voice: Voice) => PrintedQuestion;

/** Plain counts of a pattern; the maker has seen to it that it can be counted. */
export function countsOf(pattern: Pattern, counts: CountOptions): string {
  const all = countPattern(pattern, counts);
  return all.ok ? plainCounts(all.measures) : '';
}

/** "measure 1: half on beat 1, eighth rest on beat 3 1/2", a line a measure: where each begins is what is counted. */
function countSteps(pattern: Pattern, { counts, naming }: Voice): string[] {
  const all = countPattern(pattern, counts);
  if (!all.ok) return [];
  return placePattern(pattern).map(({ events, number }, m) => {
    const starts = events.map(({ kind, value }, i) => {
      const name = partName({ kind: kind === 'rest' ? 'rest' : 'note', value }, naming);
      const { beat } = all.measures[m]!.tokens[i]!;
      return kind === 'tied' ? t`tied ${name} on ${beat}` : t`${name} on ${beat}`;
    });
    return `${measureName(naming)} ${number}: ${starts.join(', ')}`;
  });
}

function partsOf(items: readonly Item[]): Part[] {
  return items.flatMap((item): Part[] => (item.kind === 'tuplet' ? [] : [{ kind: item.kind, value: item.value }]));
}

/** How a length is added up: in beats; in compound meter, where a beat has three parts, in those. */
function amount(length: Fraction, meter: Meter, naming: NamingId): string {
  const unit = addedUp(meter);
  const many = div(length, VALUE[unit].of);
  if (meterKind(meter) !== 'compound') return beatsText(many);
  const value = { base: unit, dots: 0 } as const;
  return `${mixed(many)} ${valueName(value, naming, compare(many, ONE) > 0)}`;
}

/** "1 + 1/2 + 1/2 + 2 = 4 beats"; in 6/8 "2 + 1 + 3 = 6 eighths". */
function measureSum(items: readonly Item[], meter: Meter, naming: NamingId): string {
  const unit = VALUE[addedUp(meter)].of;
  const lengths = items.map(itemLength);
  return `${lengths.map((length) => mixed(div(length, unit))).join(' + ')} = ${amount(sum(lengths), meter, naming)}`;
}

/** "1/2 beat short", "1 beat too long"; in 6/8 "1/3 beat short (1 eighth)". */
export function offWords({ pattern, off, beat }: QuestionOf<'wrong-measure'>, naming: NamingId): string {
  const { meter } = pattern.measures[0]!;
  const length = mul(off, VALUE[beat].of);
  const said = offText(div(length, beatOf(meter).length));
  if (meterKind(meter) !== 'compound') return said;
  return `${said} (${amount(abs(length), meter, naming)})`;
}

const namesOf = (parts: readonly Part[], naming: NamingId) => parts.map((part) => partName(part, naming)).join(' + ');
const beatName = (beat: ValueLetter, naming: NamingId) => valueName({ base: beat, dots: 0 }, naming);

/** "How many eighths are in three quarters?" */
export function howManyText({ times, whole, small }: QuestionOf<'how-many'>, naming: NamingId): string {
  const name = valueName(whole, naming, times > 1);
  const what = times === 1 ? withArticle(name) : `${times} ${name}`;
  return t`How many ${valueName({ base: small, dots: 0 }, naming, true)} are in ${what}?`;
}

function howManySteps({ times, whole, small }: QuestionOf<'how-many'>, naming: NamingId): string[] {
  const each = div(lengthOf(whole), VALUE[small].of);
  const plain = div(VALUE[whole.base].of, VALUE[small].of);
  const many = (n: Fraction) => `${mixed(n)} ${valueName({ base: small, dots: 0 }, naming, n.n !== n.d)}`;
  const dot =
    whole.dots === 0
      ? []
      : [t`the dot adds half of them: ${mixed(plain)} + ${mixed(sub(each, plain))} = ${mixed(each)}`];
  return [
    `1 ${valueName({ base: whole.base, dots: 0 }, naming)} = ${many(plain)}`,
    ...dot,
    ...(times === 1 ? [] : [`${times} × ${mixed(each)} = ${mixed(mul(frac(times), each))}`]),
  ];
}

/** The measure without what is missing in it. */
function withGap({ pattern, gap }: QuestionOf<'complete'>): string {
  const { items, meter } = pattern.measures[0]!;
  const given = items.filter((_, i) => i !== gap).map(itemText);
  return `${meterText(meter)} ${given.join(' ')}`;
}

const optionTexts = ({ options }: QuestionOf<'choose'>['question']) =>
  options.map(({ answer }) => (answer.is === 'rhythm' ? answer.text : ''));

const WORDS: { readonly [Kind in SheetKind]: Words<Kind> } = {
  counts: ({ pattern }, voice) => ({
    prompt: inNaming(SHEET_WORDS().counts.task, voice.naming),
    text: printRhythm(pattern),
    school: voice.counts.school,
    answer: countsOf(pattern, voice.counts),
    steps: countSteps(pattern, voice),
  }),
  complete: (question, { naming }) => {
    const { pattern, gap, missing, beat } = question;
    const { items, meter } = pattern.measures[0]!;
    const given = partsOf(items.filter((_, i) => i !== gap));
    const all = totalBeats(partsOf(items), beat);
    const used = totalBeats(given, beat);
    const name = partName(missing, naming);
    return {
      prompt:
        missing.kind === 'rest'
          ? t`Which one rest completes this ${measureName(naming)} of ${meterText(meter)}?`
          : t`Which one note completes this ${measureName(naming)} of ${meterText(meter)}?`,
      text: withGap(question),
      answer: name,
      steps: [
        measureSum(
          items.filter((_, i) => i !== gap),
          meter,
          naming,
        ),
        `${mixed(all)} − ${mixed(used)} = ${amount(lengthOf(missing.value), meter, naming)}: ${name}`,
      ],
      facts: { value: itemText(items[gap]!), after: gap, beat },
    };
  },
  'bar-lines': ({ pattern }, { naming }) => {
    const { meter } = pattern.measures[0]!;
    const items = pattern.measures.flatMap((measure) => measure.items.map(itemText));
    return {
      prompt: SHEET_WORDS()['bar-lines'].task,
      text: `${meterText(meter)}${pattern.pickup ? ' ^' : ''} ${items.join(' ')}`,
      answer: printRhythm(pattern),
      steps: placePattern(pattern).map(
        ({ number, written }) =>
          `${measureName(naming)} ${number}: ${measureSum(pattern.measures[written]!.items, meter, naming)}`,
      ),
    };
  },
  'wrong-measure': (question, { naming }) => {
    const { pattern, index, off, beat } = question;
    return {
      prompt: inNaming(t`Which {measure} does not add up, and by how much?`, naming),
      text: printRhythm(pattern),
      answer: t`${measureName(naming)} ${index + 1} is ${offWords(question, naming)}`,
      steps: pattern.measures.map(
        ({ items, meter }, i) => `${measureName(naming)} ${i + 1}: ${measureSum(items, meter, naming)}`,
      ),
      facts: { measure: index + 1, off: mixed(off), beat },
    };
  },
  'missing-part': ({ pattern, missing }, { naming }) => ({
    prompt: SHEET_WORDS()['missing-part'].task,
    text: printRhythm(pattern),
    answer: printRhythm(missing),
    steps: placePattern(missing).map(({ number, events, meter, onset }) => {
      const unit = beatOf(meter).length;
      const free = events.flatMap(({ kind, onset: at }) =>
        kind === 'note' ? [mixed(add(div(sub(at, onset), unit), ONE))] : [],
      );
      const said = free.length === 0 ? t`no beat is free` : t`free: ${free.join(', ')}`;
      return `${measureName(naming)} ${number}: ${said}`;
    }),
  }),
  'how-many': (question, { naming }) => ({
    prompt: howManyText(question, naming),
    answer: mixed(mul(frac(question.times), div(lengthOf(question.whole), VALUE[question.small].of))),
    steps: howManySteps(question, naming),
    facts: { times: question.times, whole: valueText(question.whole), small: question.small },
  }),
  'true-false': ({ question }, { naming }) => {
    const { prompt, options, steps } = questionWords(question, naming);
    const sides = (question.sides ?? []).map(partsText);
    return { prompt, answer: options[question.answer]!, steps, facts: { sides } };
  },
  sums: ({ parts, beat }, { naming }) => ({
    prompt: t`The ${beatName(beat, naming)} gets the beat: how many beats are ${namesOf(parts, naming)}?`,
    text: partsText(parts),
    answer: beatsText(totalBeats(parts, beat)),
    steps: workedSteps(parts, beat, naming),
    facts: { beat },
  }),
  circle: (asked, { naming }) => {
    const { question } = asked;
    const { staff = [], answers = [] } = question;
    const names = staff.map(({ sign }, i) => `${i + 1} ${signName(sign, naming)}`);
    return {
      prompt: t`Circle ${circled(asked, naming)}: ${names.join(', ')}.`,
      answer: answers.map((i) => i + 1).join(', '),
      steps: questionWords(question, naming).steps,
      facts: { signs: staff.map(({ sign }) => signKey(sign)) },
    };
  },
  'name-sign': ({ question }, { naming }) => {
    const { prompt, options, steps } = questionWords(question, naming);
    const signs = (question.staff ?? []).map(({ sign }) => signKey(sign));
    return { prompt, answer: options[question.answer]!, steps, facts: { signs } };
  },
  stems: ({ heads }) => ({
    prompt: SHEET_WORDS().stems.task,
    answer: heads
      .map(
        ({ at }, i) =>
          `${i + 1} ${rightStems(at!)
            .map(stemName)
            .join(t` or `)}`,
      )
      .join('; '),
    steps: [...new Set(heads.map(({ at }) => stemRule(at!)))],
    facts: { heads: heads.map(({ at }) => at) },
  }),
  draw: ({ sign }, { naming }) => ({
    prompt: t`Trace and draw: ${drawnSignName(sign, naming)}`,
    answer: drawnSignName(sign, naming),
    steps: strokesOf(sign).map(({ says }, i) => `${i + 1} ${strokeText(says)}`),
  }),
  choose: ({ question, pattern }, { naming }) => ({
    prompt: t`Which one do you hear? ${optionTexts(question)
      .map((text, i) => `${OPTION_LETTERS[i]} ${text}`)
      .join('; ')}`,
    text: printRhythm(pattern),
    answer: OPTION_LETTERS[question.answer]!,
    steps: questionWords(question, naming).steps,
    facts: { options: optionTexts(question) },
  }),
  write: ({ pattern }, voice) => ({
    prompt: SHEET_WORDS().write.task,
    text: printRhythm(pattern),
    answer: printRhythm(pattern),
    steps: [countsOf(pattern, voice.counts)].filter((line) => line !== ''),
  }),
  strips: ({ value, many }, { naming }) => ({
    prompt: counted(many, valueName(value, naming), valueName(value, naming, true)),
    answer: t`${centimetres(lengthOf(value))} cm each`,
    steps: [t`24 cm ÷ ${many} = ${centimetres(lengthOf(value))} cm`],
  }),
  fold: ({ folds }, { naming }) => ({
    prompt: SHEET_WORDS().fold.task,
    answer: Array.from({ length: folds + 1 }, (_, i) => foldedInto(i, naming)).join(' = '),
    steps: Array.from({ length: folds }, (_, i) => t`folded ${counted(i + 1, 'time')}: ${foldedInto(i + 1, naming)}`),
  }),
  cards: ({ pattern }, voice) => ({
    prompt: t`What is on the back of this card?`,
    text: printRhythm(pattern),
    school: voice.counts.school,
    answer: countsOf(pattern, voice.counts),
    steps: [],
  }),
  slip: ({ pattern }, voice) => ({
    prompt: SHEET_WORDS().slip.task,
    text: printRhythm(pattern),
    school: voice.counts.school,
    answer: countsOf(pattern, voice.counts),
    steps: [],
  }),
};

/** A whole note as a strip of paper (rules §13, for A4 on its side). */
export const WHOLE_CM = 24;

function centimetres(length: Fraction): string {
  const cm = mul(length, frac(WHOLE_CM));
  return decimal(cm.n / cm.d);
}

const FOLDED: readonly ValueLetter[] = ['w', 'h', 'q', 'e', 's', 't'];

/** "4 quarters", after two folds. */
export function foldedInto(folds: number, naming: NamingId): string {
  const value = { base: FOLDED[folds]!, dots: 0 } as const;
  return counted(2 ** folds, valueName(value, naming), valueName(value, naming, true));
}

/** A question, its answer and how it is worked out, in the words of a class. */
export function sheetQuestionWords<Kind extends SheetKind>(
  question: QuestionOf<Kind> & SheetQuestion,
  voice: Voice,
): PrintedQuestion {
  return (WORDS[question.kind] as Words<Kind>)(question, voice);
}

/** "every quarter rest": what is to be circled. */
export function circled({ question: { asked } }: QuestionOf<'circle'>, naming: NamingId): string {
  return asked.kind === 'sign-spot' ? t`every ${spotName(asked.sign, asked.single === true, naming)}` : '';
}

/** What a sheet is called whose teacher gave it no name. */
export function sheetTitle(kinds: readonly SheetKind[]): string {
  const titles = [...new Set(kinds)].map((kind) => SHEET_WORDS()[kind].title);
  return titles.length === 0 ? t`Sheet` : titles.length < 3 ? titles.join(' · ') : capital(t`rhythm sheet`);
}
