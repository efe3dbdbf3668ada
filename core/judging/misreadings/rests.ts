import { EPSILON, nearlyEqual } from '../../timing/tolerance.ts';
import { type Score, type ScoreEvent } from '../scoreEvents.ts';
import { type MisreadingKind, type Hypothesis, adding, shiftAfter } from './misreading.ts';

function rests({ events }: Score, make: (event: ScoreEvent, index: number) => Hypothesis[]): Hypothesis[] {
  return events.flatMap((event, i) => (event.kind === 'rest' ? make(event, i) : []));
}

/** Something sounds after this moment, so that it can come at the wrong time. */
function sounded(written: Score, after: number): boolean {
  return written.events.some(({ kind, time }) => kind === 'note' && time >= after - EPSILON);
}

/** The beats of a stretch of written time: its start, and each beat that starts in it. */
export function beatStarts({ time, end, beat, inBeat }: ScoreEvent): number[] {
  const times = [time];
  for (let at = time + (1 - inBeat) * beat; at < end - EPSILON; at += beat) times.push(at);
  return times;
}

export const restClapped: MisreadingKind = {
  code: 'rest-clapped',
  title: 'a rest clapped',
  hypotheses: (written) =>
    rests(written, (event, i) => {
      const times = beatStarts(event);
      const one = adding('rest-clapped', i, 1.6, [event.time]);
      return times.length > 1 ? [one, adding('rest-clapped', i, 2.8, times)] : [one];
    }),
  sentence: ({ count }) => `you clapped on the rest. Open your hands and whisper ${count}.`,
};

export const restSkipped: MisreadingKind = {
  code: 'rest-skipped',
  title: 'a rest given no time',
  hypotheses: (written) =>
    rests(written, (event, i) =>
      sounded(written, event.end) ? [shiftAfter('rest-skipped', i, 4.2, event, -event.beats)] : [],
    ),
  sentence: ({ count, length }) =>
    `you gave the rest no time, and all that follows came too early. Whisper ${count} for the ${length} of the rest.`,
};

export const restTooLong: MisreadingKind = {
  code: 'rest-too-long',
  title: 'a half-beat rest given a whole beat',
  hypotheses: (written) =>
    rests(written, (event, i) =>
      nearlyEqual(event.beats, 0.5) && sounded(written, event.end)
        ? [shiftAfter('rest-too-long', i, 4.2, event, 0.5)]
        : [],
    ),
  sentence: ({ count }) =>
    `the rest lasts only half a beat; you gave it a whole one. Whisper ${count} quickly and go straight on.`,
};
