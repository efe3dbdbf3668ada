import { inLanguage, counted, decimal, perLanguage, t } from '../words/say.ts';
import { beatsInside } from '../counting/beatPlace.ts';
import { type CountedToken, countOnce, countPattern, eventsOf } from '../counting/count.ts';
import { COUNTING_SYSTEMS } from '../counting/countingSystems.ts';
import type { Misreading, TakeResult } from '../judging/takeResult.ts';
import {
  type Fraction,
  ONE,
  ZERO,
  add,
  compare,
  div,
  equal,
  floor,
  isWhole,
  mixed,
  sum,
  toNumber,
} from '../rhythm/fraction.ts';
import { type Meter, beatOf, beatsInMeasure, meterLength, meterText } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type PlacedEvent, type PlayedMeasure, placePattern, playPattern, unfold } from '../rhythm/place.ts';
import { spell } from '../rhythm/spell.ts';
import { parseRhythm } from '../rhythm/text.ts';
import { valueText } from '../rhythm/value.ts';
import { MISREADING_WORDS, type SentenceWords } from './misreadingWords.ts';
import { measureText, placeHeading, placeText } from './places.ts';
import { beatsText, listed } from './plurals.ts';
import { allRestsKept, restStyleOf, restsKept, spokenCount, spokenCounts } from './saidCounts.ts';
import { inNaming, measureName, noteName, valueName } from './valueNames.ts';
import type { Voice } from './voice.ts';

/** A few words for lists: "a rest clapped". */
export function misreadingTitle(code: Misreading['code'], { naming }: Pick<Voice, 'naming'>): string {
  return inNaming(MISREADING_WORDS()[code].title, naming);
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
  return inLanguage(voice.language, () => sentenceSaid(pattern, misreading, take, voice));
}

function sentenceSaid(pattern: Pattern, misreading: Misreading, take: AboutTake, voice: Voice): string {
  const { code, percent, part, instead } = misreading;
  const words = wordsFor(pattern, misreading, take, voice);
  const said = inNaming(MISREADING_WORDS()[code].sentence(words), voice.naming);
  const whole = (percent !== undefined || MISREADING_WORDS()[code].whole) && !part;
  const place = whole ? t`The whole take` : headingOf(misreading, alike(pattern, misreading), voice);
  return `${instead ? t`Or: ` : ''}${place}: ${said}`;
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
  if (again.length > 1 && again.length + 1 >= outOf) return t`${heading}, and each time after that`;
  const measures = [...new Set(again.map(({ measure }) => String(measure)))];
  if (again.every(({ played }) => played === misreading.played))
    return t`${heading}, and again in the same ${inNaming('{measure}', naming)}`;
  // A repeated measure is another one, though it has the same number.
  if (measures.length === 1 && measures[0] === String(misreading.measure))
    return t`${heading}, and again when it came back`;
  const noun = measureName(naming, measures.length > 1);
  return t`${heading}, and again in ${noun} ${listed(measures)}`;
}

/** How much of it, in clapping what is counted: by how many claps there are to a beat. */
const EVERY = perLanguage(() => [
  t`every other beat`,
  t`every other beat`,
  t`every half beat`,
  t`every third of the beat`,
  t`four to every beat`,
]);

function eventsOfText(as: string): number {
  return as === '' ? 0 : as.split(' ').length;
}

function timesAsFast({ factor }: Misreading): number {
  return factor ? Math.max(factor.n, factor.d) : 1;
}

/** So many written events what was divided otherwise takes the place of: those of a beat, or of the measure. */
function eventsInCell({ meter, events }: PlayedMeasure['measure'], first: number, { count }: Misreading): number {
  if (count !== undefined) return events.length - first;
  const end = add(events[first]!.onset, beatOf(meter).length);
  return events.filter(({ onset }, i) => i >= first && compare(onset, end) < 0).length;
}

/** What was clapped instead, as the class says it on that beat. */
function clappedInstead(meter: Meter, { as, beat, count }: Misreading, { counts }: Voice): string {
  if (as === undefined) return '';
  const [one] = spell(ZERO, beatOf(meter).length, beatOf(meter), 'rest');
  const rests = (many: number) => Array.from({ length: Math.max(0, many) }, () => `(${valueText(one!)})`);
  const before = count === undefined ? floor(beat) - 1 : 0;
  const after = count === undefined ? toNumber(beatsInMeasure(meter)) - before - 1 : 0;
  const parsed = parseRhythm(`${meterText(meter)} ${[...rests(before), as, ...rests(after)].join(' ')}`);
  if (!parsed.ok) return t`something else`;
  const said = countOnce(parsed.pattern, counts);
  const tokens = said.ok ? said.measures.flatMap((measure) => measure.tokens) : [];
  return spokenCounts(tokens.slice(before, tokens.length - after)) ?? t`something else`;
}

/** What is written from the event of a misreading on, repeats played, as long as it goes on in one way. */
function inARow(pattern: Pattern, { event: first }: Misreading, goesOn: (one: PlacedEvent, index: number) => boolean) {
  const from = playPattern(pattern)
    .flatMap(({ measure }) => measure.events.map((event) => ({ event, meter: measure.meter })))
    .slice(first);
  const end = from.findIndex(({ event }, i) => !goesOn(event, i));
  return from.slice(0, end < 0 ? undefined : end);
}

/** Rests in a row are one: how many beats they last, and whether that is a number of whole measures. */
function restsInARow(pattern: Pattern, misreading: Misreading) {
  return inARow(pattern, misreading, ({ kind }) => kind === 'rest').map(({ event: { length }, meter }) => ({
    length: div(length, beatOf(meter).length),
    whole: equal(length, meterLength(meter)),
  }));
}

