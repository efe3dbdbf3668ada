import type { Random } from '../../random.ts';
import { type Fraction, add, div, equal, frac, mul, sub } from '../../rhythm/fraction.ts';
import { meterText } from '../../rhythm/meter.ts';
import { VALUE } from '../../rhythm/value.ts';
import { filled, measureOf, partsText } from '../material.ts';
import { MISCONCEPTIONS, misjudged } from '../misconceptions.ts';
import { optionsOf, shuffled } from '../options.ts';
import type { Answer, Option, QuestionMaker, QuestionSettings } from '../question.ts';
import { type Part, totalBeats } from '../valueSums.ts';

const MEASURES = 4;
const TRIES = 12;

/** Measures that are full but for one, which is off; undefined when not enough were found. */
function someMeasures(
  { full, off, place }: { full: Fraction; off: Fraction; place: number },
  settings: QuestionSettings,
  random: Random,
): Part[][] | undefined {
  const measures: Part[][] = [];
  for (let tries = 0; measures.length < MEASURES && tries < TRIES * MEASURES; tries++) {
    const measure = filled(measures.length === place ? add(full, off) : full, settings, random);
    // With few values there are few different measures; then they may be alike.
    const isNew = measure && !measures.some((known) => partsText(known) === partsText(measure));
    if (measure && (isNew || tries > (TRIES * MEASURES) / 2)) measures.push(measure);
  }
  return measures.length < MEASURES ? undefined : measures;
}

/** Which measure does not add up, and by how much? */
export const wrongMeasure: QuestionMaker = (settings, random) => {
  const { meter, beat, full } = measureOf(settings);
  const place = random.below(MEASURES);
  const beatsOff = random.pick([frac(-1), frac(-1, 2), frac(1, 2), frac(1)]);
  const measures = someMeasures({ full, off: mul(beatsOff, VALUE[beat].of), place }, settings, random);
  if (!measures) return undefined;
  const all = div(full, VALUE[beat].of);
  const say = (i: number, by: Fraction): Answer => ({ is: 'off', measure: i + 1, beats: by });
  const wrong = MISCONCEPTIONS.flatMap((m) =>
    measures.flatMap((measure, i): Option[] => {
      const heard = sub(misjudged(measure, beat, m), all);
      const isRight = i === place && equal(heard, beatsOff);
      return heard.n === 0 || isRight ? [] : [{ answer: say(i, heard), misconception: m.id }];
    }),
  );
  const other = frac(-beatsOff.n, beatsOff.d);
  const slips = [say(place, other), say((place + 1) % MEASURES, beatsOff), say((place + 2) % MEASURES, beatsOff)];
  // One slip names the right measure with a wrong amount: to find the measure is not enough.
  const made = optionsOf(say(place, beatsOff), shuffled(wrong, random).slice(0, 2), slips, random);
  const total = totalBeats(measures[place]!, beat);
  return (
    made && {
      asked: { kind: 'wrong-measure' },
      shows: `${meterText(meter)} ${measures.map(partsText).join(' | ')}`,
      ...made,
      steps: [
        { step: 'wrong-total', measure: place + 1, total, off: beatsOff },
        { step: 'others-full', beats: all },
      ],
    }
  );
};
