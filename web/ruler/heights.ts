import type { RulerSize } from './layout.ts';

/** Heights of the lanes in pixels. */
export const NOTES_HEIGHTS: Readonly<Record<RulerSize, number>> = { desk: 104, board: 178 };
export const STRIPS_HEIGHTS: Readonly<Record<RulerSize, number>> = { desk: 26, board: 46 };
export const COUNTS_HEIGHTS: Readonly<Record<RulerSize, number>> = { desk: 34, board: 72 };
export const HEARD_HEIGHTS: Readonly<Record<RulerSize, number>> = { desk: 46, board: 72 };
