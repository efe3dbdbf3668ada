import { EPSILON, nearlyEqual } from '../../timing/tolerance.ts';
import { type Score, type ScoreEvent } from '../scoreEvents.ts';
import { type MisreadingKind, type Hypothesis, adding, shiftAfter } from './misreading.ts';
import { beatStarts } from './rests.ts';

/** A note that is dotted and lasts one and a half beats: the dotted quarter where the quarter gets the beat. */
function isDotted({ kind, beats, division, source: { event } }: ScoreEvent): boolean {
  return kind !== 'rest' && division === 2 && event.value.dots === 1 && !event.tuplet && nearlyEqual(beats, 1.5);
}

function eachEvent(
  { events }: Score,
  make: (event: ScoreEvent, index: number) => Hypothesis | undefined,
): Hypothesis[] {
  return events.flatMap((event, i) => make(event, i) ?? []);
}

function followed({ events }: Score, index: number): boolean {
  return events.some(({ kind }, i) => i > index && kind === 'note');
}

export const dotTooLong: MisreadingKind = {
  code: 'dot-too-long',
  title: 'a dotted {q} held two beats',
  hypotheses: (written) =>
    eachEvent(written, (event, i) =>
      isDotted(event) && followed(written, i) ? shiftAfter('dot-too-long', i, 4.2, event, 0.5) : undefined,
    ),
  sentence: ({ value, length, count }) =>
    `you held the ${value} two beats. It lasts ${length}: say ${count} and clap the next note on the half.`,
};

export const dotTooShort: MisreadingKind = {
  code: 'dot-too-short',
  title: 'a dot ignored',
  hypotheses: (written) =>
    eachEvent(written, (event, i) =>
      isDotted(event) && followed(written, i) ? shiftAfter('dot-too-short', i, 4.2, event, -0.5) : undefined,
    ),
  sentence: ({ value, length, count }) =>
    `you left out the dot. The ${value} lasts ${length}: say ${count} before you go on.`,
};

export const tieRestruck: MisreadingKind = {
  code: 'tie-restruck',
  title: 'a tied-on note clapped',
  hypotheses: (written) =>
    eachEvent(written, (event, i) =>
      event.kind === 'tied' ? adding('tie-restruck', i, 1.4, [event.time]) : undefined,
    ),
  sentence: () => 'you clapped the tied-on note. It only goes on: keep your hands together and push them forward.',
};

export const holdPulsed: MisreadingKind = {
  code: 'hold-pulsed',
  title: 'each beat of a long note clapped',
  hypotheses: (written) =>
    eachEvent(written, (event, i) => {
      const pulses = event.kind === 'note' ? beatStarts(event).slice(1) : [];
      return pulses.length > 0 ? adding('hold-pulsed', i, event.beats > 2 - EPSILON ? 1.6 : 2.8, pulses) : undefined;
    }),
  sentence: ({ value, holds }) =>
    `you clapped each beat of the ${value}. Clap once, keep your hands together and push on ${holds}.`,
};

export const holdCut: MisreadingKind = {
  code: 'hold-cut',
  title: 'a long note left a beat early',
  hypotheses: (written) =>
    eachEvent(written, (event, i) =>
      event.kind !== 'rest' && event.beats > 2 - EPSILON && followed(written, i)
        ? shiftAfter('hold-cut', i, 4.2, event, -1)
        : undefined,
    ),
  sentence: ({ value, length, holds }) =>
    `you left the ${value} a beat early. It lasts ${length}: push on ${holds} before you go on.`,
};
