import { decimal } from '../../../../core/words/say.ts';
import { numberOf, quartersOf, shortLabel } from '../../../../core/judging/scale.ts';
import { StateMark } from './StateMark.tsx';
import type { Cell } from './gridCells.ts';

/** A mark, points or a state, as it stands in a grid. */
export function CellSign({ cell }: { cell: Cell | undefined }) {
  if (!cell) return <span className="no-mark">·</span>;
  if (cell.kind === 'state') return <StateMark state={cell.state} />;
  if (cell.kind === 'paper' && !cell.scale)
    return (
      <span className="paper-mark">
        {cell.value}
        <small>/{cell.outOf}</small>
      </span>
    );
  const scale = cell.scale!;
  const number = numberOf(cell.value, scale);
  const label = number === undefined ? shortLabel(Math.round(cell.value), scale) : decimal(+number.toFixed(1));
  return <span className={`mark-chip mark-${quartersOf(cell.value, scale)}`}>{label}</span>;
}
