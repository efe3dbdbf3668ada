import type { Scale } from '../core/judging/scale.ts';
import type { Misreading, TakeResult } from '../core/judging/takeResult.ts';
import type { Together } from '../core/judging/together.ts';
import { mixed } from '../core/rhythm/fraction.ts';
import type { Pattern } from '../core/rhythm/pattern.ts';
import type { Score } from '../core/rhythm/score.ts';
import type { PlayedPlace } from '../core/timing/schedule.ts';
import { feetAndHoldsSentences } from '../core/wording/feetAndHolds.ts';
import { misreadingSentence } from '../core/wording/misreadingSentences.ts';
import { PLAIN_VOICE } from '../core/wording/voice.ts';
import { printedMark } from './markScale.ts';

/** A place as it is printed: the beat a mixed number. */
export function printPlace({ measure, beat, timeThrough }: PlayedPlace) {
  return { measure, beat: mixed(beat), ...(timeThrough === undefined ? {} : { time: timeThrough }) };
}

/** How much, of whatever it is. */
function amountsOf({ beats, percent, count, ms, as, factor }: Misreading) {
  return {
    ...(beats === undefined ? {} : { beats: mixed(beats) }),
    ...(percent === undefined ? {} : { percent }),
    ...(count === undefined ? {} : { count }),
    ...(ms === undefined ? {} : { ms }),
    ...(as === undefined ? {} : { as }),
    ...(factor === undefined ? {} : { factor: mixed(factor) }),
  };
}

function printedMisreading(misreading: Misreading) {
  const { code, until, again } = misreading;
  return {
    code,
    ...printPlace(misreading),
    ...amountsOf(misreading),
    ...(until ? { until: printPlace(until) } : {}),
    ...(again ? { again: again.map(printPlace) } : {}),
  };
}

/** How together the parts were: the part that leads by its name. */
export function printedTogether({ parts }: Score, { apartMs, shared, worst, leads }: Together): object {
  return {
    apartMs,
    shared,
    worst: { ...printPlace(worst), apartMs: worst.apartMs },
    ...(leads ? { leads: { part: parts[leads.part]!.name, byMs: leads.byMs } } : {}),
  };
}

/** The result of a take as `score` prints it: beats as mixed numbers, every misreading with its sentence. */
export function printResult(result: TakeResult, pattern: Pattern, scale: Scale): object {
  const { notes, extras, misreadings, tempo, follow, withBeat, heard, accuracy, mark, feet, holds } = result;
  return {
    notes: notes.map(({ index, verdict, errorMs, ...place }) => ({
      index,
      ...printPlace(place),
      verdict,
      ...(errorMs === undefined ? {} : { errorMs }),
    })),
    extras: extras.map(({ seconds, measure, beat, kind }) => ({ time: seconds, measure, beat: mixed(beat), kind })),
    misreadings: misreadings.map((misreading) => ({
      ...printedMisreading(misreading),
      sentence: misreadingSentence(pattern, misreading, result, PLAIN_VOICE),
    })),
    tempo,
    follow: follow.map(({ fromNote, beatsAhead }) => ({ fromNote, beatsAhead: mixed(beatsAhead) })),
    withBeat,
    heard,
    accuracy,
    mark: printedMark(mark, scale),
    ...(feet ? { feet: { ...feet, misreadings: feet.misreadings.map(printedMisreading) } } : {}),
    ...(holds ? { holds } : {}),
    ...(feet || holds ? { sentences: feetAndHoldsSentences(result, PLAIN_VOICE) } : {}),
  };
}
