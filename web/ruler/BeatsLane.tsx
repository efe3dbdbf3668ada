import { beatOf } from '../../core/rhythm/meter.ts';
import { toNumber } from '../../core/rhythm/fraction.ts';
import { COUNTS_HEIGHTS } from '../../drawing/heights.ts';
import { type RulerMeasure, type RulerSize, type RulerSystem, beatXs } from '../../drawing/system.ts';

interface BeatsLaneProps {
  readonly system: RulerSystem;
  readonly size: RulerSize;
  readonly scale: number;
  readonly name: string;
  /** What stands at a beat of a measure, counted from 0. */
  readonly textAt: (measure: RulerMeasure, beat: number) => string;
  readonly className?: string;
}

/** A word at every beat, whatever is written there. */
export function BeatsLane({ system, size, scale, name, textAt, className = '' }: BeatsLaneProps) {
  const height = COUNTS_HEIGHTS[size];
  return (
    <svg
      className={`lane-tokens lane-tokens-${size}`}
      width={system.width}
      height={height}
      aria-hidden
      data-lane={name}
    >
      {system.measures.map((measure) => {
        const { placed } = measure;
        const first = Math.ceil(toNumber(placed.onset) / toNumber(beatOf(placed.meter).length) - 1e-9);
        return beatXs(measure, scale).map(({ x }, i) => (
          <text key={x} className={`token ${className}`} x={x} y={height * 0.72} dx="-0.28em">
            {textAt(measure, first + i)}
          </text>
        ));
      })}
    </svg>
  );
}
