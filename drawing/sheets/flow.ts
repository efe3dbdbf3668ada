import { wrapped } from '../lettering.ts';
import type { WrittenText } from '../pdfPen.ts';
import type { Shape } from '../strokes.ts';
import type { Block } from './block.ts';
import type { SheetInk } from './drawQuestion.ts';
import { MARGIN, type Page, type PlacedBlock } from './paper.ts';

/** Points at the bottom of a page that are the footer's. */
const FOOTER = 18;

/** Puts blocks on pages, one under the other or side by side; a block is never cut. */
export class Flow {
  readonly pages: Page[] = [];
  private blocks: PlacedBlock[] = [];
  private y = MARGIN;
  readonly width: number;
  readonly bottom: number;

  constructor(
    private readonly paper: { width: number; height: number },
    readonly by: number,
  ) {
    this.width = (paper.width - 2 * MARGIN) / by;
    this.bottom = paper.height - MARGIN - FOOTER;
  }

  /** @param keep  points that have to follow on the same page */
  add(block: Block, after: number, keep = 0) {
    this.addRow([{ block, x: 0 }], after, keep);
  }

  /** Blocks side by side, as high as the highest. */
  addRow(row: readonly { block: Block; x: number }[], after: number, keep = 0) {
    const height = Math.max(...row.map(({ block }) => block.height)) * this.by;
    if (this.blocks.length > 0 && this.y + height + keep * this.by > this.bottom) this.turn();
    for (const { block, x } of row) this.blocks.push({ block, x: MARGIN + x * this.by, y: this.y, by: this.by });
    this.y += height + after * this.by;
  }

  skip(points: number) {
    this.y += points * this.by;
  }

  turn() {
    if (this.blocks.length > 0) this.pages.push({ ...this.paper, blocks: this.blocks });
    this.blocks = [];
    this.y = MARGIN;
  }
}

export function textBlock(
  tag: Block['tag'],
  texts: readonly WrittenText[],
  width: number,
  height: number,
  shapes: readonly Shape[] = [],
): Block {
  return { tag, width, height, shapes, texts };
}

export function paragraph(text: string, ink: Pick<SheetInk, 'fonts' | 'width'>, size: number): Block {
  const lines = wrapped(ink.fonts.letters, text, size, ink.width);
  const step = size * 1.3;
  const texts = lines.map((one, i): WrittenText => ({ text: one, x: 0, y: size + i * step, size }));
  return textBlock('P', texts, ink.width, lines.length * step);
}
