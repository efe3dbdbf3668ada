import type { Bracket } from '../../contract/pattern.ts';
import { toNumber } from '../../core/rhythm/fraction.ts';
import { beatOf } from '../../core/rhythm/meter.ts';
import { COUNTS_HEIGHTS } from '../../drawing/heights.ts';
import { type RulerMeasure, type RulerSize, type RulerSystem, xOf } from '../../drawing/system.ts';

interface BracketsProps {
  readonly system: RulerSystem;
  readonly size: RulerSize;
  readonly scale: number;
  readonly brackets: readonly Bracket[];
  /** The numbers on paper of the measures, where those that are shown are written out. */
  readonly numbers?: readonly number[] | undefined;
}

/** A bracket begins a little before its first head and ends short of the next beat. */
const BEFORE = 10;

/** Where a bracket is inside a measure; undefined where it is not. */
function insideOf({ from, to }: Bracket, measure: RulerMeasure, number: number, scale: number) {
  if (number < from.measure || number > to.measure) return undefined;
  const beat = toNumber(beatOf(measure.placed.meter).length);
  const begin = number === from.measure ? xOf(measure, (from.beat - 1) * beat, scale) : measure.x;
  const last = measure.x + measure.width;
  const end = number === to.measure ? Math.min(last, xOf(measure, to.beat * beat, scale)) : last;
  const first = Math.max(measure.x, begin);
  return end > first ? { x1: first - BEFORE, x2: end - BEFORE * 2, opens: number === from.measure } : undefined;
}

/** Words over stretches of the rhythm. */
export function BracketsLane({ system, size, scale, brackets, numbers }: BracketsProps) {
  const height = COUNTS_HEIGHTS[size];
  const parts = brackets.flatMap((bracket) =>
    system.measures.flatMap((measure) => {
      const number = numbers?.[measure.index] ?? measure.placed.number;
      const inside = insideOf(bracket, measure, number, scale);
      return inside ? [{ ...inside, words: bracket.words, key: `${measure.index} ${bracket.words} ${inside.x1}` }] : [];
    }),
  );
  if (parts.length === 0) return null;
  return (
    <svg className={`lane-brackets lane-brackets-${size}`} width={system.width} height={height} data-lane="Words">
      {parts.map(({ x1, x2, opens, words, key }) => (
        <g key={key}>
          <path className="bracket-line" d={`M${x1} ${height} V${height - 8} H${x2} V${height}`} />
          {opens && (
            <text className="bracket-words" x={x1} y={height - 14}>
              {words}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}
