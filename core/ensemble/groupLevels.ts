import { BandLevels } from '../listening/bandLevels.ts';
import type { GroupPower } from './density.ts';

/**
 * Edges between the groups of bands, Hz. Below them are tables and vowels; in the first still voices, in the second
 * claps, above what small microphones and far claps lack.
 */
const GROUP_EDGES_HZ = [900, 2200, 5600] as const;
/** Of the mean power: nothing is quieter. */
const LEAST_FLOOR = 1e-4;
/** Part of the frames that lie below what surrounds a class, where there is nothing before it. */
const FLOOR_PART = 0.08;
/** Seconds before the class begins from which on what surrounds it is measured there. */
const ENOUGH_BEFORE = 0.3;

/** How loud a sound is, frame after frame, in groups of bands: what the density of strikes is read from. */
export class GroupLevels {
  private readonly bands: BandLevels;
  private readonly ring: Float32Array;
  private readonly groups: readonly (readonly number[])[];
  private readonly levels: number[][];
  private written = 0;

  constructor(readonly sampleRate: number) {
    this.bands = new BandLevels(sampleRate);
    this.ring = new Float32Array(2 ** Math.ceil(Math.log2(sampleRate * 0.25)));
    const edges = this.bands.bandEdgesHz;
    const found = GROUP_EDGES_HZ.map((from, g) => {
      const to = GROUP_EDGES_HZ[g + 1] ?? Infinity;
      return edges.slice(0, -1).flatMap((hz, b) => (hz >= from * 0.95 && hz < to * 0.95 ? [b] : []));
    });
    // A microphone that hears nothing so high: the group below stands for it.
    this.groups = found.map((group, g) =>
      group.length > 0 ? group : found.slice(0, g).findLast((one) => one.length > 0)!,
    );
    this.levels = GROUP_EDGES_HZ.map(() => []);
  }

  /** Seconds from one frame to the next, and from the beginning of the sound to the middle of the first. */
  get hop(): number {
    return this.bands.hop / this.sampleRate;
  }
  get middle(): number {
    return this.bands.size / 2 / this.sampleRate;
  }
  get frames(): number {
    return this.bands.frames;
  }

  push(samples: Float32Array): void {
    const { ring, bands } = this;
    const mask = ring.length - 1;
    for (const sample of samples) {
      ring[this.written++ & mask] = sample;
      if (this.written < bands.frames * bands.hop + bands.size) continue;
      bands.take(ring, bands.frames * bands.hop);
      const levels = bands.levels(bands.frames - 1);
      this.groups.forEach((group, g) =>
        this.levels[g]!.push(group.reduce((sum, b) => sum + levels[b]!, 0) / group.length),
      );
    }
  }

  /**
   * Power of each group from one frame to another, its mean 1, and of what surrounds the class.
   * @param quiet  frames from here to before `from` have no claps in them
   */
  powers(from: number, to: number, quiet: number): GroupPower[] {
    return this.levels.map((levels) => {
      const power = Float64Array.from(levels.slice(from, to), (db) => 10 ** (db / 10));
      const mean = power.reduce((sum, one) => sum + one, 0) / Math.max(1, power.length) + 1e-15;
      const before = levels.slice(quiet, from).map((db) => 10 ** (db / 10));
      const sorted = power.toSorted();
      const floor =
        before.length * this.hop >= ENOUGH_BEFORE
          ? before.reduce((sum, one) => sum + one, 0) / before.length
          : (sorted[Math.floor(FLOOR_PART * sorted.length)] ?? 0);
      return { power: power.map((one) => one / mean), floor: floor / mean + LEAST_FLOOR };
    });
  }
}
