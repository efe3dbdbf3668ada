import { toNumber } from '../../core/rhythm/fraction.ts';
import { playPattern } from '../../core/rhythm/place.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import type { Outline } from '../audio/listenMessages.ts';
import { HEARD_HEIGHTS } from '../../drawing/heights.ts';
import type { RulerSize, RulerSystem } from '../../drawing/system.ts';

/** The sound of a take, to be laid along the ruler. */
export interface SoundOnRuler {
  readonly outline: Outline;
  /** Seconds a whole note takes. */
  readonly whole: number;
  /** Seconds in the take at which the pattern's time is zero. */
  readonly zero: number;
}

/** The outline of what the microphone heard, each moment above its place in the rhythm. */
export function SoundLane({
  system,
  size,
  scale,
  pattern,
  sound,
}: {
  system: RulerSystem;
  size: RulerSize;
  scale: number;
  pattern: Pattern;
  sound: SoundOnRuler;
}) {
  const height = HEARD_HEIGHTS[size];
  const played = playPattern(pattern);
  const { peaks, stepSeconds, from } = sound.outline;
  const most = peaks.reduce((a, b) => Math.max(a, b), 0.05);
  const paths = system.measures.map((measure) => {
    const here = played[measure.index];
    if (!here) return '';
    const begin = sound.zero + toNumber(here.at) * sound.whole;
    const pixels = Math.max(1, Math.round(measure.width));
    const points = Array.from({ length: pixels }, (_, x) => {
      const at = (time: number) => Math.floor((time - from) / stepSeconds);
      const first = at(begin + (x / scale) * sound.whole);
      const last = Math.max(first + 1, at(begin + ((x + 1) / scale) * sound.whole));
      let peak = 0;
      for (let k = Math.max(0, first); k < Math.min(peaks.length, last); k++) peak = Math.max(peak, peaks[k]!);
      return [measure.x + x, (peak / most) * (height / 2 - 2)] as const;
    });
    const up = points.map(([x, y]) => `${x} ${height / 2 - y}`);
    const down = points.map(([x, y]) => `${x} ${height / 2 + y}`).reverse();
    return `M${[...up, ...down].join(' L')} Z`;
  });
  return (
    <svg className="lane-sound" width={system.width} height={height} aria-hidden>
      {paths.map((path, i) => (
        <path key={i} d={path} />
      ))}
    </svg>
  );
}
