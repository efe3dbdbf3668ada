import { type Meter, beatsInMeasure } from '../../../core/rhythm/meter.ts';

/** Counted beats of so many measures. */
export function measuresOf(meter: Meter, count: number): number {
  const { n, d } = beatsInMeasure(meter);
  return (n * count) / d;
}
