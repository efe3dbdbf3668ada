import type { Seconds } from '../../../core/timing/units.ts';
import type { Limb, Taken, Task } from '../taken.ts';

interface Clap {
  readonly time: Seconds;
  readonly finger: string;
  lifted: Seconds | undefined;
}

const rounded = (time: Seconds) => Math.round(time * 1e4) / 1e4;

/** To a tenth of a millisecond, rising. */
export function tidyTimes(times: readonly Seconds[]): Seconds[] {
  return times.map(rounded).sort((a, b) => a - b);
}

/** What keys and fingers did in one take; times from beat 1 of measure 1. */
export class TapInput {
  private readonly claps: Clap[] = [];
  private readonly steps: Seconds[] = [];

  /** Claps so far. */
  get count(): number {
    return this.claps.length;
  }

  /** Steps, or claps of the second part. */
  get second(): number {
    return this.steps.length;
  }

  /** @param finger  the key or pointer that does it, so that its lifting is known */
  tap(time: Seconds, limb: Limb, finger: string): void {
    if (limb === 'feet') this.steps.push(time);
    else this.claps.push({ time, finger, lifted: undefined });
  }

  lift(time: Seconds, finger: string): void {
    const held = this.claps.findLast((clap) => clap.finger === finger);
    if (held && held.lifted === undefined) held.lifted = time;
  }

  /** All of it. A key or finger that is still down when all is over held to the end. */
  taken(task: Task, ended: Seconds): Taken {
    const inOrder = [...this.claps].sort((a, b) => a.time - b.time);
    const releases = inOrder.map(({ time, lifted }) => rounded(Math.max(time, lifted ?? ended)));
    return {
      onsets: inOrder.map(({ time }) => rounded(time)),
      ...(task === 'feet' || task === 'parts' ? { feet: tidyTimes(this.steps) } : {}),
      ...(task === 'held' ? { releases } : {}),
    };
  }
}
