import type { DrawingKit } from '../drawnFormats.ts';
import { PdfPen } from '../pdfPen.ts';
import { moved, movedTexts } from './block.ts';
import type { Page, PlacedBlock } from './paper.ts';
import { type SheetJob, sheetPages } from './sheetPages.ts';

/** A sheet with its key as a PDF: the same bytes for the same sheet, its words to be selected, its parts told apart. */
export async function sheetPdf(job: SheetJob, kit: DrawingKit): Promise<Uint8Array> {
  return pagesPdf(job.sheet.title, sheetPages(job, await kit.fonts()), kit);
}

/** Drawn pages as a PDF. */
export async function pagesPdf(title: string, pages: readonly Page[], kit: DrawingKit): Promise<Uint8Array> {
  const [fonts, Document] = await Promise.all([kit.fonts(), kit.pdf()]);
  const pen = new PdfPen(Document, fonts, title, { autoFirstPage: false, margin: 0 });
  const body = pen.document.struct('Document');
  pen.document.addStructure(body);
  for (const page of pages) drawPage(pen, body, page);
  body.end();
  return pen.end();
}

function drawPage(pen: PdfPen, body: PDFKit.PDFStructureElement, { width, height, blocks }: Page): void {
  pen.document.addPage({ size: [width, height], margin: 0 });
  for (const placed of blocks) {
    const { block } = placed;
    if (block.shapes.length === 0 && block.texts.length === 0) continue;
    if (block.tag === 'Artifact') {
      pen.document.markContent('Artifact', { type: 'Layout' });
      drawBlock(pen, placed);
      pen.document.endMarkedContent();
    } else {
      const more = block.alt === undefined ? {} : { alt: block.alt };
      body.add(pen.document.struct(block.tag, more, () => drawBlock(pen, placed)));
    }
  }
}

function drawBlock(pen: PdfPen, { block, x, y, by }: PlacedBlock): void {
  for (const shape of moved(block.shapes, x, y, by)) pen.draw(shape);
  for (const text of movedTexts(block.texts, x, y, by)) pen.write(text);
}
