import type { MisreadingKind } from './hypothesis.ts';

/** Found by looking for the tempo of the take as if there were no click (`ownPaces`). */
export const ownTempo: MisreadingKind = {
  about: 'take',
  needsClick: true,
  slip: (take, { notes }, random) => {
    const pace = random.next() < 0.5 ? 1.2 + 0.4 * random.next() : 0.62 + 0.2 * random.next();
    take.claps = take.claps.map((clap) => ({ ...clap, time: clap.time * pace }));
    return notes[0];
  },
};
