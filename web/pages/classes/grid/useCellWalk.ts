import { type KeyboardEvent, useState } from 'react';

/** Arrow keys, Home and End: how far they go, in rows and columns. */
const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  Home: [0, -Infinity],
  End: [0, Infinity],
  PageUp: [-Infinity, 0],
  PageDown: [Infinity, 0],
};

/**
 * Walking through a grid by keys: one cell of it can be reached by Tab, the arrows go on from there.
 * @returns what each cell is given, by its row and column
 */
export function useCellWalk(rows: number, columns: number) {
  const [at, setAt] = useState<readonly [number, number]>([0, 0]);
  const bound = (value: number, most: number) => Math.min(Math.max(0, value), most - 1);
  const go = (event: KeyboardEvent<HTMLElement>) => {
    const step = STEPS[event.key];
    if (!step || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    const to = [bound(at[0] + step[0], rows), bound(at[1] + step[1], columns)] as const;
    setAt(to);
    const cells = event.currentTarget.closest('tbody');
    cells?.querySelector<HTMLElement>(`[data-cell="${to[0]} ${to[1]}"]`)?.focus();
  };
  const here = [bound(at[0], rows), bound(at[1], columns)];
  const cell = (row: number, column: number) => ({
    'data-cell': `${row} ${column}`,
    tabIndex: row === here[0] && column === here[1] ? 0 : -1,
    onFocus: () => setAt([row, column]),
    onKeyDown: go,
  });
  return cell;
}
