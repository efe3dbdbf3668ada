import type { MisreadingKind } from './hypothesis.ts';

/** Found where nothing known explains the take. */
export const anotherRhythm: MisreadingKind = {
  about: 'take',
  slip: (take, { notes, beat }, random) => {
    if (take.claps.length < 8) return undefined;
    // Its own claps, on halves of the beat anywhere between the first and the last.
    const [from, to] = [take.claps[0]!.time, take.claps.at(-1)!.time];
    const places = Math.floor((to - from) / (beat / 2));
    const chosen = new Set(take.claps.map(() => random.below(places + 1)));
    take.claps = [...chosen]
      .sort((a, b) => a - b)
      .map((k) => ({ note: -1, written: from + (k * beat) / 2, time: from + (k * beat) / 2 }));
    return notes[0];
  },
};
