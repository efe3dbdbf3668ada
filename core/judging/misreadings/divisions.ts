import { nearlyEqual } from '../../timing/tolerance.ts';
import { type Score, type ScoreEvent, isEighth } from '../scoreEvents.ts';
import { type MisreadingKind, type Hypothesis, moved, shifted } from './misreading.ts';

/** Eighth, quarter, eighth from a beat on: where the middle note stands on the half. */
function syncopationAt({ events }: Score, i: number): boolean {
  const [a, b, c] = [events[i], events[i + 1], events[i + 2]];
  return (
    a !== undefined &&
    b !== undefined &&
    c !== undefined &&
    [a, b, c].every(({ kind, division }) => kind === 'note' && division === 2) &&
    nearlyEqual(a.inBeat, 0) &&
    nearlyEqual(a.beats, 0.5) &&
    nearlyEqual(b.beats, 1) &&
    nearlyEqual(c.beats, 0.5)
  );
}

const noteAt = ({ events }: Score, time: number) =>
  events.some((event) => event.kind === 'note' && nearlyEqual(event.time, time));

export const upbeatOnBeat: MisreadingKind = {
  code: 'upbeat-on-beat',
  title: 'a note after the beat put on the beat',
  hypotheses: (written) =>
    written.events.flatMap((event, i): Hypothesis[] => {
      if (event.kind !== 'note' || event.division !== 2 || !nearlyEqual(event.inBeat, 0.5) || event.source.event.tuplet)
        return [];
      // Inside a syncopation the same claps are the syncopation straightened.
      if (syncopationAt(written, i - 1) || syncopationAt(written, i - 2)) return [];
      const half = event.beat / 2;
      return (
        [
          [-half, 4.2],
          [half, 5.4],
        ] as const
      ).flatMap(([by, cost]): Hypothesis[] =>
        noteAt(written, event.time + by) || event.time + by > written.schedule.end
          ? []
          : [
              {
                code: 'upbeat-on-beat',
                event: i,
                cost,
                apply: (claps) => moved(claps, new Map([[event.note, by]])),
              },
            ],
      );
    }),
  sentence: ({ count }) =>
    `you clapped on the beat; this note comes after it, on ${count}. Tap the beat with your foot and clap when it is up.`,
};

/** Pairs of eighths, the first on a beat: the sounded note of the second. */
function pairs({ events }: Score): ScoreEvent[] {
  return events.filter((event, i) => {
    const before = events[i - 1];
    return (
      event.kind === 'note' &&
      before?.kind === 'note' &&
      event.division === 2 &&
      isEighth(event) &&
      isEighth(before) &&
      nearlyEqual(before.inBeat, 0) &&
      nearlyEqual(event.inBeat, 0.5)
    );
  });
}

/** A swung pair is about 2 : 1: the second eighth comes a sixth of a beat late. */
const SWING = 1 / 6;
const FEWEST_PAIRS = 1;

export const eighthsUneven: MisreadingKind = {
  code: 'eighths-uneven',
  title: 'pairs of {e+} swung',
  hypotheses: (written) => {
    const swung = pairs(written);
    if (swung.length < FEWEST_PAIRS) return [];
    const by = new Map(swung.map(({ note, beat }) => [note, beat * SWING]));
    return [
      {
        code: 'eighths-uneven',
        event: written.events.indexOf(swung[0]!) - 1,
        cost: swung.length > 1 ? 3.2 : 2.2,
        apply: (claps) => moved(claps, by),
        wholeTake: true,
        subtle: true,
      },
    ];
  },
  sentence: ({ count }) =>
    `your pairs of {e+} were long and short. Make both the same length: clap the second on ${count}, just in the middle.`,
};

export const sixteenthsSlow: MisreadingKind = {
  code: 'sixteenths-slow',
  title: 'four {s+} played as {e+}',
  hypotheses: (written) =>
    written.events.flatMap((event, i): Hypothesis[] => {
      const group = written.events.slice(i, i + 4);
      if (
        group.length < 4 ||
        event.division !== 2 ||
        !nearlyEqual(event.inBeat, 0) ||
        !group.every(({ kind, beats }) => kind === 'note' && nearlyEqual(beats, 0.25))
      )
        return [];
      const slow = new Map(group.map(({ note, time }) => [note, time - event.time]));
      const from = group[3]!.end;
      const shift = { from, beats: 1, seconds: event.beat };
      return [
        {
          code: 'sixteenths-slow',
          event: i,
          cost: 4.4,
          apply: (claps) => shifted(moved(claps, slow), from, event.beat),
          shift,
        },
      ];
    }),
  sentence: () =>
    'you played the four {s+} as slowly as {e+}. All four fit into one beat: say them once on their own, then clap.',
};

export const syncopationStraightened: MisreadingKind = {
  code: 'syncopation-straightened',
  title: '{e}, {q}, {e} made straight',
  hypotheses: (written) =>
    written.events.flatMap((event, i): Hypothesis[] => {
      if (!syncopationAt(written, i)) return [];
      const [, middle, last] = [event, written.events[i + 1]!, written.events[i + 2]!];
      const half = event.beat / 2;
      const make = (note: number, by: number): Hypothesis => ({
        code: 'syncopation-straightened',
        event: i,
        cost: 4.2,
        apply: (claps) => moved(claps, new Map([[note, by]])),
      });
      return [make(last.note, -half), make(middle.note, half)];
    }),
  sentence: ({ count }) =>
    `short, long, short: you made it straight. The long note starts on the half, after ${count}, and lasts over the next beat.`,
};
