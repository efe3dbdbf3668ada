import { Element, Font as VexFont, type FontInfo, RenderContext, VexFlow } from 'vexflow/core';
import { MUSIC_FONT } from './engraving/fontNames.ts';
import { type Fonts, type LoadedFont, type PathCommand, outlineOf } from './fonts.ts';

/** One shape of a drawing: a path in pixels from the upper left corner, filled or drawn as a line. */
export interface Shape {
  readonly path: readonly PathCommand[];
  readonly fill?: string;
  readonly stroke?: { readonly color: string; readonly width: number };
  /** What it says: the code point of a sign of music, or letters. */
  readonly sign?: string;
}

interface Pen {
  fill: string;
  stroke: string;
  width: number;
  scale: number;
  font: { family: string; size: number };
}

/** A point of type in pixels (CSS). */
const POINT = 4 / 3;

function pixelsOf(size: string | number | undefined): number {
  if (typeof size === 'number') return size * POINT;
  const found = /([\d.]+)\s*(pt|px)?/.exec(size ?? '');
  return Number(found?.[1] ?? 10) * (found?.[2] === 'px' ? 1 : POINT);
}

const fontFor = (fonts: Fonts, family: string): LoadedFont =>
  family.includes(MUSIC_FONT) ? fonts.music : fonts.letters;

/** What the engraver asks of a canvas when it measures signs: their size in our own fonts, with no browser about. */
class Measurer {
  private family: string = MUSIC_FONT;
  private size = 10;

  constructor(private readonly fonts: Fonts) {}

  set font(css: string) {
    const { family, size } = fontInfo(css);
    this.size = pixelsOf(size);
    this.family = family;
  }

  measureText(text: string) {
    const { width, box } = outlineOf(fontFor(this.fonts, this.family), text, this.size);
    return {
      width,
      actualBoundingBoxAscent: box.top,
      actualBoundingBoxDescent: box.bottom,
      actualBoundingBoxLeft: -box.left,
      actualBoundingBoxRight: box.right,
      fontBoundingBoxAscent: box.top,
      fontBoundingBoxDescent: box.bottom,
      alphabeticBaseline: 0,
      emHeightAscent: this.size,
      emHeightDescent: 0,
    };
  }
}

/** "10pt Harbour" in its parts. The engraver has a page take it apart; where there is none, it is done here. */
function fontInfo(css: string): Required<FontInfo> {
  const found = /([\d.]+)(pt|px)\s*(.*)$/.exec(css);
  return { family: found?.[3] ?? MUSIC_FONT, size: `${found?.[1] ?? 10}${found?.[2] ?? 'pt'}`, weight: '', style: '' };
}

/** Tells the engraver to measure in these fonts. */
export function measureWith(fonts: Fonts): void {
  VexFont.fromCSSString = fontInfo;
  const measurer = new Measurer(fonts);
  Element.setTextMeasurementCanvas({ getContext: () => measurer } as unknown as HTMLCanvasElement);
  VexFlow.setFonts(MUSIC_FONT);
}

/** Collects what the engraver draws as shapes, every sign of its font as an outline. */
export class Strokes extends RenderContext {
  readonly shapes: Shape[] = [];
  private pen: Pen = { fill: '#000', stroke: '#000', width: 1, scale: 1, font: { family: MUSIC_FONT, size: 10 } };
  private readonly kept: Pen[] = [];
  private path: PathCommand[] = [];

  /** @param left  where the drawing stands, pixels */
  constructor(
    private readonly fonts: Fonts,
    private readonly left: number,
    private readonly top: number,
  ) {
    super();
  }

  private at(x: number, y: number): [number, number] {
    return [this.left + x * this.pen.scale, this.top + y * this.pen.scale];
  }

  private put(command: PathCommand['command'], ...points: number[]): this {
    const args: number[] = [];
    for (let i = 0; i < points.length; i += 2) args.push(...this.at(points[i]!, points[i + 1]!));
    this.path.push({ command, args });
    return this;
  }

