import type { QuestionSettings } from '../exercises/question.ts';
import type { SignSettings } from '../exercises/signs.ts';
import { difficultyOf } from '../making/level.ts';
import { makePattern } from '../making/makePattern.ts';
import type { Random } from '../random.ts';
import type { ElementId } from '../rhythm/elements.ts';
import { equal, frac } from '../rhythm/fraction.ts';
import type { Meter } from '../rhythm/meter.ts';
import { withoutLastTie } from '../rhythm/lastTie.ts';
import type { Measure, Pattern } from '../rhythm/pattern.ts';
import { unfold } from '../rhythm/place.ts';
import { printRhythm } from '../rhythm/text.ts';
import { VALUES, type ValueLetter } from '../rhythm/value.ts';
import type { SheetSettings } from './sheetQuestion.ts';

/** The values each element is written with. */
const VALUES_OF: Readonly<Record<ElementId, string>> = {
  quarter: 'q',
  'eighth-pair': 'e',
  'quarter-rest': 'q',
  half: 'h',
  'half-rest': 'h',
  'dotted-half': 'h',
  whole: 'w',
  tie: 'q',
  'eighth-rest': 'e',
  syncopation: 'eq',
  'dotted-quarter': 'qe',
  sixteenths: 's',
  'dotted-eighth': 'es',
  compound: 'qe',
  triplet: 'e',
};
const DOTTED: readonly ElementId[] = ['dotted-half', 'dotted-quarter', 'dotted-eighth', 'compound'];
const RESTS: readonly ElementId[] = ['quarter-rest', 'half-rest', 'eighth-rest'];
/** Two values at least, else there is nothing to compare. */
const WITH: Readonly<Record<ValueLetter, ValueLetter>> = { w: 'h', h: 'q', q: 'e', e: 'q', s: 'e', t: 's' };

/** What questions about values are made of, from the elements a class has met. */
export function valueSettings({ elements, beat }: SheetSettings): QuestionSettings {
  const letters = new Set([...elements.map((id) => VALUES_OF[id]).join('')]);
  const values = VALUES.map(({ letter }) => letter).filter((letter) => letters.has(letter));
  if (values.length === 1) values.push(WITH[values[0]!]);
  return {
    values,
    dots: elements.some((id) => DOTTED.includes(id)),
    ties: false,
    rests: elements.some((id) => RESTS.includes(id)),
    beat: beat ?? 'q',
  };
}

/** The same for questions about signs; clefs come with the first values. */
export function signSettings(settings: SheetSettings): SignSettings {
  const { values, dots, rests } = valueSettings(settings);
  return { values, dots, rests, clefs: true, beat: 'q', counts: settings.counts };
}

/** The value that is added up in a meter: that of its lower number, so in compound meter the parts of a beat. */
export function addedUp({ lower }: Meter): ValueLetter {
  return VALUES.find(({ of }) => equal(of, frac(1, lower)))?.letter ?? 'q';
}

/**
 * A pattern cut into phrases of so many measures, repeats written out; a pickup belongs to the first. What is left at
 * the end is a phrase when it has half of them.
 */
export function phrasesOf(pattern: Pattern, measures: number): Pattern[] {
  const all = unfold(pattern).measures.flatMap(singly);
  const pickup = pattern.pickup ? 1 : 0;
  const phrases: Pattern[] = [];
  for (let from = 0; from < all.length;) {
    const first = phrases.length === 0;
    const to = from + measures + (first ? pickup : 0);
    const some = all.slice(from, to);
    if (first || some.length * 2 >= measures) phrases.push(alone(some, first && pattern.pickup));
    from = to;
  }
  return phrases;
}

/** `(M3)` is three measures of rest. */
function singly(measure: Measure): Measure[] {
  const { repeatStart: _start, repeatEnd: _end, number: _number, letter: _letter, ...plain } = measure;
  return Array.from({ length: measure.rests ?? 1 }, () => (measure.rests ? { ...plain, rests: 1 } : plain));
}

/** A tie into the next phrase has nothing to lead to. */
function alone(measures: readonly Measure[], pickup: boolean): Pattern {
  const last = measures.at(-1)!;
  return { pickup, measures: measures.with(-1, { ...last, items: withoutLastTie(last.items) }) };
}

/**
 * A rhythm to ask about: the nth phrase of the teacher's patterns where there are any, else a made one.
 * @param measures  how many it should have
 */
export function rhythmFor(settings: SheetSettings, random: Random, nth: number, measures: number): Pattern | undefined {
  if (settings.patterns.length === 0) return makePattern({ ...settings, measures }, random);
  const phrases = settings.patterns.flatMap((pattern) => phrasesOf(pattern, measures));
  return phrases[nth % phrases.length];
}

interface AboutRhythm {
  readonly pattern: Pattern;
}

/** Questions about a rhythm are the same where it is, and as hard as it is. */
export const byRhythm = {
  key: ({ pattern }: AboutRhythm) => printRhythm(pattern),
  difficulty: ({ pattern }: AboutRhythm) => difficultyOf(pattern).score,
};
