import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { type Fonts, loadFonts } from './fonts.ts';

const file = (weight: number) =>
  `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`;

/** The fonts of the app, from its own folders. */
export function testFonts(): Fonts {
  const { resolve } = createRequire(import.meta.url);
  const letters = [400, 700].map((weight) => readFileSync(resolve(file(weight))));
  return loadFonts(readFileSync('web/styles/fonts/harbour.woff2'), letters[0]!, letters[1]!);
}
