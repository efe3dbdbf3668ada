import { EPSILON } from '../../timing/tolerance.ts';
import type { ExpectedClap } from '../expectedClap.ts';
import type { Score, ScoreMeasure } from '../scoreEvents.ts';
import { type MisreadingCode, type MisreadingKind, type Hypothesis, shifted } from './misreading.ts';

/** Index of the first event of a measure. */
function firstEvent({ events }: Score, measure: number): number {
  return events.findIndex(({ played }) => played === measure);
}

const without = (claps: readonly ExpectedClap[], { from, to }: ScoreMeasure) =>
  claps.filter(({ written }) => written < from - EPSILON || written >= to - EPSILON);
const soundsIn = ({ events, notes }: Score, { from, to }: ScoreMeasure) =>
  notes.some((i) => events[i]!.time >= from - EPSILON && events[i]!.time < to - EPSILON);

export const measureSkipped: MisreadingKind = {
  code: 'measure-skipped',
  title: 'a measure left out',
  hypotheses: (written) =>
    written.measures.flatMap((measure, i): Hypothesis[] => {
      const later = written.measures.slice(i + 1).some((next) => soundsIn(written, next));
      // A measure of rests that is left out is a rest that was skipped; the last measure left out is an early end.
      if (!later || !soundsIn(written, measure)) return [];
      const seconds = measure.from - measure.to;
      return [
        {
          code: 'measure-skipped',
          event: firstEvent(written, i),
          cost: 5,
          apply: (claps) => shifted(without(claps, measure), measure.to, seconds),
          shift: { from: measure.to, beats: seconds / written.beat, seconds },
        },
      ];
    }),
  sentence: () => 'you left this measure out. Follow the notes with a finger, measure by measure.',
};

export const measureRepeated: MisreadingKind = {
  code: 'measure-repeated',
  title: 'a measure played twice',
  hypotheses: (written) =>
    written.measures.flatMap((measure, i): Hypothesis[] => {
      if (!soundsIn(written, measure)) return [];
      const seconds = measure.to - measure.from;
      const again = (claps: readonly ExpectedClap[]) => {
        const inside = claps.filter(({ written: at }) => at >= measure.from - EPSILON && at < measure.to - EPSILON);
        const before = claps.filter(({ written: at }) => at < measure.to - EPSILON);
        const after = shifted(
          claps.filter(({ written: at }) => at >= measure.to - EPSILON),
          measure.to,
          seconds,
        );
        // The second time stands at the very end of the measure on paper, in its own order.
        return [
          ...before,
          ...inside.map((clap, k): ExpectedClap => ({
            note: -1,
            written: measure.to - (inside.length - k) * 1e-9,
            time: clap.time + seconds,
          })),
          ...after,
        ];
      };
      return [
        {
          code: 'measure-repeated',
          event: firstEvent(written, i),
          cost: 5,
          apply: again,
          shift: { from: measure.to, beats: seconds / written.beat, seconds },
        },
      ];
    }),
  sentence: () => 'you played this measure twice. Go straight on to the next one.',
};

/** Whole takes that came in at the wrong beat: so many beats off. */
const ENTRIES = [1, 1.5, 2, 2.5, 3, 4, 5, 6, 8] as const;

function entered(code: MisreadingCode, side: 1 | -1): MisreadingKind['hypotheses'] {
  return (written) =>
    ENTRIES.map((beats): Hypothesis => {
      const seconds = side * beats * written.beat;
      const from = written.events[written.notes[0] ?? 0]?.time ?? 0;
      return {
        code,
        event: written.notes[0] ?? 0,
        cost: Number.isInteger(beats) ? 4.5 : 5.5,
        apply: (claps) => shifted(claps, -Infinity, seconds),
        shift: { from, beats: side * beats, seconds },
        wholeTake: true,
      };
    });
}

export const enteredEarly: MisreadingKind = {
  code: 'entered-early',
  title: 'came in too early',
  hypotheses: entered('entered-early', -1),
  sentence: ({ until }) => `you came in ${until} too early; the rhythm itself was right. Wait for the whole count-in.`,
};

export const enteredLate: MisreadingKind = {
  code: 'entered-late',
  title: 'came in too late',
  hypotheses: entered('entered-late', 1),
  sentence: ({ until }) =>
    `you came in ${until} too late; the rhythm itself was right. Breathe in on the last count and start with the next beat.`,
};

function atSpeed(code: MisreadingCode, speed: number): MisreadingKind['hypotheses'] {
  return (written) => {
    const first = written.events[written.notes[0] ?? 0]?.time ?? 0;
    // From the first note, or from the bar line after a pickup: both can be where the child took its own tempo.
    return [...new Set([first, 0])].map((zero): Hypothesis => ({
      code,
      event: written.notes[0] ?? 0,
      cost: 4.5,
      apply: (claps) =>
        claps.map((clap) => ({
          note: clap.note,
          written: clap.written,
          time: zero + (clap.time - zero) / speed,
        })),
      speed,
      wholeTake: true,
    }));
  };
}

export const halfTempo: MisreadingKind = {
  code: 'half-tempo',
  title: 'at half the tempo',
  hypotheses: atSpeed('half-tempo', 0.5),
  sentence: () => 'right rhythm, at half the tempo: you gave each beat two clicks. Step with the click, then clap.',
};

export const doubleTempo: MisreadingKind = {
  code: 'double-tempo',
  title: 'at twice the tempo',
  hypotheses: atSpeed('double-tempo', 2),
  sentence: () => 'right rhythm, at twice the tempo: you put two beats on each click. Step with the click, then clap.',
};

const none = () => [];

export const rushing: MisreadingKind = {
  code: 'rushing',
  title: 'got faster',
  hypotheses: none,
  sentence: ({ until }) => `you got faster, by ${until}. Keep your feet with the click.`,
};
export const dragging: MisreadingKind = {
  code: 'dragging',
  title: 'got slower',
  hypotheses: none,
  sentence: ({ until }) => `you got slower, by ${until}. Keep your feet with the click.`,
};
export const lostAndRecovered: MisreadingKind = {
  code: 'lost-and-recovered',
  title: 'lost for a while',
  hypotheses: none,
  sentence: ({ until }) =>
    `you lost the thread here, and were right again from ${until}: well recovered. Practise just this stretch.`,
};
export const stoppedEarly: MisreadingKind = {
  code: 'stopped-early',
  title: 'the end is missing',
  hypotheses: none,
  sentence: () => 'you stopped here. Keep going to the end, even after a slip.',
};
