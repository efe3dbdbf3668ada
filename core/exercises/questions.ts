import { type Random, randomFrom } from '../random.ts';
import { type Fraction, add, compare, div, equal, frac, isWhole, mixed, mul, sub, sum } from '../rhythm/fraction.ts';
import { COMMON_TIME, type Meter, beatOf, meterLength, meterText } from '../rhythm/meter.ts';
import { type NamingId, valueName, withArticle } from '../wording/valueNames.ts';
import {
  type Dots,
  type NoteValue,
  VALUE,
  VALUES,
  type ValueLetter,
  lengthOf,
  valueOfLength,
  valueText,
} from '../rhythm/value.ts';
import { MISCONCEPTIONS, type Misconception, type MisconceptionId, clapsOf, misjudged } from './misconceptions.ts';
import { type Part, beatsIn, beatsText, partName, totalBeats, workedSteps } from './valueSums.ts';

export interface Option {
  readonly text: string;
  /** The misconception that leads to it; absent for the answer, and for a plain slip. */
  readonly misconception?: MisconceptionId;
}

/** A question as data: the board and printed sheets show the same. */
export interface Question {
  readonly kind: QuestionKind;
  readonly prompt: string;
  /** Rhythm text of what the question shows; measures may be wrong on purpose. */
  readonly shows?: string;
  /** Which of the signs it shows have a dot above or below the head, by index from 0. */
  readonly staccato?: readonly number[];
  /** Of an equation: its two sides, as they lie on a balance. */
  readonly sides?: readonly [readonly Part[], readonly Part[]];
  readonly options: readonly Option[];
  /** Index of the right option. */
  readonly answer: number;
  readonly steps: readonly string[];
}

/** What a set of questions is made of. */
export interface QuestionSettings {
  readonly values: readonly ValueLetter[];
  readonly dots: boolean;
  readonly ties: boolean;
  readonly rests: boolean;
  /** The value that gets the beat. */
  readonly beat: ValueLetter;
  readonly naming: NamingId;
}

export const QUESTION_KINDS = [
  'beats',
  'how-many',
  'true-false',
  'balance',
  'claps',
  'complete',
  'wrong-measure',
  'order',
] as const;
export type QuestionKind = (typeof QUESTION_KINDS)[number];

const OPTIONS = 4;
/** The measures that questions are about have four of the chosen beats (two halves); where hardly anything fits, 4/4. */
const METERS: Readonly<Record<ValueLetter, Meter>> = {
  w: COMMON_TIME,
  h: { upper: 2, lower: 2 },
  q: COMMON_TIME,
  e: { upper: 4, lower: 8 },
  s: { upper: 4, lower: 16 },
  t: COMMON_TIME,
};
const MOST_PARTS = 8;

type Maker = (settings: QuestionSettings, random: Random) => Question | undefined;

function plainValues({ values }: QuestionSettings): ValueLetter[] {
  const known = VALUES.map(({ letter }) => letter).filter((letter) => values.includes(letter));
  return known.length > 0 ? known : ['q'];
}

function anyPart(settings: QuestionSettings, random: Random): Part {
  const base = random.pick(plainValues(settings));
  const dots: Dots = settings.dots && base !== 's' && base !== 't' && random.next() < 0.4 ? 1 : 0;
  return { kind: settings.rests && random.next() < 0.3 ? 'rest' : 'note', value: { base, dots } };
}

/** One part or more; a tie only from a note to a note. */
function anySum(settings: QuestionSettings, random: Random, most: number): Part[] {
  const parts = Array.from({ length: 1 + random.below(most) }, () => anyPart(settings, random));
  return parts.map((part, i) =>
    settings.ties && i > 0 && part.kind === 'note' && parts[i - 1]!.kind === 'note' && random.next() < 0.5
      ? { ...part, tied: true as const }
      : part,
  );
}

/** Some notes get a dot above or below the head; on a tied one it would say nothing. */
function someStaccato(parts: readonly Part[], random: Random): Part[] {
  return parts.map((part, i) => {
    const can = part.kind === 'note' && part.value.dots === 0 && !part.tied && !parts[i + 1]?.tied;
    return can && random.next() < 0.3 ? { ...part, staccato: true } : part;
  });
}

/** Rhythm text of parts, as they are shown under a question. */
export function partsText(parts: readonly Part[]): string {
  return parts
    .map(({ kind, value }, i) =>
      kind === 'rest' ? `(${valueText(value)})` : `${valueText(value)}${parts[i + 1]?.tied ? '~' : ''}`,
    )
    .join(' ');
}

