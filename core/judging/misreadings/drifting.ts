import type { MisreadingKind } from './hypothesis.ts';

/** Change of tempo of a child that rushes or drags, as a part. */
const RUSHES = { least: 0.07, more: 0.08 };

function drifting(side: 1 | -1): MisreadingKind {
  return {
    about: 'take',
    ofTempo: true,
    slip: (take, { notes }, random) => {
      take.drift += side * (RUSHES.least + RUSHES.more * random.next());
      return notes[0] ?? 0;
    },
  };
}

/** Found by the tempo curve of the whole take. */
export const rushing = drifting(1);
export const dragging = drifting(-1);
