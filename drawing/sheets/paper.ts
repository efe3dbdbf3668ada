import type { PaperId } from '../../core/sheets/sheet.ts';
import type { Block } from './block.ts';

/** Points of a centimetre. */
export const CM = 72 / 2.54;

/** Points, upright. */
export const PAPER_SIZES: Readonly<Record<PaperId, { readonly width: number; readonly height: number }>> = {
  a4: { width: 21 * CM, height: 29.7 * CM },
  letter: { width: 8.5 * 72, height: 11 * 72 },
};

/** Every printer reaches so far. */
export const MARGIN = 1.5 * CM;

export interface PlacedBlock {
  readonly block: Block;
  readonly x: number;
  readonly y: number;
  /** Larger for large print. */
  readonly by: number;
}

export interface Page {
  readonly width: number;
  readonly height: number;
  readonly blocks: readonly PlacedBlock[];
  /** Begins on the front of a leaf: a card's back must be behind it. */
  readonly front?: boolean;
  /** Where a name is written, for a sheet with names on it. */
  readonly name?: { readonly x: number; readonly y: number; readonly size: number };
}

export function upright(paper: PaperId): { width: number; height: number } {
  return PAPER_SIZES[paper];
}

export function onItsSide(paper: PaperId): { width: number; height: number } {
  const { width, height } = PAPER_SIZES[paper];
  return { width: height, height: width };
}