/** The beat sentence; nothing where it is the usual quarter. */
function withBeat({ beat, naming }: QuestionSettings): string {
  return `when the ${valueName({ base: beat, dots: 0 }, naming)} gets the beat`;
}

/** The right option among wrong ones that misconceptions lead to, in an order from the seed; slips fill the rest. */
function optionsOf(
  rightText: string,
  wrong: readonly Option[],
  slips: readonly string[],
  random: Random,
): { options: Option[]; answer: number } | undefined {
  const seen = new Set([rightText]);
  const chosen: Option[] = [];
  for (const option of [...shuffled(wrong, random), ...slips.map((text) => ({ text }))]) {
    if (chosen.length === OPTIONS - 1 || seen.has(option.text)) continue;
    seen.add(option.text);
    chosen.push(option);
  }
  if (chosen.length < OPTIONS - 1) return undefined;
  const options = shuffled<Option>([{ text: rightText }, ...chosen], random);
  return { options, answer: options.findIndex(({ text }) => text === rightText) };
}

function shuffled<T>(list: readonly T[], random: Random): T[] {
  const mixedUp = [...list];
  for (let i = mixedUp.length - 1; i > 0; i--) {
    const k = random.below(i + 1);
    [mixedUp[i], mixedUp[k]] = [mixedUp[k]!, mixedUp[i]!];
  }
  return mixedUp;
}

function slipsAround(value: Fraction): string[] {
  return [frac(1), frac(-1, 2), frac(1, 2), frac(2), frac(3)]
    .map((off) => add(value, off))
    .filter(({ n }) => n > 0)
    .map(beatsText);
}

const beats: Maker = (settings, random) => {
  const written = anySum(settings, random, 3);
  const parts = settings.dots ? someStaccato(written, random) : written;
  const total = totalBeats(parts, settings.beat);
  const wrong = MISCONCEPTIONS.flatMap((m): Option[] => {
    const heard = misjudged(parts, settings.beat, m);
    return heard.n > 0 && !equal(heard, total) ? [{ text: beatsText(heard), misconception: m.id }] : [];
  });
  const made = optionsOf(beatsText(total), wrong, slipsAround(total), random);
  const staccato = parts.flatMap((part, i) => (part.staccato ? [i] : []));
  const what = parts.length === 1 && staccato.length === 0 ? withArticle(partName(parts[0]!, settings.naming)) : 'this';
  const steps = [
    ...workedSteps(parts, settings.beat, settings.naming),
    ...(staccato.length > 0 ? ['the dot above or below a head makes it short and adds nothing'] : []),
  ];
  return (
    made && {
      kind: 'beats',
      prompt: `How many beats does ${what} last ${withBeat(settings)}?`,
      shows: partsText(parts),
      ...(staccato.length > 0 ? { staccato } : {}),
      ...made,
      steps,
    }
  );
};

const balance: Maker = (settings, random) => {
  const left = anySum({ ...settings, ties: false }, random, 2);
  const missing = anyPart({ ...settings, rests: false }, random).value;
  const right = filled(sub(sum(left.map(({ value }) => lengthOf(value))), lengthOf(missing)), settings, random);
  if (!right || right.length === 0) return undefined;
  const made = missingValue(
    missing,
    right,
    (m) => misjudged(left, settings.beat, m),
    totalBeats(left, settings.beat),
    settings.beat,
    settings,
    random,
  );
  const before = [
    ...workedSteps(left, settings.beat, settings.naming),
    `on the other side: ${beatsText(totalBeats(right, settings.beat))}`,
  ];
  return (
    made && {
      kind: 'balance',
      prompt: 'Which value makes both sides as long?',
      shows: partsText([...left, ...right]),
      sides: [left, right],
      options: made.options,
      answer: made.answer,
      steps: [...before, made.step],
    }
  );
};

/**
 * Options for the value that is missing beside some parts, and the step that leads to it.
 * @param misheard  the beats that parts and value are to come to, for a child with a misconception
 * @param all       what they are to come to
 */
