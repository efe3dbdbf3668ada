import type { Seconds } from '../../../core/timing/units.ts';
import type { RunningClock } from '../../audio/clickClock.ts';
import { CALIBRATION_CLICKS, type Calibration, calibrationOf } from './calibration.ts';

const BEAT: Seconds = 0.6;
/** Clicks to find the beat by. */
export const COUNT_IN = 4;
const LOOK_MS = 80;
/** After the last click a late tap is waited for. */
const AFTER: Seconds = 1;

/** The clicks to tap along with, four to find the beat before those that count. */
export const CLICKS = Array.from({ length: COUNT_IN + CALIBRATION_CLICKS }, (_, i) => ({
  time: i * BEAT,
  accent: i % 4 === 0,
}));

/** Claps instead of taps, by the clock of the clicks. */
export interface ClapSource {
  readonly onsets: () => readonly Seconds[];
  readonly stop: () => void;
}

export interface CalibratorDevices {
  readonly startClicks: (beats: readonly { time: Seconds; accent: boolean }[]) => Promise<RunningClock>;
  /** Undefined where taps are measured. */
  readonly listen: ((clock: RunningClock) => Promise<ClapSource>) | undefined;
  /** Before the clicks begin. */
  readonly ready: () => Promise<void>;
  readonly later: (action: () => void, ms: number) => void;
}

/** One run of sixteen clicks. */
export class Calibrator {
  private readonly taps: Seconds[] = [];
  private clock: RunningClock | undefined;

  constructor(private readonly devices: CalibratorDevices) {}

  /** @param timeStamp  of the event */
  tap(timeStamp: number): number {
    if (this.clock && !this.devices.listen) this.taps.push(this.clock.at(timeStamp));
    return this.taps.length;
  }

  /**
   * @param onHeard  how many so far
   * @returns what came of it; undefined when too few came with the click
   */
  async run(onHeard: (count: number) => void): Promise<Calibration | undefined> {
    if (this.devices.listen) await this.devices.ready();
    const clock = await this.devices.startClicks(CLICKS);
    this.clock = clock;
    const claps = await this.devices.listen?.(clock);
    await new Promise<void>((over) => {
      const look = () => {
        if (claps) onHeard(claps.onsets().length);
        if (clock.now() >= CLICKS.at(-1)!.time + AFTER) over();
        else this.devices.later(look, LOOK_MS);
      };
      look();
    });
    const heard = claps ? claps.onsets() : this.taps;
    claps?.stop();
    this.clock = undefined;
    return calibrationOf(
      heard,
      CLICKS.slice(COUNT_IN).map(({ time }) => time),
    );
  }
}
