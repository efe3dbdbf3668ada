import { footOf } from '../../core/leading/hands.ts';
import { beatOf } from '../../core/rhythm/meter.ts';
import { toNumber } from '../../core/rhythm/fraction.ts';
import { COUNTS_HEIGHTS } from './heights.ts';
import { type RulerSize, type RulerSystem, beatXs } from './layout.ts';

/** The feet: a step on every beat, right and left, never stopping. */
export function StepsLane({ system, size, scale }: { system: RulerSystem; size: RulerSize; scale: number }) {
  const height = COUNTS_HEIGHTS[size];
  return (
    <svg
      className={`lane-tokens lane-tokens-${size}`}
      width={system.width}
      height={height}
      aria-hidden
      data-lane="Steps"
    >
      {system.measures.map((measure) => {
        const { meter, number, onset } = measure.placed;
        const first = Math.ceil(toNumber(onset) / toNumber(beatOf(meter).length) - 1e-9);
        return beatXs(measure, scale).map(({ x }, i) => (
          <text key={x} className="token token-step" x={x} y={height * 0.72} dx="-0.28em">
            {footOf(meter, number, first + i)}
          </text>
        ));
      })}
    </svg>
  );
}
