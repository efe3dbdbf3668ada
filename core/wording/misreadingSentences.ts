import { beatsInside } from '../counting/beatPlace.ts';
import { type CountedToken, countPattern, eventsOf } from '../counting/count.ts';
import { SCHOOLS } from '../counting/schools.ts';
import type { Misreading, TakeResult } from '../judging/takeResult.ts';
import { div, mixed } from '../rhythm/fraction.ts';
import { beatOf } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type PlacedEvent, placePattern, playPattern, unfold } from '../rhythm/place.ts';
import { MISREADING_WORDS, type SentenceWords } from './misreadingWords.ts';
import { placeHeading, placeText } from './places.ts';
import { beatsText, listed } from './plurals.ts';
import { restStyleOf, restsKept, spokenCount } from './saidCounts.ts';
import { inNaming, noteName, valueName } from './valueNames.ts';
import type { Voice } from './voice.ts';

/** A few words for lists: "a rest clapped". */
export function misreadingTitle(code: Misreading['code'], { naming }: Pick<Voice, 'naming'>): string {
  return inNaming(MISREADING_WORDS[code].title, naming);
}

/** What a sentence must know of the take it is about. */
export type AboutTake = Pick<TakeResult, 'notes' | 'extras' | 'misreadings' | 'withBeat'>;

/**
 * What was heard, where, and what to do, in the words of the class.
 * @param pattern  as written
 * @param take  the take in which it was found
 * @example "Measure 2, beat 3: you clapped on the rest. Open your hands and whisper “3”."
 */
export function misreadingSentence(pattern: Pattern, misreading: Misreading, take: AboutTake, voice: Voice): string {
  const { code, percent, part, instead } = misreading;
  const words = wordsFor(pattern, misreading, take, voice);
  const said = inNaming(MISREADING_WORDS[code].sentence(words), voice.naming);
  const whole = percent !== undefined || (MISREADING_WORDS[code].whole && !part);
  const place = whole ? 'The whole take' : headingOf(misreading, alike(pattern, misreading), voice);
  return `${instead ? 'Or: ' : ''}${place}: ${said}`;
}

/** The written event a misreading is about, and its place among those of its played measure. */
function eventOf(pattern: Pattern, { played, event }: Misreading) {
  const measures = playPattern(pattern);
  const inMeasure = event - measures.slice(0, played).reduce((sum, { measure }) => sum + measure.events.length, 0);
  const { measure } = measures[played]!;
  return { measure, inMeasure, event: measure.events[inMeasure]! };
}

/** How many events are written, repeats played, that could be misread just so. */
function alike(pattern: Pattern, misreading: Misreading): number {
  const { event } = eventOf(pattern, misreading);
  const same = ({ kind, value }: PlacedEvent) =>
    kind === event.kind && value.base === event.value.base && value.dots === event.value.dots;
  return playPattern(pattern).reduce((sum, { measure }) => sum + measure.events.filter(same).length, 0);
}

/** Where it was; a habit with the measures in which it came again, or that it was so each time. */
function headingOf(misreading: Misreading, outOf: number, { naming }: Voice): string {
  const { again = [] } = misreading;
  const heading = placeHeading(misreading, naming);
  if (again.length === 0) return heading;
  if (again.length > 1 && again.length + 1 >= outOf) return `${heading}, and each time after that`;
  const measures = [...new Set(again.map(({ measure }) => String(measure)))];
  if (measures.length === 1 && again.every(({ measure }) => measure === misreading.measure))
    return `${heading}, and again in the same ${inNaming('{measure}', naming)}`;
  const noun = inNaming(measures.length > 1 ? '{measure}s' : '{measure}', naming);
  return `${heading}, and again in ${noun} ${listed(measures)}`;
}

function amountOf({ beats, percent, until, kept, ms }: Misreading, { naming }: Voice): string {
  if (ms !== undefined) return `${(ms / 1000).toFixed(2).replace(/0$/, '')} seconds`;
  if (kept) return `${kept.bpm}; the click was ${kept.click}`;
  if (until) return placeText(until, naming);
  if (percent !== undefined) return `${percent} %`;
  return beats ? beatsText(beats) : '';
}

/** Nothing else was wrong: only then may a sentence say that the rhythm was right. */
function isAlone({ notes, extras, misreadings }: AboutTake): boolean {
  return (
    extras.length === 0 &&
    notes.every(({ verdict }) => verdict === 'on-time') &&
    misreadings.filter(({ instead }) => !instead).length === 1
  );
}

/** Only where the beats are numbered does what is said tell the beat too. */
function whereSaid({ beat }: CountedToken, { counts: { school } }: Voice): string {
  return SCHOOLS[school].speech?.numbered ? '' : ` (beat ${beat})`;
}

/** What a sentence can say of the event a misreading is about. */
function wordsFor(pattern: Pattern, misreading: Misreading, take: AboutTake, voice: Voice): SentenceWords {
  const { counts, naming } = voice;
  const { played } = misreading;
  const { measure, inMeasure, event } = eventOf(pattern, misreading);
  const unfolded = unfold(pattern);
  const counted = countPattern(unfolded, { ...counts, rests: restStyleOf(counts) });
  const measures = counted.ok ? counted.measures : [];
  const tokens = measures.flatMap((one) => one.tokens);
  const at = measures.slice(0, played).reduce((sum, one) => sum + one.tokens.length, 0) + inMeasure;
  const said = (token: CountedToken | undefined) => (token ? spokenCount(token) : `beat ${mixed(misreading.beat)}`);
  const after = tokens.slice(at + 1).find(({ kind }) => kind !== 'tied');
  const second = tokens.slice(at).find(({ kind, beat }) => kind === 'note' && beat.includes('/'));
  const held = eventsOf(placePattern(unfolded))[played]?.[inMeasure];
  const holds = held ? beatsInside(held).map(({ beat }) => String(beat)) : [];
  const beats = div(event.length, beatOf(measure.meter).length);
  return {
    count: said(tokens[at]),
    second: said(second ?? tokens[at]),
    next: after ? `the next ${after.kind} comes on ${said(after)}${whereSaid(after, voice)}` : 'hold it to the end',
    restKept: restsKept(tokens[at], counts),
    value: noteName(event.value, naming),
    many: valueName(event.value, naming, true),
    length: beatsText(beats),
    holds: holds.length === 0 ? 'to the end' : `on ${holds.length > 1 ? 'beats' : 'beat'} ${listed(holds)}`,
    amount: amountOf(misreading, voice),
    measures: misreading.count ?? 1,
    part: misreading.part === true,
    free: take.withBeat === null,
    alone: isAlone(take),
  };
}
