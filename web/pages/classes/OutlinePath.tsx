import type { Seconds } from '../../../core/timing/units.ts';
import type { Outline } from '../../audio/listenMessages.ts';

const WIDTH = 1000;
const HALF = 50;
const LOUDEST = 48;
/** What is softer than this is drawn as soft, not stretched. */
const LEAST_PEAK = 0.05;

interface OutlinePathProps {
  readonly outline: Outline;
  /** The time that is shown. */
  readonly span: { readonly from: Seconds; readonly to: Seconds };
}

/** The outline of a sound, over a span of time. */
export function OutlinePath({ outline: { peaks, stepSeconds, from: start }, span: { from, to } }: OutlinePathProps) {
  const most = peaks.reduce((a, b) => Math.max(a, b), LEAST_PEAK);
  const stepAt = (pixel: number) => Math.floor((from + (pixel / WIDTH) * (to - from) - start) / stepSeconds);
  const heights = Array.from({ length: WIDTH }, (_, x) => {
    const last = Math.min(peaks.length, Math.max(stepAt(x) + 1, stepAt(x + 1)));
    let peak = 0;
    for (let k = Math.max(0, stepAt(x)); k < last; k++) peak = Math.max(peak, peaks[k]!);
    return (peak / most) * LOUDEST;
  });
  const up = heights.map((y, x) => `${x} ${HALF - y}`);
  const down = heights.map((y, x) => `${x} ${HALF + y}`).reverse();
  return (
    <svg className="clap-outline" viewBox={`0 0 ${WIDTH} ${2 * HALF}`} preserveAspectRatio="none" aria-hidden>
      <path d={`M${[...up, ...down].join(' L')} Z`} />
    </svg>
  );
}
