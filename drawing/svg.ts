import { type Fonts, type PathCommand, outlineOf } from './fonts.ts';
import { PEN, lettering } from './lettering.ts';
import type { Picture, PictureText } from './picture.ts';

const INK = '#000';
/** Air around the notes, and the size of the title, pixels. */
const MARGIN = 20;
const TITLE = 22;

const short = (value: number) => String(Math.round(value * 100) / 100);

function pathData(commands: readonly PathCommand[], dx: number, dy: number): string {
  return commands
    .map(({ command, args }) => command + args.map((value, k) => short(value + (k % 2 === 0 ? dx : dy))).join(' '))
    .join('');
}

const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;' };
const escaped = (text: string) => text.replace(/[&<>]/g, (sign) => ESCAPES[sign]!);

function textPath({ text, x, y, size, middle }: PictureText, fonts: Fonts, dx: number, dy: number): string {
  const { pieces, width } = lettering(fonts.letters, text, size);
  const left = dx + x - (middle ? width / 2 : 0);
  return pieces
    .map((piece) => {
      if (piece.path) {
        const pen = `fill="none" stroke="${INK}" stroke-width="${short(piece.size * PEN)}"`;
        return `<path ${pen} d="${pathData(piece.path, left + piece.x, dy + y)}"/>`;
      }
      const { commands } = outlineOf(fonts.letters, piece.text, piece.size);
      return `<path fill="${INK}" d="${pathData(commands, left + piece.x, dy + y + piece.dy)}"/>`;
    })
    .join('');
}

/** A picture as SVG, every letter an outline: it looks the same wherever it is opened. */
export function svgOf({ title, width, lines }: Picture, fonts: Fonts): string {
  const parts: string[] = [];
  let y = MARGIN;
  if (title !== '') {
    parts.push(textPath({ text: title, x: 0, y: TITLE, size: TITLE, middle: false }, fonts, MARGIN, y));
    y += TITLE + MARGIN;
  }
  for (const { height, shapes, texts } of lines) {
    for (const { path, fill, stroke } of shapes) {
      const paint = stroke
        ? `fill="none" stroke="${stroke.color}" stroke-width="${short(stroke.width)}"`
        : `fill="${fill ?? INK}"`;
      parts.push(`<path ${paint} d="${pathData(path, MARGIN, y)}"/>`);
    }
    for (const text of texts) parts.push(textPath(text, fonts, MARGIN, y));
    y += height;
  }
  const [w, h] = [width + 2 * MARGIN, y + MARGIN].map(short);
  const head = `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}" viewBox="0 0 ${w} ${h}" role="img">`;
  const name = `<title>${escaped(title || 'Rhythm')}</title>`;
  return `${head}${name}<rect width="100%" height="100%" fill="#fff"/>${parts.join('')}</svg>\n`;
}
