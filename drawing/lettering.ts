import { type LoadedFont, type PathCommand, outlineOf } from './fonts.ts';

/** A piece of a line of text: letters of the font, or a sign that is drawn. */
export interface Piece {
  /** From the beginning of the line, and down from its baseline. */
  readonly x: number;
  readonly dy: number;
  readonly size: number;
  readonly text: string;
  /** Drawn instead of written: the font has no such sign. */
  readonly path?: readonly PathCommand[];
}

export interface Lettering {
  readonly pieces: readonly Piece[];
  readonly width: number;
}

/** Small figures of counts: a hold that ends inside a beat. */
const SMALL = '₀₁₂₃₄₅₆₇₈₉';
const SMALL_SIZE = 0.66;
const SMALL_DOWN = 0.14;
/** Foot down, foot up. */
const ARROWS = '↓↑';
const ARROW_WIDTH = 0.5;

/** An arrow in an em of this size, as lines to be drawn. */
function arrow(sign: string, size: number): PathCommand[] {
  const down = sign === '↓';
  const [from, to] = down ? [-0.7, 0.02] : [0, -0.72];
  const back = down ? -0.24 : 0.24;
  const x = ARROW_WIDTH / 2;
  const at = (command: 'M' | 'L', ...args: [number, number]): PathCommand => ({
    command,
    args: args.map((value) => value * size),
  });
  return [at('M', x, from), at('L', x, to), at('M', x - 0.18, to + back), at('L', x, to), at('L', x + 0.18, to + back)];
}

function isPlain(sign: string): boolean {
  return !SMALL.includes(sign) && !ARROWS.includes(sign);
}

/** Puts a line of text together; what the font lacks is written small, or drawn. */
export function lettering(font: LoadedFont, text: string, size: number): Lettering {
  const pieces: Piece[] = [];
  let x = 0;
  const put = (piece: Omit<Piece, 'x'>, width: number) => {
    pieces.push({ x, ...piece });
    x += width;
  };
  for (const [run] of text.matchAll(/[₀-₉]+|[↓↑]|[^₀-₉↓↑]+/g)) {
    if (isPlain(run[0]!)) put({ dy: 0, size, text: run }, outlineOf(font, run, size).width);
    else if (ARROWS.includes(run)) put({ dy: 0, size, text: run, path: arrow(run, size) }, ARROW_WIDTH * size);
    else {
      const figures = [...run].map((sign) => SMALL.indexOf(sign)).join('');
      const small = size * SMALL_SIZE;
      put({ dy: size * SMALL_DOWN, size: small, text: figures }, outlineOf(font, figures, small).width);
    }
  }
  return { pieces, width: x };
}

/** The size at which a text is no wider than this, and no larger than wished. */
export function fitted(font: LoadedFont, text: string, size: number, width: number): number {
  return Math.min(size, (size * width) / Math.max(1, lettering(font, text, size).width));
}

/** How thick a drawn sign is, by the size of the letters beside it. */
export const PEN = 0.085;

/** Breaks a text into lines no wider than this; a word that is wider stands alone. */
export function wrapped(font: LoadedFont, text: string, size: number, width: number): string[] {
  const space = lettering(font, ' ', size).width;
  const lines: string[] = [];
  let used = Infinity;
  // Word by word: the same words come again, and are measured only once.
  for (const word of text.split(' ')) {
    const wide = lettering(font, word, size).width;
    if (used + space + wide <= width) {
      lines.push(`${lines.pop()!} ${word}`);
      used += space + wide;
    } else {
      lines.push(word);
      used = wide;
    }
  }
  return lines;
}
