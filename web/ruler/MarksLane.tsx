import { lineNumber } from '../../core/rhythm/lines.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { MARKS_HEIGHTS } from '../../drawing/heights.ts';
import type { RulerMeasure, RulerSize, RulerSystem } from '../../drawing/system.ts';

interface MarksProps {
  readonly system: RulerSystem;
  readonly size: RulerSize;
  /** The numbers on paper of the measures, where those that are shown are written out. */
  readonly numbers?: readonly number[] | undefined;
}

/** A letter stands in a frame; how far the frame is from it. */
const FRAME = 0.3;
/** Part of the height that the letters take. */
const LETTERS = 0.66;
/** About as wide as a letter is high. */
const LETTER_WIDTH = 0.66;

/** The number of a line is so much larger, and reaches below the lane: it is called out across the room. */
const LINE_LARGER = 2;
const LINE_LOWER = 0.6;

/** Whether a pattern says itself how its measures are numbered, or has rehearsal letters. */
export function hasMarks({ measures }: Pattern): boolean {
  return measures.some(({ number, letter }) => number !== undefined || letter !== undefined);
}

/**
 * Rehearsal letters, numbers of lines in front of them, and the number of the first measure of the line and of those
 * that do not follow on.
 */
export function MarksLane({ system, size, numbers }: MarksProps) {
  const height = MARKS_HEIGHTS[size];
  const font = height * LETTERS;
  const numberOf = ({ index, placed }: RulerMeasure) => numbers?.[index] ?? placed.number;
  return (
    <svg className="lane-marks" width={system.width} height={height} data-lane="Measures">
      {system.measures.map((measure, i) => {
        const { letter } = measure.placed;
        const number = numberOf(measure);
        const before = system.measures[i - 1];
        const shown = number > 0 && (before === undefined || numberOf(before) !== number - 1 || letter !== undefined);
        const line = lineNumber(letter);
        const framed =
          letter === undefined || line !== undefined ? 0 : font * (letter.length * LETTER_WIDTH + FRAME * 2);
        return (
          <g key={measure.index} transform={`translate(${measure.x - font * 0.5} 0)`} fontSize={font}>
            {line !== undefined && (
              <text
                className="mark-line"
                x={font * 1.5 - measure.x}
                y={height * 0.75 + font * LINE_LOWER}
                fontSize={font * LINE_LARGER}
              >
                {line}
              </text>
            )}
            {letter !== undefined && line === undefined && (
              <>
                <rect className="mark-frame" x={0} y={1} width={framed} height={height - 2} />
                <text className="mark-letter" x={framed / 2} y={height * 0.75} textAnchor="middle">
                  {letter}
                </text>
              </>
            )}
            {shown && (
              <text className="mark-number" x={framed && framed + font * 0.4} y={height * 0.75}>
                {number}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}
