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
  const whole = percent !== undefined || MISREADING_WORDS[code].whole;
  const place = whole ? 'The whole take' : headingOf(misreading, voice);
  return `${instead ? 'Or it was this. ' : ''}${place}: ${said}`;
}

/** Where it was; a habit with the measures in which it came again. */
function headingOf(misreading: Misreading, { naming }: Voice): string {
  const { again = [] } = misreading;
  const heading = placeHeading(misreading, naming);
  if (again.length === 0) return heading;
  const measures = [...new Set(again.map(({ measure }) => String(measure)))];
  const noun = inNaming(measures.length > 1 ? '{measure}s' : '{measure}', naming);
  return `${heading}, and again in ${noun} ${listed(measures)}`;
}

function amountOf({ beats, percent, until, kept }: Misreading, { naming }: Voice): string {
  if (kept) return `${kept.bpm}; the click was ${kept.click}`;
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
