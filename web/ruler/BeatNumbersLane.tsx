import { COUNTS_HEIGHTS } from './heights.ts';
import { type RulerSize, type RulerSystem, beatXs } from './layout.ts';
import { toNumber } from '../../core/rhythm/fraction.ts';
import { beatOf } from '../../core/rhythm/meter.ts';

/** Nothing but the numbers of the beats. */
export function BeatNumbersLane({ system, size, scale }: { system: RulerSystem; size: RulerSize; scale: number }) {
  const height = COUNTS_HEIGHTS[size];
  return (
    <svg
      className={`lane-tokens lane-tokens-${size}`}
      width={system.width}
      height={height}
      aria-hidden
      data-lane="Beats"
    >
      {system.measures.map((measure) => {
        const { meter, onset } = measure.placed;
        const first = Math.ceil(toNumber(onset) / toNumber(beatOf(meter).length) - 1e-9);
        return beatXs(measure, scale).map(({ x }, i) => (
          <text key={x} className="token" x={x} y={height * 0.72} dx="-0.28em">
            {first + i + 1}
          </text>
        ));
      })}
    </svg>
  );
}
