import { randomFrom } from '../random.ts';
import { limit, synthesise } from '../sound/sounds.ts';
import type { Seconds } from '../timing/units.ts';

/** Hands differ: each is higher or lower than the middle one by so much at most, as a factor. */
const HIGHEST = 1.22;
/** How loud one clap is among few; many are as loud together as a few, by the square root. */
const ALONE = 0.8;

/** A clap of one child: the app's own, by other hands. */
function clapOf(child: number, sampleRate: number): Float32Array {
  const clap = synthesise({ kind: 'clap' }, sampleRate);
  const factor = HIGHEST ** (2 * randomFrom(child + 1).next() - 1);
  return Float32Array.from({ length: Math.floor((clap.length - 1) / factor) }, (_, i) => {
    const at = i * factor;
    const before = Math.floor(at);
    return clap[before]! + (at - before) * (clap[before + 1]! - clap[before]!);
  });
}

/** Where a child sits, 0 at the left to 1 at the right: in the order of the list, from one side to the other. */
const seatOf = (child: number, children: number) => (children < 2 ? 0.5 : child / (children - 1));

/**
 * Everybody's claps in one sound: each child from its own place between left and right, as loud as each other.
 * @param takes  a child each; seconds from the first sample. What lies outside of the sound is not heard.
 * @param under  what sounds in the middle beneath them, such as the beat; as long as the sound is to be
 * @returns left and right
 */
export function concert(
  takes: readonly (readonly Seconds[])[],
  under: Float32Array,
  sampleRate: number,
): [Float32Array, Float32Array] {
  const sides: [Float32Array, Float32Array] = [under.slice(), under.slice()];
  const level = ALONE / Math.sqrt(Math.max(1, takes.length / 2));
  takes.forEach((times, child) => {
    const clap = clapOf(child, sampleRate);
    const angle = (seatOf(child, takes.length) * Math.PI) / 2;
    const levels = [level * Math.cos(angle), level * Math.sin(angle)] as const;
    for (const time of times) {
      const first = Math.round(time * sampleRate);
      for (let i = Math.max(0, -first); i < clap.length && first + i < under.length; i++)
        for (const side of [0, 1] as const) sides[side][first + i]! += levels[side] * clap[i]!;
    }
  });
  return [sides[0].map(limit), sides[1].map(limit)];
}