  scale(x: number): this {
    this.pen.scale *= x;
    return this;
  }
  beginPath(): this {
    this.path = [];
    return this;
  }
  moveTo(x: number, y: number): this {
    return this.put('M', x, y);
  }
  lineTo(x: number, y: number): this {
    return this.put('L', x, y);
  }
  quadraticCurveTo(cx: number, cy: number, x: number, y: number): this {
    return this.put('Q', cx, cy, x, y);
  }
  bezierCurveTo(ax: number, ay: number, bx: number, by: number, x: number, y: number): this {
    return this.put('C', ax, ay, bx, by, x, y);
  }
  closePath(): this {
    return this.put('Z');
  }
  rect(x: number, y: number, width: number, height: number): this {
    return this.put('M', x, y)
      .put('L', x + width, y)
      .put('L', x + width, y + height)
      .put('L', x, y + height)
      .put('Z');
  }
  fillRect(x: number, y: number, width: number, height: number): this {
    return this.beginPath().rect(x, y, width, height).fill();
  }
  /** Two halves of a circle, each as the usual two curves. */
  arc(x: number, y: number, radius: number): this {
    const k = 0.5523 * radius;
    return this.put('M', x + radius, y)
      .put('C', x + radius, y + k, x + k, y + radius, x, y + radius)
      .put('C', x - k, y + radius, x - radius, y + k, x - radius, y)
      .put('C', x - radius, y - k, x - k, y - radius, x, y - radius)
      .put('C', x + k, y - radius, x + radius, y - k, x + radius, y);
  }
  fill(): this {
    if (this.path.length > 0) this.shapes.push({ path: this.path, fill: this.pen.fill });
    return this;
  }
  stroke(): this {
    const { stroke, width, scale } = this.pen;
    if (this.path.length > 0) this.shapes.push({ path: this.path, stroke: { color: stroke, width: width * scale } });
    return this;
  }
  fillText(text: string, x: number, y: number): this {
    const { font, scale, fill } = this.pen;
    const { commands } = outlineOf(fontFor(this.fonts, font.family), text, font.size * scale);
    const [left, top] = this.at(x, y);
    const path = commands.map(({ command, args }) => ({
      command,
      args: args.map((value, k) => value + (k % 2 === 0 ? left : top)),
    }));
    if (path.length > 0) this.shapes.push({ path, fill, sign: text });
    return this;
  }
  measureText(text: string) {
    const { font } = this.pen;
    const { width, box } = outlineOf(fontFor(this.fonts, font.family), text, font.size);
    return { x: 0, y: -box.top, width, height: box.top + box.bottom };
  }
  setFont(font?: string | FontInfo, size?: string | number): this {
    const family = typeof font === 'object' ? font.family : font;
    const wanted = typeof font === 'object' ? font.size : size;
    this.pen.font = { family: family ?? MUSIC_FONT, size: pixelsOf(wanted) };
    return this;
  }
  getFont(): string {
    const { family, size } = this.pen.font;
    return VexFont.toCSSString({ family, size: `${size}px` });
  }
  save(): this {
    this.kept.push({ ...this.pen, font: { ...this.pen.font } });
    return this;
  }
  restore(): this {
    this.pen = this.kept.pop() ?? this.pen;
    return this;
  }
  setFillStyle(style: string): this {
    this.pen.fill = style;
    return this;
  }
  setStrokeStyle(style: string): this {
    this.pen.stroke = style;
    return this;
  }
  setLineWidth(width: number): this {
    this.pen.width = width;
    return this;
  }
  get fillStyle(): string {
    return this.pen.fill;
  }
  set fillStyle(style: string) {
    this.pen.fill = style;
  }
  get strokeStyle(): string {
    return this.pen.stroke;
  }
  set strokeStyle(style: string) {
    this.pen.stroke = style;
  }

  // What notation on one line never asks for.
  clear(): void {}
  add(): void {}
  openGroup(): undefined {
    return undefined;
  }
  closeGroup(): void {}
  openRotation(): void {}
  closeRotation(): void {}
  setBackgroundFillStyle(): this {
    return this;
  }
  setShadowColor(): this {
    return this;
  }
  setShadowBlur(): this {
    return this;
  }
  setLineCap(): this {
    return this;
  }
  setLineDash(): this {
    return this;
  }
  resize(): this {
    return this;
  }
  clearRect(): this {
    return this;
  }
  pointerRect(): this {
    return this;
  }
}
