import { copyFileSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { convert } from 'fontverter';
import subsetFont from 'subset-font';

/**
 * Makes the font of musical signs that ships with the app: those signs of Bravura (SMuFL code points) that are drawn,
 * and no others, for every pattern waits for it. Its licence asks for another name where a font was changed.
 */
const FONT = 'node_modules/@vexflow-fonts/bravura';
const FOLDER = 'web/styles/fonts';
const PARTS: readonly (readonly [number, number])[] = [
  [0xe050, 0xe050], // treble clef
  [0xe062, 0xe062], // bass clef
  [0xe080, 0xe089], // figures of meters
  [0xe0a2, 0xe0a4], // heads
  [0xe1d2, 0xe1db], // single notes
  [0xe1e7, 0xe1e7], // dot
  [0xe240, 0xe245], // flags
  [0xe4a2, 0xe4a3], // staccato
  [0xe4e3, 0xe4e8], // rests
  [0xe880, 0xe88a], // figures of tuplets
];
const NAME = ['Bravura', 'Harbour'] as const;

const text = PARTS.map(([from, to]) =>
  String.fromCodePoint(...Array.from({ length: to - from + 1 }, (_, i) => from + i)),
).join('');

/** The copyright notice stays as it is. */
function renamed(font: Buffer): Buffer {
  for (const encoding of ['latin1', 'utf16le'] as const) {
    const [old, fresh] = NAME.map((name) => Buffer.from(name, encoding));
    const [from, to] = encoding === 'utf16le' ? [old!.swap16(), fresh!.swap16()] : [old!, fresh!];
    for (let at = font.indexOf(from); at >= 0; at = font.indexOf(from, at + from.length)) {
      const before = font
        .subarray(Math.max(0, at - 48), at)
        .toString('latin1')
        .replaceAll('\0', '');
      if (!before.includes('Font Name')) to.copy(font, at);
    }
  }
  return font;
}

mkdirSync(FOLDER, { recursive: true });
const small = await subsetFont(readFileSync(`${FONT}/bravura.otf`), text, { targetFormat: 'sfnt' });
writeFileSync(`${FOLDER}/harbour.woff2`, await convert(renamed(small), 'woff2'));
copyFileSync(`${FONT}/LICENSE.txt`, `${FOLDER}/harbour.LICENSE.txt`);
