import type { MisreadingKind } from './hypothesis.ts';

/** Seconds. */
const LEAST_BEAT = 0.55;

/** Found where a stretch of claps follows nothing, and all is right after it. */
export const lostAndRecovered: MisreadingKind = {
  about: 'place',
  slip: (take, { events, notes }, random) => {
    const size = 4 + random.below(3);
    const places = take.claps.length - size - 3;
    if (places < 2) return undefined;
    const from = 1 + random.below(places);
    // Where an eighth is counted, by a part of it nobody is lost.
    const off = Math.max(LEAST_BEAT, events[0]!.beat);
    const event = notes[Math.max(0, take.claps[from]?.note ?? 0)] ?? 0;
    take.claps = take.claps.map((clap, i) =>
      i < from || i >= from + size
        ? clap
        : { ...clap, time: clap.time + (random.next() < 0.5 ? -1 : 1) * off * (0.25 + 0.2 * random.next()) },
    );
    return event;
  },
};
