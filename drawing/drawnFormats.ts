import { OUT_FACTS } from '../core/formats/formatFacts.ts';
import type { Format, NamedPattern, WriteOptions } from '../core/formats/formats.ts';
import type { Fonts } from './fonts.ts';
import type { PdfDocument } from './pdfPen.ts';
import type { Picture } from './picture.ts';

/** What drawing needs, from wherever the program runs. */
export interface DrawingKit {
  readonly fonts: () => Promise<Fonts>;
  readonly pdf: () => Promise<PdfDocument>;
}

export const DRAWN_IDS = ['svg', 'pdf'] as const;
export type DrawnId = (typeof DRAWN_IDS)[number];

async function pictures(
  patterns: readonly NamedPattern[],
  { counts, eachRest = false }: WriteOptions,
  fonts: Fonts,
): Promise<Picture[]> {
  const [{ drawPattern }, { drawScore }] = await Promise.all([import('./picture.ts'), import('./scorePicture.ts')]);
  return patterns.map(({ title, pattern, score }) => {
    const set = { title, eachRest, ...(counts ? { counts } : {}) };
    return score ? drawScore(score, fonts, set) : drawPattern(pattern, fonts, set);
  });
}

/** The formats that are drawn: the same notes as on the ruler. */
export function drawnFormats(kit: DrawingKit): Readonly<Record<DrawnId, Format>> {
  return {
    svg: {
      ...OUT_FACTS().svg,
      write: async (patterns, options) => {
        const fonts = await kit.fonts();
        const { svgOf } = await import('./svg.ts');
        const [picture] = await pictures(patterns.slice(0, 1), options, fonts);
        return new TextEncoder().encode(svgOf(picture!, fonts));
      },
    },
    pdf: {
      ...OUT_FACTS().pdf,
      write: async (patterns, options) => {
        const [fonts, Document] = await Promise.all([kit.fonts(), kit.pdf()]);
        const { pdfOf } = await import('./pdf.ts');
        return pdfOf(await pictures(patterns, options, fonts), fonts, Document);
      },
    },
  };
}
