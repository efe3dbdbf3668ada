import type {} from 'pdfkit';
import { joined } from '../core/formats/joined.ts';
import type { Fonts, LoadedFont, PathCommand } from './fonts.ts';
import { PEN, lettering } from './lettering.ts';
import type { Shape } from './strokes.ts';

/** The class that makes documents: Node and browsers have it from different files. */
export type PdfDocument = new (options: PDFKit.PDFDocumentOptions) => PDFKit.PDFDocument;

/** Points of a pixel: pictures have 96 pixels an inch, paper 72 points. */
export const POINTS = 0.75;

export interface WrittenText {
  readonly text: string;
  readonly x: number;
  /** Of the baseline. */
  readonly y: number;
  readonly size: number;
  readonly strong?: boolean;
  readonly align?: 'left' | 'middle' | 'right';
}

/** A document under way: the same bytes each time, its fonts in it, its language said. */
export class PdfPen {
  readonly document: PDFKit.PDFDocument;
  private readonly whole: Promise<Uint8Array>;

  constructor(
    Document: PdfDocument,
    private readonly fonts: Fonts,
    title: string,
    options: PDFKit.PDFDocumentOptions,
  ) {
    const always = new globalThis.Date(0);
    this.document = new Document({
      // Else it looks for fonts of its own beside the program.
      font: null as unknown as string,
      lang: 'en',
      pdfVersion: '1.5',
      tagged: true,
      displayTitle: true,
      info: { Title: title, CreationDate: always, ModDate: always },
      ...options,
    });
    const parts: Uint8Array[] = [];
    this.document.on('data', (part: Uint8Array) => parts.push(part));
    this.whole = new Promise<Uint8Array>((resolve, reject) => {
      this.document.on('end', () => resolve(joined(parts)));
      this.document.on('error', reject);
    });
    this.document.registerFont('letters', fonts.letters.bytes);
    this.document.registerFont('strong', fonts.strong.bytes);
    this.document.font('letters');
  }

  end(): Promise<Uint8Array> {
    this.document.end();
    return this.whole;
  }

  write({ text, x, y, size, strong = false, align = 'left' }: WrittenText): void {
    const font: LoadedFont = strong ? this.fonts.strong : this.fonts.letters;
    const { pieces, width } = lettering(font, text, size);
    const left = align === 'left' ? x : x - (align === 'middle' ? width / 2 : width);
    this.document.font(strong ? 'strong' : 'letters').fillColor('#000');
    for (const piece of pieces) {
      if (piece.path) {
        this.document.save().translate(left + piece.x, y);
        this.document
          .lineWidth(piece.size * PEN)
          .path(pathData(piece.path))
          .stroke('#000')
          .restore();
      } else {
        this.document.fontSize(piece.size);
        this.document.text(piece.text, left + piece.x, y + piece.dy, { lineBreak: false, baseline: 'alphabetic' });
      }
    }
  }

  draw({ path, fill, stroke }: Shape): void {
    this.document.path(pathData(path));
    if (stroke) this.document.lineWidth(stroke.width).lineJoin('round').stroke(stroke.color);
    else this.document.fill(fill ?? '#000');
  }
}

const short = (value: number) => Math.round(value * 100) / 100;

function pathData(commands: readonly PathCommand[]): string {
  return commands.map(({ command, args }) => command + args.map(short).join(' ')).join('');
}
