import type {} from 'pdfkit';
import { joined } from '../core/formats/joined.ts';
import type { Fonts, PathCommand } from './fonts.ts';
import type { Picture, PictureLine } from './picture.ts';

/** The class that makes documents: Node and browsers have it from different files. */
export type PdfDocument = new (options: PDFKit.PDFDocumentOptions) => PDFKit.PDFDocument;

/** Points of a pixel: pictures have 96 pixels an inch, paper 72 points. */
const POINTS = 0.75;
const MARGIN = 42;
const TITLE = 20;
const AIR = 12;
const LETTERS = 'letters';

/** Pictures one under the other on as many pages as they need; a line is never cut. Words can be selected. */
export function pdfOf(pictures: readonly Picture[], fonts: Fonts, Document: PdfDocument): Promise<Uint8Array> {
  const title = pictures.length === 1 ? pictures[0]!.title : 'Patterns';
  const document = new Document({
    size: 'A4',
    margin: MARGIN,
    // Else it looks for fonts of its own beside the program.
    font: null as unknown as string,
    lang: 'en',
    displayTitle: true,
    info: { Title: title || 'Rhythm', CreationDate: new globalThis.Date(0), ModDate: new globalThis.Date(0) },
  });
  const parts: Uint8Array[] = [];
  document.on('data', (part: Uint8Array) => parts.push(part));
  const whole = new Promise<Uint8Array>((resolve, reject) => {
    document.on('end', () => resolve(joined(parts)));
    document.on('error', reject);
  });
  document.registerFont(LETTERS, fonts.letters.bytes);
  document.font(LETTERS);
  const bottom = document.page.height - MARGIN;
  let y = MARGIN;
  const room = (height: number) => {
    if (y + height <= bottom) return;
    document.addPage();
    y = MARGIN;
  };
  for (const { title: name, lines } of pictures) {
    if (name !== '') {
      room(TITLE + AIR + (lines[0]?.height ?? 0) * POINTS);
      document.fontSize(TITLE).fillColor('#000').text(name, MARGIN, y, { lineBreak: false });
      y += TITLE + AIR;
    }
    for (const line of lines) {
      room(line.height * POINTS);
      drawLine(document, line, y);
      y += line.height * POINTS;
    }
    y += 2 * AIR;
  }
  document.end();
  return whole;
}

function drawLine(document: PDFKit.PDFDocument, { shapes, texts }: PictureLine, top: number): void {
  document.save();
  document.translate(MARGIN, top).scale(POINTS);
  for (const { path, fill, stroke } of shapes) {
    document.path(pathData(path));
    if (stroke) document.lineWidth(stroke.width).stroke(stroke.color);
    else document.fill(fill ?? '#000');
  }
  document.fillColor('#000');
  for (const { text, x, y, size, middle } of texts) {
    document.fontSize(size);
    const left = middle ? x - document.widthOfString(text) / 2 : x;
    document.text(text, left, y, { lineBreak: false, baseline: 'alphabetic' });
  }
  document.restore();
}

const short = (value: number) => Math.round(value * 1000) / 1000;

function pathData(commands: readonly PathCommand[]): string {
  return commands.map(({ command, args }) => command + args.map(short).join(' ')).join('');
}
