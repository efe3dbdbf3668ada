import { StateMark } from './StateMark.tsx';
import type { Cell } from './gridCells.ts';

/** A mark, points or a state, as it stands in a grid. */
export function CellSign({ cell }: { cell: Cell | undefined }) {
  if (!cell) return <span className="no-mark">·</span>;
  if (cell.kind === 'state') return <StateMark state={cell.state} />;
  if (cell.kind === 'paper')
    return (
      <span className="paper-mark">
        {cell.value}
        <small>/{cell.outOf}</small>
      </span>
    );
  return <span className={`mark-chip mark-${Math.round(cell.value)}`}>{+cell.value.toFixed(1)}</span>;
}
