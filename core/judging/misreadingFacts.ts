import { frac } from '../rhythm/fraction.ts';
import { withValueNames } from '../wording/valueNames.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import type { Diagnosis } from './diagnose.ts';
import type { Follower } from './follower.ts';
import type { MisreadingCode } from './misreadings/misreading.ts';
import { MISREADINGS } from './misreadings/table.ts';
import { type Speech, beatsText, placeText, wordsFor } from '../wording/misreadingWords.ts';
import type { Score } from './scoreEvents.ts';
import { type Misreading } from './takeResult.ts';

/** Never more are shown (handbook §8). */
const MOST_NAMED = 3;
/** A tempo that changes by more than this over the take is named. */
const DRIFT_NAMED = 0.05;

interface Found {
  readonly code: MisreadingCode;
  readonly event: number;
  readonly gain: number;
  readonly until: string;
  readonly everywhere?: true;
}

/** What an diagnosis says was misread. */
function foundIn(written: Score, { hypotheses, gains, fit, lost }: Diagnosis, drift: number): Found[] {
  const { events, notes } = written;
  const eventOf = (clap: number) => {
    const from =
      fit.claps.slice(clap).find(({ note }) => note >= 0) ?? fit.claps.slice(0, clap).findLast(({ note }) => note >= 0);
    return notes[from?.note ?? 0] ?? 0;
  };
  const found: Found[] = hypotheses.map(({ code, event, shift }, i) => ({
    code,
    event,
    gain: gains[i]!,
    until: shift ? beatsText(frac(Math.round(Math.abs(shift.beats) * 2), 2)) : '',
  }));
  if (Math.abs(drift) > DRIFT_NAMED && notes.length > 0) {
    found.push({
      code: drift > 0 ? 'rushing' : 'dragging',
      event: notes[0]!,
      gain: fit.bendCertainty ** 2 / 2,
      until: `${Math.round(Math.abs(drift) * 100)} %`,
      everywhere: true,
    });
  }
  if (lost) {
    const again = events[eventOf(lost.to + 1)]!.source;
    found.push({
      code: 'lost-and-recovered',
      event: eventOf(lost.from),
      gain: lost.gain,
      until: placeText(again.measure.number, again.beat).toLowerCase(),
    });
  }
  if (fit.stopped >= 0)
    found.push({
      code: 'stopped-early',
      event: eventOf(fit.stopped),
      gain: (fit.claps.length - fit.stopped) * 4,
      until: '',
    });
  return found.sort((a, b) => b.gain - a.gain);
}

/**
 * What was misread in a take, the weightiest first, in the words of the class. Where the claps alone cannot tell two
 * misreadings apart, the other one is named after it.
 */
export function namedIn(
  pattern: Pattern,
  written: Score,
  diagnosis: Diagnosis,
  follower: Follower,
  speech: Speech,
): Misreading[] {
  const main = foundIn(written, diagnosis, follower.drift);
  const others = main.length > 0 ? (diagnosis.others ?? []).flatMap((other) => foundIn(written, other, 0)) : [];
  const seen = new Set<string>();
  return [...main, ...others.map((other) => ({ ...other, instead: true }))]
    .filter(({ code, event }) => seen.size < seen.add(`${code} ${event}`).size)
    .slice(0, MOST_NAMED)
    .map((found): Misreading => {
      const { code, event, until } = found;
      const { measure, beat } = written.events[event]!.source;
      const said = withValueNames(
        MISREADINGS[code].sentence(wordsFor(pattern, written, event, speech, until)),
        speech.naming ?? 'quarters',
      );
      const place = 'everywhere' in found ? 'The whole take' : placeText(measure.number, beat);
      return {
        code,
        measure: measure.number,
        beat,
        sentence: `${'instead' in found ? 'Or it was this. ' : ''}${place}: ${said}`,
      };
    });
}