function missingValue(
  missing: NoteValue,
  given: readonly Part[],
  misheard: (misconception: Misconception) => Fraction,
  all: Fraction,
  beat: ValueLetter,
  settings: QuestionSettings,
  random: Random,
): { options: Option[]; answer: number; step: string } | undefined {
  const name = (value: NoteValue) => valueName(value, settings.naming);
  const wrong = MISCONCEPTIONS.flatMap((m): Option[] => {
    const lacks = sub(misheard(m), misjudged(given, beat, m));
    const value = lacks.n > 0 ? valueOfLength(mul(lacks, VALUE[beat].of)) : undefined;
    return value ? [{ text: name(value), misconception: m.id }] : [];
  });
  const made = optionsOf(name(missing), wrong, slipNames(settings, random), random);
  const used = totalBeats(given, beat);
  return made && { ...made, step: `${mixed(all)} − ${mixed(used)} = ${beatsText(sub(all, used))}: ${name(missing)}` };
}

/** Names of values, the chosen ones first. */
function slipNames(settings: QuestionSettings, random: Random): string[] {
  const letters = VALUES.map(({ letter }) => letter);
  return [
    ...shuffled(
      letters.filter((letter) => settings.values.includes(letter)),
      random,
    ),
    ...letters,
  ].map((letter) => valueName({ base: letter, dots: 0 }, settings.naming));
}

const claps: Maker = (settings, random) => {
  const parts = anySum(settings, random, 5);
  const tied = parts.filter((part) => part.tied).length;
  const rests = parts.filter(({ kind }) => kind === 'rest').length;
  if (tied + rests === 0 || rests === parts.length) return undefined;
  const count = (clapped: (part: Part) => number) => parts.reduce((sum, part) => sum + clapped(part), 0);
  const total = count(clapsOf);
  const wrong = MISCONCEPTIONS.flatMap(({ id, claps: clapped }): Option[] =>
    clapped ? [{ text: clapsText(count(clapped)), misconception: id }] : [],
  );
  const slips = [total + 1, total + 2, total - 1, total + 3].filter((times) => times >= 0).map(clapsText);
  const made = optionsOf(clapsText(total), wrong, slips, random);
  const steps = [
    `one clap for each note: ${parts.length - rests}`,
    ...(tied > 0 ? [`less ${tied} for what is tied on: it sounds already`] : []),
    ...(rests > 0 ? [`nothing for the ${rests === 1 ? 'rest: it is' : 'rests: they are'} counted in silence`] : []),
  ];
  return made && { kind: 'claps', prompt: 'How many claps is this?', shows: partsText(parts), ...made, steps };
};

function clapsText(times: number): string {
  return `${times} ${times === 1 ? 'clap' : 'claps'}`;
}

const howMany: Maker = (settings, random) => {
  const known = plainValues(settings);
  if (known.length < 2) return undefined;
  const big = random.below(known.length - 1);
  const small = known[big + 1 + random.below(known.length - big - 1)]!;
  const dotted =
    settings.dots && random.next() < 0.4 && compare(VALUE[small].of, mul(VALUE[known[big]!].of, frac(1, 2))) <= 0;
  const whole: NoteValue = { base: known[big]!, dots: dotted ? 1 : 0 };
  const count = div(lengthOf(whole), VALUE[small].of);
  if (!isWhole(count)) return undefined;
  const plainCount = div(VALUE[whole.base].of, VALUE[small].of);
  const wrong: Option[] = dotted
    ? [
        { text: mixed(add(plainCount, frac(1))), misconception: 'dot-one-beat' },
        { text: mixed(mul(plainCount, frac(2))), misconception: 'dot-whole-copy' },
        { text: mixed(plainCount), misconception: 'dot-ignored' },
      ]
    : [{ text: '1', misconception: 'counts-notes' }];
  const slips = [mul(count, frac(2)), add(count, frac(1)), add(count, frac(2)), add(count, frac(3))].map(mixed);
  const made = optionsOf(mixed(count), wrong, slips, random);
  const [one, many] = [valueName(whole, settings.naming), valueName({ base: small, dots: 0 }, settings.naming, true)];
  return (
    made && {
      kind: 'how-many',
      prompt: `How many ${many} are in ${withArticle(one)}?`,
      shows: valueText(whole),
      ...made,
      steps: foldSteps(whole, small, settings.naming),
    }
  );
};

/** "1 whole = 2 halves = 4 quarters": each fold doubles. */
function foldSteps(whole: NoteValue, small: ValueLetter, naming: NamingId): string[] {
  const from = VALUES.findIndex(({ letter }) => letter === whole.base);
  const to = VALUES.findIndex(({ letter }) => letter === small);
  const chain = VALUES.slice(from, to + 1).map(
    ({ letter }, i) => `${2 ** i} ${valueName({ base: letter, dots: 0 }, naming, i > 0)}`,
  );
  const half = frac(2 ** (to - from) / 2);
  return [
    chain.join(' = '),
    ...(whole.dots > 0
      ? [
          `the dot adds half of them: ${2 ** (to - from)} + ${mixed(half)} = ${mixed(add(frac(2 ** (to - from)), half))}`,
        ]
      : []),
  ];
}

