import type { RulerSize } from './system.ts';

/** Heights of the lanes in pixels. */
export const MARKS_HEIGHTS: Readonly<Record<RulerSize, number>> = { desk: 22, board: 36, wall: 50, card: 14 };
export const NOTES_HEIGHTS: Readonly<Record<RulerSize, number>> = { desk: 104, board: 178, wall: 250, card: 60 };
export const STRIPS_HEIGHTS: Readonly<Record<RulerSize, number>> = { desk: 26, board: 46, wall: 66, card: 16 };
export const COUNTS_HEIGHTS: Readonly<Record<RulerSize, number>> = { desk: 34, board: 72, wall: 106, card: 20 };
export const HEARD_HEIGHTS: Readonly<Record<RulerSize, number>> = { desk: 46, board: 72, wall: 100, card: 20 };
/** How together a class was, note by note. */
export const BAND_HEIGHTS: Readonly<Record<RulerSize, number>> = { desk: 40, board: 52, wall: 70, card: 20 };
/** Letters of the counts, pixels; the style sheet of the ruler says the same. */
export const COUNT_FONTS: Readonly<Record<'board' | 'wall', number>> = { board: 50, wall: 72 };
