import { type Fonts, type PathCommand, outlineOf } from '../fonts.ts';
import type { WrittenText } from '../pdfPen.ts';
import type { Shape } from '../strokes.ts';

/** What a reader of the page is told a block is. */
export type BlockTag = 'H1' | 'H2' | 'P' | 'Figure' | 'Artifact';

/** A piece of a page that is never cut; all in points from its own upper left corner. */
export interface Block {
  readonly tag: BlockTag;
  /** Of a figure: said instead of it. */
  readonly alt?: string;
  readonly width: number;
  readonly height: number;
  readonly shapes: readonly Shape[];
  readonly texts: readonly WrittenText[];
}

export interface Ink {
  readonly fonts: Fonts;
  /** Points there are from margin to margin. */
  readonly width: number;
}

export const BLACK = '#000';
export const GREY = '#767676';
/** To be traced over. */
export const PALE = '#b9b9b9';

export function path(command: PathCommand['command'], ...args: number[]): PathCommand {
  return { command, args };
}

/** A straight line. */
export function line(x1: number, y1: number, x2: number, y2: number, width = 0.8, color = BLACK): Shape {
  return { path: [path('M', x1, y1), path('L', x2, y2)], stroke: { color, width } };
}

export function box(x: number, y: number, width: number, height: number, pen = 0.9, color = BLACK): Shape {
  const corners = [path('L', x + width, y), path('L', x + width, y + height), path('L', x, y + height)];
  return { path: [path('M', x, y), ...corners, path('Z')], stroke: { color, width: pen } };
}

export function filledBox(x: number, y: number, width: number, height: number, color: string): Shape {
  return { path: box(x, y, width, height).path, fill: color };
}

/** An ellipse around a middle: four of the usual curves. */
export function ring(x: number, y: number, rx: number, ry: number, width = 1.6): Shape {
  const k = 0.5523;
  return {
    path: [
      path('M', x + rx, y),
      path('C', x + rx, y + k * ry, x + k * rx, y + ry, x, y + ry),
      path('C', x - k * rx, y + ry, x - rx, y + k * ry, x - rx, y),
      path('C', x - rx, y - k * ry, x - k * rx, y - ry, x, y - ry),
      path('C', x + k * rx, y - ry, x + rx, y - k * ry, x + rx, y),
    ],
    stroke: { color: BLACK, width },
  };
}

/** A sign of the music font, its baseline at y. */
export function glyph(fonts: Fonts, sign: string, size: number, x: number, y: number, fill = BLACK): Shape {
  const { commands } = outlineOf(fonts.music, sign, size);
  return { path: movedPath(commands, x, y), fill };
}

export function glyphWidth(fonts: Fonts, sign: string, size: number): number {
  return outlineOf(fonts.music, sign, size).width;
}

function movedPath(commands: readonly PathCommand[], dx: number, dy: number, by = 1): PathCommand[] {
  return commands.map(({ command, args }) => ({
    command,
    args: args.map((value, k) => value * by + (k % 2 === 0 ? dx : dy)),
  }));
}

/** Shapes somewhere else, and larger or smaller. */
export function moved(shapes: readonly Shape[], dx: number, dy: number, by = 1): Shape[] {
  return shapes.map((shape) => ({
    ...shape,
    path: movedPath(shape.path, dx, dy, by),
    ...(shape.stroke ? { stroke: { ...shape.stroke, width: shape.stroke.width * by } } : {}),
  }));
}

export function movedTexts(texts: readonly WrittenText[], dx: number, dy: number, by = 1): WrittenText[] {
  return texts.map((text) => ({ ...text, x: text.x * by + dx, y: text.y * by + dy, size: text.size * by }));
}

/** Top, bottom and sides of shapes, by the points of their paths. */
export function extent(shapes: readonly Shape[]): { top: number; bottom: number; left: number; right: number } {
  const all = { top: Infinity, bottom: -Infinity, left: Infinity, right: -Infinity };
  for (const { path: commands } of shapes) {
    for (const { args } of commands) {
      args.forEach((value, k) => {
        if (k % 2 === 0) {
          all.left = Math.min(all.left, value);
          all.right = Math.max(all.right, value);
        } else {
          all.top = Math.min(all.top, value);
          all.bottom = Math.max(all.bottom, value);
        }
      });
    }
  }
  return all;
}

/** Some blocks as one, each where it was put. */
export function together(
  parts: readonly { readonly block: Block; readonly x: number; readonly y: number }[],
  head: Pick<Block, 'tag' | 'alt' | 'width' | 'height'>,
): Block {
  return {
    ...head,
    shapes: parts.flatMap(({ block, x, y }) => moved(block.shapes, x, y)),
    texts: parts.flatMap(({ block, x, y }) => movedTexts(block.texts, x, y)),
  };
}
