import { EPSILON, nearlyEqual } from '../../timing/tolerance.ts';
import type { Beats, Seconds } from '../../timing/units.ts';
import type { ExpectedClap } from '../expectedClap.ts';
import type { Score } from '../scoreEvents.ts';
import { cellText } from './beatCells.ts';
import type { Hypothesis, MisreadingKind } from './hypothesis.ts';

/** Part of the claps that the counts and the rhythm have in common: from here on they are hardly to be told apart. */
const MUCH_ALIKE = 0.75;
const COST = { beat: 8, other: 9 };

/** Seconds of a beat of a measure in playing order. */
function beatIn({ events, measures }: Score, played: number): Seconds {
  return events.find((event) => event.played === played)?.beat ?? measures[played]!.to - measures[played]!.from;
}

/** A clap at every so many beats of each measure, those of them that are written with their notes. */
function clapsEvery(score: Score, step: (played: number) => Seconds): ExpectedClap[] {
  const noteAt = new Map(score.notes.map((index, note) => [Math.round(score.events[index]!.time / ALIKE), note]));
  return score.measures.flatMap(({ from, to }, played) => {
    const each = step(played);
    const count = Math.max(1, Math.ceil((to - from) / each - EPSILON));
    return Array.from({ length: count }, (_, k): ExpectedClap => {
      const time = from + k * each;
      return { note: noteAt.get(Math.round(time / ALIKE)) ?? -1, written: time, time };
    });
  });
}

/** Seconds: places nearer than this are the same. */
const ALIKE = 1e-4;

function everySo(score: Score, step: (played: number) => Seconds, cost: number, as?: string): Hypothesis[] {
  const claps = clapsEvery(score, step);
  const alike = claps.filter(({ note }) => note >= 0).length;
  if (alike > MUCH_ALIKE * Math.max(claps.length, score.notes.length)) return [];
  const event = score.notes[0] ?? 0;
  return [{ event, cost, apply: () => claps, wholeTake: true, alone: true, ...(as === undefined ? {} : { as }) }];
}

export const onlyTheBeat: MisreadingKind = {
  about: 'take',
  hypotheses: (score) => everySo(score, (played) => beatIn(score, played), COST.beat),
};

/** The parts of a beat, or the beats together, that children clap when they clap what they count. */
const PARTS: Readonly<Record<2 | 3, readonly (readonly [Beats, readonly Beats[]])[]>> = {
  2: [
    [1 / 2, [0, 1 / 2]],
    [1 / 4, [0, 1 / 4, 1 / 2, 3 / 4]],
  ],
  3: [[1 / 3, [0, 1 / 3, 2 / 3]]],
};
/** Every other beat, where the measure has an even number of them. */
const TWO: Beats = 2;

/** Clapped every half of the beat, every third, or every other beat, instead of the rhythm. */
export const clappedTheCounts: MisreadingKind = {
  about: 'take',
  hypotheses: (score) => {
    const [first] = score.events;
    if (!first) return [];
    const { meter } = first.source.measure;
    const even = nearlyEqual(score.beatsInMeasure % TWO, 0) && score.beatsInMeasure > TWO;
    return [
      ...PARTS[first.division].flatMap(([part, at]) =>
        everySo(score, (played) => beatIn(score, played) * part, COST.other, cellText(meter, at)),
      ),
      ...(even ? everySo(score, (played) => beatIn(score, played) * TWO, COST.other, cellText(meter, [0], TWO)) : []),
    ];
  },
};
