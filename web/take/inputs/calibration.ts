import { storedThing } from '../../store/stored.ts';
import type { Seconds } from '../../../core/timing/units.ts';

/** How a child is heard. */
export type InputMethod = 'tap' | 'microphone';

/** The delay of a device, measured once by tapping or clapping along, and kept with the device. */
export interface Calibration {
  /** By so much this device hears later than the click sounds. */
  readonly delay: Seconds;
  /** Standard deviation of the taps it came from. */
  readonly spread: Seconds;
}

export const CALIBRATION_CLICKS = 16;
/** Taps this uneven tell little about the device. */
export const TOO_WIDE: Seconds = 0.045;
const FEWEST = 8;
/** What can be a delay of a device. */
const LARGEST: Seconds = 0.4;

function keptCalibration(kept: unknown): Calibration | undefined {
  const { delay, spread } = (kept ?? {}) as Partial<Calibration>;
  if (typeof delay !== 'number' || typeof spread !== 'number') return undefined;
  return Math.abs(delay) <= LARGEST ? { delay, spread } : undefined;
}

const CALIBRATIONS = {
  tap: storedThing('delay.tap', keptCalibration),
  microphone: storedThing('delay.microphone', keptCalibration),
} as const;

export function storedCalibration(method: InputMethod): Calibration | undefined {
  return CALIBRATIONS[method].read();
}

export function storeCalibration(method: InputMethod, calibration: Calibration | undefined): void {
  CALIBRATIONS[method].write(calibration);
}

/** How late this device hears; 0 where it was never measured. */
export function deviceDelay(method: InputMethod): Seconds {
  return storedCalibration(method)?.delay ?? 0;
}

/**
 * Median and spread of taps against clicks; undefined when too few taps came near a click.
 * @param clicks  rising
 */
export function calibrationOf(taps: readonly Seconds[], clicks: readonly Seconds[]): Calibration | undefined {
  const gap = clicks.length > 1 ? clicks[1]! - clicks[0]! : 1;
  const offs = clicks.flatMap((click) => {
    const near = taps
      .filter((tap) => Math.abs(tap - click) < gap / 2)
      .sort((a, b) => Math.abs(a - click) - Math.abs(b - click));
    return near[0] === undefined ? [] : [near[0] - click];
  });
  if (offs.length < FEWEST) return undefined;
  const sorted = [...offs].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  const delay = sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
  const spread = Math.sqrt(offs.reduce((sum, off) => sum + (off - delay) ** 2, 0) / offs.length);
  return Math.abs(delay) <= LARGEST ? { delay, spread } : undefined;
}

/** In the address of Take: another view, or a result, asks for the calibration first. */
export const CALIBRATE = 'calibrate';

/** The way to the calibration of this device, before the next take of a pattern. */
export function calibrationPath(patternId: string): string {
  return `/take?pattern=${patternId}&${CALIBRATE}=1`;
}
