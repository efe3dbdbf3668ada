import type { MisreadingKind } from './hypothesis.ts';

/** Found where a stretch of claps follows nothing, and all is right after it. */
export const lostAndRecovered: MisreadingKind = {
  about: 'place',
  slip: (take, { events, notes }, random) => {
    const size = 4 + random.below(3);
    const places = take.claps.length - size - 3;
    if (places < 2) return undefined;
    const from = 1 + random.below(places);
    const { beat } = events[0]!;
    const event = notes[Math.max(0, take.claps[from]?.note ?? 0)] ?? 0;
    take.claps = take.claps.map((clap, i) =>
      i < from || i >= from + size
        ? clap
        : { ...clap, time: clap.time + (random.next() < 0.5 ? -1 : 1) * beat * (0.25 + 0.2 * random.next()) },
    );
    return event;
  },
};
