import { readStored, writeStored } from '../../ui/stored.ts';

/** The delay of a device, measured once by tapping or clapping along, and kept with the device. */
export type InputMethod = 'tap' | 'microphone';

export interface Calibration {
  /** Seconds by which this device hears later than the click sounds. */
  readonly delay: number;
  /** Standard deviation of the taps it came from. */
  readonly spread: number;
}

export const CALIBRATION_CLICKS = 16;
/** Taps this uneven tell little about the device. */
export const TOO_WIDE = 0.045;
const FEWEST = 8;
/** What can be a delay of a device, in seconds. */
const LARGEST = 0.4;

export function storedCalibration(way: InputMethod): Calibration | undefined {
  const text = readStored(`delay.${way}`);
  if (text === undefined) return undefined;
  try {
    const { delay, spread } = JSON.parse(text) as Calibration;
    return Number.isFinite(delay) && Math.abs(delay) <= LARGEST ? { delay, spread } : undefined;
  } catch {
    return undefined;
  }
}

export function storeCalibration(way: InputMethod, calibration: Calibration | undefined): void {
  writeStored(`delay.${way}`, calibration && JSON.stringify(calibration));
}

/**
 * Median and spread of taps against clicks; undefined when too few taps came near a click.
 * @param taps    seconds
 * @param clicks  seconds, rising
 */
export function calibrationOf(taps: readonly number[], clicks: readonly number[]): Calibration | undefined {
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
