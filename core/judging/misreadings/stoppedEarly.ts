import type { MisreadingKind } from './hypothesis.ts';

/** Found where the end of the take has no claps. */
export const stoppedEarly: MisreadingKind = {
  about: 'place',
  slip: (take, { notes }, random) => {
    const keep = Math.max(1, Math.floor(take.claps.length * (0.4 + 0.4 * random.next())));
    if (take.claps.length - keep < 2) return undefined;
    const event = notes[Math.max(0, take.claps[keep]?.note ?? 0)] ?? 0;
    take.claps = take.claps.slice(0, keep);
    return event;
  },
};