/** What is held: a note with all that is tied to it. */
const OF_HOLDS: ReadonlySet<Misreading['code']> = new Set(['hold-cut', 'hold-too-long']);

/** How many beats a note lasts with all that is tied to it; undefined where nothing is. */
function tiedBeats(pattern: Pattern, misreading: Misreading): Fraction | undefined {
  const chain = inARow(pattern, misreading, ({ kind }, i) => i === 0 || kind === 'tied');
  const beat = beatOf(chain[0]!.meter).length;
  return chain.length > 1 ? div(sum(chain.map(({ event }) => event.length)), beat) : undefined;
}

/**
 * So many measures are one time through of a repeat: they lie within twice the same ones on paper, and which of them
 * were left out, or came again, nobody can hear.
 */
function isRepeat(pattern: Pattern, { played, count = 1 }: Misreading): boolean {
  const numbers = playPattern(pattern).map(({ measure }) => measure.number);
  const some = (from: number) => numbers.slice(from, from + count).join(' ');
  return Array.from({ length: count + 1 }, (_, back) => played - back).some(
    (from) => from >= 0 && from + 2 * count <= numbers.length && some(from) === some(from + count),
  );
}

const OF_RESTS: ReadonlySet<Misreading['code']> = new Set(['rest-skipped', 'rest-too-short', 'rest-too-long']);

/** In measures where rests of whole measures are written, else in beats. */
function restsText(rests: ReturnType<typeof restsInARow>, beats: Fraction, { naming }: Voice): string {
  const measures = div(beats, rests[0]?.length ?? ONE);
  if (rests.length < 2 || !rests.every(({ whole }) => whole) || !isWhole(measures)) return beatsText(beats);
  return counted(measures.n, measureName(naming), measureName(naming, true));
}

function lengthOf(pattern: Pattern, misreading: Misreading, beats: Fraction, voice: Voice): string {
  if (!OF_RESTS.has(misreading.code)) return beatsText(beats);
  const rests = restsInARow(pattern, misreading);
  return restsText(rests, sum(rests.map(({ length }) => length)), voice);
}

function amountOf(pattern: Pattern, misreading: Misreading, voice: Voice): string {
  const { code, beats, percent, until, kept, ms } = misreading;
  const { naming } = voice;
  if (ms !== undefined) return t`${decimal((ms / 1000).toFixed(2).replace(/0$/, ''))} seconds`;
  if (kept) return t`${kept.bpm} beats a minute; the click was at ${kept.click}`;
  if (until) return placeText(until, naming);
  if (percent !== undefined) return `${percent} %`;
  if (!beats) return '';
  return OF_RESTS.has(code) ? restsText(restsInARow(pattern, misreading), beats, voice) : beatsText(beats);
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
  return COUNTING_SYSTEMS()[school].speech?.numbered ? '' : t` (beat ${beat})`;
}

/** What a sentence can say of the event a misreading is about. */
function wordsFor(pattern: Pattern, misreading: Misreading, take: AboutTake, voice: Voice): SentenceWords {
  const { counts, naming } = voice;
  const { played } = misreading;
  const { measure, inMeasure, event } = eventOf(pattern, misreading);
  const unfolded = unfold(pattern);
  const paper = countPattern(unfolded, { ...counts, rests: restStyleOf(counts) });
  const measures = paper.ok ? paper.measures : [];
  const tokens = measures.flatMap((one) => one.tokens);
  const at = measures.slice(0, played).reduce((sum, one) => sum + one.tokens.length, 0) + inMeasure;
  const said = (token: CountedToken | undefined) => (token ? spokenCount(token) : t`beat ${mixed(misreading.beat)}`);
  // Rests in a row are one rest, and what comes next is the note after them.
  const run = OF_RESTS.has(misreading.code) ? restsInARow(pattern, misreading).length : 0;
  const after = tokens.slice(at + Math.max(1, run)).find(({ kind }) => kind !== 'tied');
  const second = tokens.slice(at).find(({ kind, beat }) => kind === 'note' && beat.includes('/'));
  const held = eventsOf(placePattern(unfolded))[played]?.[inMeasure];
  const holds = held ? beatsInside(held).map(({ beat }) => String(beat)) : [];
  const tied = OF_HOLDS.has(misreading.code) ? tiedBeats(pattern, misreading) : undefined;
  const beats = tied ?? div(event.length, beatOf(measure.meter).length);
  const cell = tokens.slice(at, at + eventsInCell(measure, inMeasure, misreading));
  return {
    clapped: clappedInstead(measure.meter, misreading, voice),
    written: spokenCounts(cell) ?? t`another rhythm`,
    every: EVERY()[eventsOfText(misreading.as ?? '')] ?? EVERY()[0]!,
    since: played === 0 ? '' : t` from ${measureText(misreading, naming)} on`,
    factor: timesAsFast(misreading),
    count: said(tokens[at]),
    second: said(second ?? tokens[at]),
    next: after ? t`the next ${after.kind} comes on ${said(after)}${whereSaid(after, voice)}` : t`hold it to the end`,
    restKept: run > 1 ? allRestsKept(tokens.slice(at, at + run), counts) : restsKept(tokens[at], counts),
    value: tied ? t`tied note` : noteName(event.value, naming),
    isRepeat: isRepeat(pattern, misreading),
    inPlace: misreading.beats?.n === 0,
    many: valueName(event.value, naming, true),
    length: lengthOf(pattern, misreading, beats, voice),
    holds:
      holds.length === 0
        ? t`to the end`
        : holds.length > 1
          ? t`on beats ${listed(holds)}`
          : t`on beat ${listed(holds)}`,
    amount: amountOf(pattern, misreading, voice),
    measures: misreading.count ?? 1,
    part: misreading.part === true,
    free: take.withBeat === null,
    alone: isAlone(take),
  };
}