const trueFalse: Maker = (settings, random) => {
  const left: Part = {
    kind: settings.rests && random.next() < 0.4 ? 'rest' : 'note',
    value: anyPart({ ...settings, rests: false }, random).value,
  };
  const rightSide = splitUp(left, random);
  if (!rightSide) return undefined;
  const trick = MISCONCEPTIONS.filter(
    (m) => m.id !== 'beat-ignored' && m.id !== 'counts-notes' && !equal(m.beats(left, 'q'), beatsIn(left.value, 'q')),
  );
  const m = trick.length > 0 && random.next() < 0.5 ? random.pick(trick) : undefined;
  const wrongLength = m && mul(m.beats(left, 'q'), frac(1, 4));
  const wrongValue = wrongLength && valueOfLength(wrongLength);
  const side: readonly Part[] = wrongValue ? [{ kind: left.kind, value: wrongValue }] : rightSide;
  const isTrue = !wrongValue;
  const names = side.map((part) => partName(part, settings.naming)).join(' + ');
  const total = totalBeats(side, settings.beat);
  return {
    kind: 'true-false',
    prompt: `True or false: ${partName(left, settings.naming)} = ${names}`,
    shows: partsText([left, ...side]),
    sides: [[left], side],
    options: isTrue
      ? [{ text: 'true' }, { text: 'false' }]
      : [{ text: 'true', misconception: m.id }, { text: 'false' }],
    answer: isTrue ? 0 : 1,
    steps: [...workedSteps([left], settings.beat, settings.naming), `on the other side: ${beatsText(total)}`],
  };
};

/** Two or three values that together last as long as a part, of the same kind. */
function splitUp({ kind, value }: Part, random: Random): Part[] | undefined {
  const halves = valueOfLength(mul(lengthOf({ base: value.base, dots: 0 }), frac(1, 2)));
  if (!halves) return undefined;
  const half: Part = { kind, value: halves };
  if (value.dots > 0) return [{ kind, value: { base: value.base, dots: 0 } }, half];
  const quarter = valueOfLength(mul(lengthOf(value), frac(1, 4)));
  return quarter && random.next() < 0.5 ? [half, { kind, value: quarter }, { kind, value: quarter }] : [half, half];
}

const complete: Maker = (settings, random) => {
  const { meter, beat, full } = measureOf(settings);
  const missing = anyPart(settings, random).value;
  const given = filled(sub(full, lengthOf(missing)), settings, random);
  if (!given || given.length === 0) return undefined;
  const all = div(full, VALUE[beat].of);
  const made = missingValue(missing, given, () => all, all, beat, settings, random);
  return (
    made && {
      kind: 'complete',
      prompt: `Which value completes this measure of ${meterText(meter)}?`,
      shows: `${meterText(meter)} ${partsText(given)}`,
      options: made.options,
      answer: made.answer,
      steps: [...workedSteps(given, beat, settings.naming), made.step],
    }
  );
};

/** The measures that fit the chosen beat, and which value their beat is. */
function measureOf({ beat }: QuestionSettings): { meter: Meter; beat: ValueLetter; full: Fraction } {
  const meter = METERS[beat];
  const { length } = beatOf(meter);
  return { meter, beat: VALUES.find(({ of }) => equal(of, length))!.letter, full: meterLength(meter) };
}

/** Parts of the chosen values that last just so long; undefined when none were found, or they are longer. */
function filled(length: Fraction, settings: QuestionSettings, random: Random): Part[] | undefined {
  const parts: Part[] = [];
  let left = length;
  for (let tries = 0; left.n > 0 && tries < MOST_PARTS * 3; tries++) {
    const part = anyPart(settings, random);
    const rest = sub(left, lengthOf(part.value));
    if (rest.n < 0 || parts.length === MOST_PARTS) continue;
    parts.push(part);
    left = rest;
  }
  return left.n === 0 ? parts : undefined;
}

const TRIES = 12;

