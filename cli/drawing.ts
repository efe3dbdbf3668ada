import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { type DrawingKit, drawnFormats } from '../drawing/drawnFormats.ts';

/** From the sources, or from the files they are put into, two folders below the root. */
const root = new URL(import.meta.url.includes('/dist/cli/') ? '../../' : '../', import.meta.url);
const MUSIC = new URL('web/styles/fonts/harbour.woff2', root);
const LETTERS = '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff';
const STRONG = '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff';

/** The fonts of the app, from its own folders. */
export const KIT: DrawingKit = {
  fonts: async () => {
    const { loadFonts } = await import('../drawing/fonts.ts');
    const { resolve } = createRequire(new URL('package.json', root));
    return loadFonts(readFileSync(MUSIC), readFileSync(resolve(LETTERS)), readFileSync(resolve(STRONG)));
  },
  pdf: async () => (await import('pdfkit')).default,
};

export const DRAWN = drawnFormats(KIT);
