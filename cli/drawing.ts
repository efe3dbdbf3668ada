import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { drawnFormats } from '../drawing/drawnFormats.ts';

/** From the sources, or from the files they are put into, two folders below the root. */
const root = new URL(import.meta.url.includes('/dist/cli/') ? '../../' : '../', import.meta.url);
const MUSIC = new URL('web/styles/fonts/harbour.woff2', root);
const LETTERS = '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff';

/** The drawn formats with the fonts of the app, from its own folders. */
export const DRAWN = drawnFormats({
  fonts: async () => {
    const { loadFonts } = await import('../drawing/fonts.ts');
    const letters = createRequire(new URL('package.json', root)).resolve(LETTERS);
    return loadFonts(readFileSync(MUSIC), readFileSync(letters));
  },
  pdf: async () => (await import('pdfkit')).default,
});
