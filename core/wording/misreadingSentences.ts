import { beatsInside } from '../counting/beatPlace.ts';
import { countPattern, eventsOf } from '../counting/count.ts';
import type { Misreading } from '../judging/takeResult.ts';
import { div, mixed } from '../rhythm/fraction.ts';
import { beatOf } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { placePattern, playPattern, unfold } from '../rhythm/place.ts';
import { MISREADING_WORDS, type SentenceWords } from './misreadingWords.ts';
import { placeHeading, placeText } from './places.ts';
import { beatsText, listed } from './plurals.ts';
import { inNaming, restName, valueName } from './valueNames.ts';
import type { Voice } from './voice.ts';

/** A few words for lists: "a rest clapped". */
export function misreadingTitle(code: Misreading['code'], { naming }: Pick<Voice, 'naming'>): string {
  return inNaming(MISREADING_WORDS[code].title, naming);
}

/**
 * What was heard, where, and what to do, in the words of the class.
 * @param pattern  as written
 * @example "Measure 2, beat 3: you clapped on the rest. Open your hands and whisper “3”."
 */
export function misreadingSentence(pattern: Pattern, misreading: Misreading, voice: Voice): string {
  const { code, percent, instead } = misreading;
  const said = inNaming(MISREADING_WORDS[code].sentence(wordsFor(pattern, misreading, voice)), voice.naming);
  const place = percent === undefined ? placeHeading(misreading, voice.naming) : 'The whole take';
  return `${instead ? 'Or it was this. ' : ''}${place}: ${said}`;
}

function amountOf({ beats, percent, until }: Misreading, { naming }: Voice): string {
  if (until) return placeText(until, naming);
  if (percent !== undefined) return `${percent} %`;
  return beats ? beatsText(beats) : '';
}

/** What a sentence can say of the event a misreading is about. */
function wordsFor(pattern: Pattern, misreading: Misreading, voice: Voice): SentenceWords {
  const { counts, naming } = voice;
  const measures = playPattern(pattern);
  const unfolded = unfold(pattern);
  const { played } = misreading;
  const before = measures.slice(0, played).reduce((sum, { measure }) => sum + measure.events.length, 0);
  const inMeasure = misreading.event - before;
  const { measure } = measures[played]!;
  const event = measure.events[inMeasure]!;
  const counted = countPattern(unfolded, { ...counts, rests: 'parens' });
  const token = counted.ok ? counted.measures[played]?.tokens[inMeasure]?.text : undefined;
  const said = (token ?? '').replace(/^[(-]|\)$/g, '') || mixed(misreading.beat);
  const rest = event.wholeMeasure ? `${inNaming('{measure}', naming)} of rest` : restName(event.value, naming);
  const held = eventsOf(placePattern(unfolded))[played]?.[inMeasure];
  const holds = held ? beatsInside(held).map(({ beat }) => String(beat)) : [];
  return {
    count: `“${said}”`,
    value: event.kind === 'rest' ? rest : valueName(event.value, naming),
    length: beatsText(div(event.length, beatOf(measure.meter).length)),
    holds: listed(holds) || 'the beat',
    amount: amountOf(misreading, voice),
  };
}
