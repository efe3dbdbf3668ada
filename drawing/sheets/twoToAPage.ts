import { GREY, line } from './block.ts';
import type { Page, PlacedBlock } from './paper.ts';

/** Where a page stands on the paper that it shares, and how much smaller. */
interface Place {
  readonly x: number;
  readonly y: number;
  readonly by: number;
}

function placed({ blocks }: Page, { x, y, by }: Place): PlacedBlock[] {
  return blocks.map((one) => ({ block: one.block, x: x + one.x * by, y: y + one.y * by, by: one.by * by }));
}

function cut(x1: number, y1: number, x2: number, y2: number): PlacedBlock {
  const shapes = [line(x1, y1, x2, y2, 0.5, GREY)];
  return { block: { tag: 'Artifact', width: 0, height: 0, shapes, texts: [] }, x: 0, y: 0, by: 1 };
}

/** Pages of half the height, one under the other, to be cut across. */
export function stacked(pages: readonly Page[]): Page[] {
  const all: Page[] = [];
  for (let i = 0; i < pages.length; i += 2) {
    const [upper, lower] = [pages[i]!, pages[i + 1]];
    const { width, height } = upper;
    const below = lower ? placed(lower, { x: 0, y: height, by: 1 }) : [];
    all.push({ width, height: 2 * height, blocks: [...upper.blocks, ...below, cut(0, height, width, height)] });
  }
  return all;
}

/**
 * Copies beside each other, smaller, on paper on its side. Printed on both sides and turned on the short edge, each
 * child's second page is behind its first: so the backs change places.
 */
export function sideBySide(copies: readonly (readonly Page[])[], paper: { width: number; height: number }): Page[] {
  const [width, height] = [paper.height, paper.width];
  const by = Math.min(width / 2 / paper.width, height / paper.height);
  const inset = (width / 2 - paper.width * by) / 2;
  const all: Page[] = [];
  for (let i = 0; i < copies.length; i += 2) {
    const pair = [copies[i]!, copies[i + 1] ?? []];
    const most = Math.max(...pair.map((pages) => pages.length));
    for (let nth = 0; nth < most; nth++) {
      const blocks = pair.flatMap((pages, side) => {
        const column = nth % 2 === 0 ? side : 1 - side;
        const page = pages[nth];
        return page ? placed(page, { x: inset + (column * width) / 2, y: 0, by }) : [];
      });
      all.push({
        width,
        height,
        blocks: [...blocks, cut(width / 2, 0, width / 2, height)],
        front: nth === 0 && most > 1,
      });
    }
  }
  return all;
}