const wrongMeasure: Maker = (settings, random) => {
  const { meter, beat, full } = measureOf(settings);
  const place = random.below(OPTIONS);
  const off = mul(random.pick([frac(-1), frac(-1, 2), frac(1, 2), frac(1)]), VALUE[beat].of);
  const measures: Part[][] = [];
  for (let tries = 0; measures.length < OPTIONS && tries < TRIES * OPTIONS; tries++) {
    const measure = filled(measures.length === place ? add(full, off) : full, settings, random);
    // With few values there are few different measures; then they may be alike.
    const isNew = measure && !measures.some((known) => partsText(known) === partsText(measure));
    if (measure && (isNew || tries > (TRIES * OPTIONS) / 2)) measures.push(measure);
  }
  if (measures.length < OPTIONS) return undefined;
  const all = div(full, VALUE[beat].of);
  const say = (i: number, by: Fraction) =>
    `measure ${i + 1}, ${beatsText(by.n < 0 ? frac(-by.n, by.d) : by)} ${by.n < 0 ? 'short' : 'too long'}`;
  const by = div(off, VALUE[beat].of);
  const wrong = MISCONCEPTIONS.flatMap((m) =>
    measures.flatMap((measure, i): Option[] => {
      const heard = sub(misjudged(measure, beat, m), all);
      return heard.n === 0 || (i === place && equal(heard, by)) ? [] : [{ text: say(i, heard), misconception: m.id }];
    }),
  );
  const slips = [say(place, frac(-by.n, by.d)), say((place + 1) % OPTIONS, by), say((place + 2) % OPTIONS, by)];
  // One slip names the right measure with a wrong amount: to find the measure is not enough.
  const made = optionsOf(say(place, by), shuffled(wrong, random).slice(0, 2), slips, random);
  const total = totalBeats(measures[place]!, beat);
  const steps = [
    `measure ${place + 1}: ${beatsText(total)}, ${say(place, by).split(', ')[1]}`,
    `the others add up to ${mixed(all)}`,
  ];
  return (
    made && {
      kind: 'wrong-measure',
      prompt: 'Which measure does not add up, and by how much?',
      shows: `${meterText(meter)} ${measures.map(partsText).join(' | ')}`,
      ...made,
      steps,
    }
  );
};

const order: Maker = (settings, random) => {
  const known = plainValues(settings);
  const pool: NoteValue[] = known.flatMap((base) => [
    { base, dots: 0 as const },
    ...(settings.dots && base !== 't' ? [{ base, dots: 1 as const }] : []),
  ]);
  const three = shuffled(pool, random).slice(0, 3);
  if (three.length < 3) return undefined;
  const text = (values: readonly NoteValue[]) => values.map((value) => valueName(value, settings.naming)).join(', ');
  const byLength = (length: (value: NoteValue) => Fraction) => [...three].sort((a, b) => compare(length(a), length(b)));
  const right = byLength(lengthOf);
  const wrong = MISCONCEPTIONS.filter(({ id }) => id.startsWith('dot')).flatMap((m): Option[] => [
    { text: text(byLength((value) => m.beats({ kind: 'note', value }, settings.beat))), misconception: m.id },
  ]);
  const slips = [[...right].reverse(), [right[1]!, right[0]!, right[2]!], [right[0]!, right[2]!, right[1]!]].map(text);
  const made = optionsOf(text(right), wrong, slips, random);
  return (
    made && {
      kind: 'order',
      prompt: 'Put these in order, the shortest first.',
      shows: three.map(valueText).join(' '),
      ...made,
      steps: right.map((value) => workedSteps([{ kind: 'note', value }], settings.beat, settings.naming)[0]!),
    }
  );
};

const MAKERS: Readonly<Record<QuestionKind, Maker>> = {
  beats,
  'how-many': howMany,
  'true-false': trueFalse,
  balance,
  claps,
  complete,
  'wrong-measure': wrongMeasure,
  order,
};

/**
 * Questions from a seed: the same seed and settings give the same ones, no two in a row of one kind where several were asked for.
 * @param kinds  which kinds; all when left out
 */
export function questions(
  settings: QuestionSettings,
  seed: number,
  count: number,
  kinds: readonly QuestionKind[] = QUESTION_KINDS,
): Question[] {
  const random = randomFrom(seed);
  const asked: Question[] = [];
  const seen = new Set<string>();
  for (let tries = 0; asked.length < count && tries < count * 60; tries++) {
    const kind = random.pick(kinds);
    if (kinds.length > 1 && kind === asked.at(-1)?.kind) continue;
    const question = MAKERS[kind](settings, random);
    const key = question && `${question.prompt} ${question.shows}`;
    // With few values there are few different questions; then they may come again.
    if (!question || (seen.has(key!) && tries < count * 30)) continue;
    seen.add(key!);
    asked.push(question);
  }
  return asked;
}
