import {
  type SimulatedChild,
  simulateReleases,
  simulateSteps,
  simulateTake,
} from '../../../core/judging/simulatedChild.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import type { Bpm } from '../../../core/timing/units.ts';
import { hearPractice } from '../../audio/recordings.ts';
import type { Taken, Task } from '../../take/taken.ts';

/** So many beats before the rhythm the microphone begins to listen: room for a child that comes in early. */
const BEATS_BEFORE = 6;

/**
 * A take of the practice child: its hands are made to sound, and heard as a microphone would hear them, in a worker.
 */
export async function practise(
  pattern: Pattern,
  bpm: Bpm,
  child: SimulatedChild,
  task: Task,
  seed: number,
): Promise<Taken> {
  const before = (60 / bpm) * BEATS_BEFORE;
  const claps = simulateTake(pattern, bpm, child, seed)
    .map((time) => time + before)
    .filter((time) => time > 0);
  const heard = await hearPractice(claps, seed);
  const onsets = heard.onsets.map((time) => Math.round((time - before) * 1e4) / 1e4);
  return {
    onsets,
    ...(task === 'feet' ? { feet: simulateSteps(pattern, bpm, child, seed) } : {}),
    ...(task === 'held' ? { releases: simulateReleases(pattern, bpm, onsets, child, seed) } : {}),
  };
}
