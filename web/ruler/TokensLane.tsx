import type { ReactNode } from 'react';
import type { CountedMeasure } from '../../core/counting/count.ts';
import { HandSigns } from './HandSign.tsx';
import { standsBefore } from './standing.ts';
import { COUNTS_HEIGHTS } from '../../drawing/heights.ts';
import { type RulerSize, type RulerSystem, xOf } from '../../drawing/system.ts';

const SMALL = '₀₁₂₃₄₅₆₇₈₉';

/** A written count with its small numbers set small and low, for type has no such figures of its own. */
export function tokenParts(text: string): ReactNode[] {
  return text.split(/(-?[₀-₉]+)/).map((part, i) => {
    if (!/[₀-₉]/.test(part)) return part;
    const plain = [...part].map((sign) => (SMALL.includes(sign) ? SMALL.indexOf(sign) : sign)).join('');
    return (
      <tspan key={i} className="small-count">
        {plain}
      </tspan>
    );
  });
}

/** One word or sign under each note; its vowel or number stands at the note's time. */
export function TokensLane({
  system,
  size,
  scale,
  measures,
  name,
  handSigns = false,
}: {
  system: RulerSystem;
  size: RulerSize;
  scale: number;
  measures: readonly CountedMeasure[];
  name: string;
  /** What the hands do is drawn. */
  handSigns?: boolean;
}) {
  const height = COUNTS_HEIGHTS[size];
  return (
    <svg
      className={`lane-tokens lane-tokens-${size}`}
      width={system.width}
      height={height}
      aria-hidden
      data-lane={name}
    >
      {system.measures.map((measure) =>
        measures[measure.index]?.tokens.map((token, i) => {
          const event = measure.placed.events[i];
          if (!event) return null;
          const x = xOf(measure, event.onset, scale);
          if (handSigns) {
            const at = { x, y: height * 0.8, size: height * 0.62 };
            return <HandSigns key={`${measure.index}-${i}`} text={token.text} {...at} />;
          }
          return (
            <text
              key={`${measure.index}-${i}`}
              className={`token token-${token.kind}`}
              x={x}
              y={height * 0.72}
              dx={`${-standsBefore(token.text)}em`}
            >
              {tokenParts(token.text)}
            </text>
          );
        }),
      )}
    </svg>
  );
}
