import type { Fonts } from './fonts.ts';
import { type PdfDocument, PdfPen, POINTS } from './pdfPen.ts';
import type { Picture, PictureLine } from './picture.ts';

const MARGIN = 42;
const TITLE = 20;
const AIR = 12;

/** Pictures one under the other on as many pages as they need; a line is never cut. Words can be selected. */
export function pdfOf(pictures: readonly Picture[], fonts: Fonts, Document: PdfDocument): Promise<Uint8Array> {
  const title = pictures.length === 1 ? pictures[0]!.title : 'Patterns';
  const pen = new PdfPen(Document, fonts, title || 'Rhythm', { size: 'A4', margin: MARGIN });
  const { document } = pen;
  const body = document.struct('Document');
  document.addStructure(body);
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
      body.add(document.struct('H1', {}, () => pen.write({ text: name, x: MARGIN, y: y + TITLE, size: TITLE })));
      y += TITLE + AIR;
    }
    for (const line of lines) {
      room(line.height * POINTS);
      const top = y;
      const alt = name === '' ? 'Rhythm' : name;
      body.add(document.struct('Figure', { alt }, () => drawLine(pen, line, top)));
      y += line.height * POINTS;
    }
    y += 2 * AIR;
  }
  body.end();
  return pen.end();
}

function drawLine(pen: PdfPen, { shapes, texts }: PictureLine, top: number): void {
  pen.document.save();
  pen.document.translate(MARGIN, top).scale(POINTS);
  for (const shape of shapes) pen.draw(shape);
  for (const { middle, ...text } of texts) pen.write({ ...text, align: middle ? 'middle' : 'left' });
  pen.document.restore();
}
