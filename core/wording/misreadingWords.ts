import { beatsInside } from '../counting/beatPlace.ts';
import { type CountOptions, countPattern, eventsOf } from '../counting/count.ts';
import { compare, div, mixed, ONE } from '../rhythm/fraction.ts';
import { type NamingId, restName, valueName } from './valueNames.ts';
import { beatOf } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { placePattern, unfold } from '../rhythm/place.ts';
import type { SentenceWords } from '../judging/misreadings/misreading.ts';
import type { Score } from '../judging/scoreEvents.ts';

/** How a class speaks: the sentences are in its own words. */
export interface Speech {
  readonly counts?: CountOptions | undefined;
  readonly naming?: NamingId | undefined;
}

/** "Measure 2, beat 3"; a pickup has no number. */
export function placeText(measure: number, beat: string): string {
  return measure === 0 ? `Pickup, beat ${beat}` : `Measure ${measure}, beat ${beat}`;
}

/** "1 beat", "1 1/2 beats". */
export function beatsText(beats: { readonly n: number; readonly d: number }): string {
  return `${mixed(beats)} ${compare(beats, ONE) > 0 ? 'beats' : 'beat'}`;
}

function listed(words: readonly string[]): string {
  return words.length < 2 ? (words[0] ?? 'the beat') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}

/**
 * What a sentence can say of a written event, in the words of the class.
 * @param until  of a stretch or a whole take, see SentenceWords
 */
export function wordsFor(
  pattern: Pattern,
  written: Score,
  index: number,
  { counts = { school: 'numbers' }, naming = 'quarters' }: Speech,
  until: string,
): SentenceWords {
  const event = written.events[index]!;
  const played = unfold(pattern);
  const inMeasure = index - written.events.findIndex(({ played: measure }) => measure === event.played);
  const counted = countPattern(played, { ...counts, rests: 'parens' });
  const token = counted.ok ? counted.measures[event.played]?.tokens[inMeasure]?.text : undefined;
  const said = (token ?? '').replace(/^[(-]|\)$/g, '') || event.source.beat;
  const { event: placed, measure } = event.source;
  const name = placed.wholeMeasure ? 'whole-measure' : valueName(placed.value, naming);
  const held = eventsOf(placePattern(played))[event.played]?.[inMeasure];
  return {
    count: `“${said}”`,
    value: event.kind === 'rest' ? (placed.wholeMeasure ? 'measure of rest' : restName(placed.value, naming)) : name,
    length: beatsText(div(placed.length, beatOf(measure.meter).length)),
    holds: listed((held ? beatsInside(held) : []).map(({ beat }) => String(beat))),
    until,
  };
}
