import { MIDDLE_LINE, STEM_SPACES, type StaffSign, type Stem, rightStems } from '../../core/exercises/signs.ts';
import type { Stroke } from '../../core/ear/strokes.ts';
import type { NoteValue } from '../../core/rhythm/value.ts';
import type { Fonts } from '../fonts.ts';
import type { Shape } from '../strokes.ts';
import { CLEFS, DOT, FLAGS, HEADS, HEAD_WIDTH, JOIN, RESTS, WHOLE_WIDTH } from '../staffGlyphs.ts';
import { BLACK, glyph, glyphWidth, line, path } from './block.ts';

/** Points from one line of a staff to the next. */
export const SPACE = 8;
/** Room above and below the lines, for stems and clefs, in spaces. */
export const ABOVE = 3.4;
export const BELOW = 3.2;
export const STAFF_HEIGHT = (ABOVE + 4 + BELOW) * SPACE;
/** Room of one sign. */
export const SIGN_WIDTH = 5.4 * SPACE;

const EM = 4 * SPACE;
const PEN = 1;

/** @param height  in half spaces from the first line */
const yOf = (height: number) => (ABOVE + 4 - height / 2) * SPACE;

export function staffLines(width: number): Shape[] {
  return [0, 1, 2, 3, 4].map((nth) => line(0, yOf(nth * 2), width, yOf(nth * 2), 0.6));
}

/** A stem of a head whose left side is at x. */
export function stemShape(x: number, at: number, { way, side }: Stem): Shape {
  const stemX = x + (side === 'right' ? HEAD_WIDTH * SPACE - 0.5 : 0.5);
  const from = yOf(at) + (side === 'right' ? -JOIN : JOIN) * SPACE;
  const usual = yOf(at) - (way === 'up' ? 1 : -1) * STEM_SPACES * SPACE;
  // A stem reaches the middle line at least.
  const to = way === 'up' ? Math.min(usual, yOf(MIDDLE_LINE)) : Math.max(usual, yOf(MIDDLE_LINE));
  return line(stemX, from, stemX, to, PEN);
}

function endOf({ path: [, end] }: Shape): { x: number; y: number } {
  return { x: end!.args[0]!, y: end!.args[1]! };
}

/** Left side of a head in the middle of its room. */
export function headX(base: NoteValue['base'], middle: number): number {
  return middle - ((base === 'w' ? WHOLE_WIDTH : HEAD_WIDTH) * SPACE) / 2;
}

function headShapes(fonts: Fonts, { base, dots }: NoteValue, at: number, stem: Stem | null, x: number): Shape[] {
  const width = base === 'w' ? WHOLE_WIDTH : HEAD_WIDTH;
  const stemmed = stem && base !== 'w' ? stemShape(x, at, stem) : undefined;
  const flag = stem && (base === 'e' || base === 's' || base === 't') ? FLAGS[stem.way][base] : undefined;
  const end = stemmed && endOf(stemmed);
  // On a line a dot moves into the space above.
  const dotY = yOf(at % 2 === 0 ? at + 1 : at);
  const dotX = x + (width + (flag && stem?.way === 'up' ? 1 : 0.35)) * SPACE;
  return [
    glyph(fonts, HEADS[base], EM, x, yOf(at)),
    ...(stemmed ? [stemmed] : []),
    ...(flag && end ? [glyph(fonts, flag, EM, end.x - 0.5, end.y)] : []),
    ...(dots > 0 ? [glyph(fonts, DOT.repeat(dots), EM, dotX, dotY)] : []),
  ];
}

function pairShapes(fonts: Fonts, at: number, base: 'e' | 's', middle: number): Shape[] {
  const stem = rightStems(at).at(-1)!;
  const xs = [middle - 1.9 * SPACE, middle + 0.7 * SPACE];
  const [first, second] = xs.map((x) => endOf(stemShape(x, at, stem)));
  const towards = stem.way === 'up' ? 1 : -1;
  const beams = (base === 's' ? [0, 0.75] : [0]).map((off) => {
    const y = first!.y + towards * (off + 0.25) * SPACE;
    return line(first!.x - 0.5, y, second!.x + 0.5, y, 0.5 * SPACE);
  });
  return [...xs.flatMap((x) => headShapes(fonts, { base: 'q', dots: 0 }, at, stem, x)), ...beams];
}

/** A sign around the middle of its room. */
export function signShapes(fonts: Fonts, { sign, at = 3, stem }: StaffSign, middle: number): Shape[] {
  if (sign.sign === 'rest') {
    const { base, dots } = sign.value;
    const x = middle - glyphWidth(fonts, RESTS[base], EM) / 2;
    const dot = dots > 0 ? [glyph(fonts, DOT.repeat(dots), EM, x + 1.6 * SPACE, yOf(5))] : [];
    return [glyph(fonts, RESTS[base], EM, x, yOf(base === 'w' ? 6 : MIDDLE_LINE)), ...dot];
  }
  if (sign.sign === 'pair') return pairShapes(fonts, at, sign.base, middle);
  if (sign.sign === 'note') {
    const drawn = stem === undefined ? rightStems(at).at(-1)! : stem;
    return headShapes(fonts, sign.value, at, drawn, headX(sign.value.base, middle));
  }
  const { glyph: clef, line: on } = CLEFS[sign.sign];
  return [glyph(fonts, clef, EM, middle - glyphWidth(fonts, clef, EM) / 2, yOf(on * 2))];
}

/** Strokes as a pen draws them, their middle at x. */
export function strokeShape({ kind, points }: Stroke, x: number, color: string, pen: number): Shape {
  const at = points.map((point) => [x + point.x * SPACE, yOf(point.y * 2)] as const);
  const [first, ...rest] = at;
  const width = kind === 'fill' || kind === 'dot' ? pen * 2 : pen;
  return {
    path: [path('M', ...first!), ...rest.map((point) => path('L', ...point))],
    stroke: { color, width },
  };
}

/** Where a stroke begins. */
export function strokeStart({ points: [first] }: Stroke, x: number): { x: number; y: number } {
  return { x: x + first!.x * SPACE, y: yOf(first!.y * 2) };
}

/** Code points of notes as signs in a line of text. */
const NOTES = { w: '\uE1D2', h: '\uE1D3', q: '\uE1D5', e: '\uE1D7', s: '\uE1D9', t: '\uE1DB' } as const;

/** A note or rest in running text, its baseline at y; and how wide it is. */
export function textSign(
  fonts: Fonts,
  { kind, value: { base, dots } }: { readonly kind: 'note' | 'rest'; readonly value: NoteValue },
  size: number,
  x: number,
  y: number,
): { readonly shapes: Shape[]; readonly width: number } {
  const sign = (kind === 'rest' ? RESTS : NOTES)[base];
  const width = glyphWidth(fonts, sign, size);
  // Whole and half rests are told apart by their line only.
  const onLine = kind === 'rest' && (base === 'w' || base === 'h');
  const down = kind === 'rest' ? -size * 0.24 : 0;
  const dotted = dots > 0 ? [glyph(fonts, DOT.repeat(dots), size, x + width + size * 0.06, y + down)] : [];
  const ledger = onLine ? [line(x - size * 0.14, y + down, x + width + size * 0.14, y + down, 0.8, BLACK)] : [];
  const dotWidth = dots > 0 ? size * 0.06 + glyphWidth(fonts, DOT.repeat(dots), size) : 0;
  return { shapes: [glyph(fonts, sign, size, x, y + down), ...dotted, ...ledger], width: width + dotWidth };
}
