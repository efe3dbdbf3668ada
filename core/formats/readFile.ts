import { t } from '../words/say.ts';
import { type Letters, lettersOf } from './characters.ts';
import { BadFile, type Piece, type ReadFile } from './piece.ts';
import { unzip } from './zip.ts';

/** Files that are looked for in a zip. */
const READABLE = /\.(txt|musicxml|xml|mxl|midi?|kar|rmi|abc)$/i;

const starts = (bytes: Uint8Array, text: string) => [...text].every((sign, i) => bytes[i] === sign.charCodeAt(0));

/**
 * Reads a file of any format: by what is in it, for endings lie; the ending tells text from ABC. Readers are loaded
 * when they are needed.
 * @param name  with its ending
 */
export async function readFile(name: string, bytes: Uint8Array): Promise<ReadFile> {
  try {
    if (bytes.length === 0) return { ok: false, trouble: t`the file is empty` };
    if (starts(bytes, 'MThd') || starts(bytes, 'RIFF') || /\.(midi?|kar|rmi)$/i.test(name))
      return (await import('./readMidi.ts')).readMidi(bytes);
    if (starts(bytes, 'PK')) return await readPacked(name, bytes);
    return await readLetters(name, lettersOf(bytes));
  } catch (error) {
    if (error instanceof BadFile) return { ok: false, trouble: error.message };
    throw error;
  }
}

async function readLetters(name: string, { text, guessed }: Letters): Promise<ReadFile> {
  const read = await readAs(name, text);
  if (!read.ok || !guessed) return read;
  return { ok: true, pieces: read.pieces.map((piece) => ({ ...piece, leftOut: { ...piece.leftOut, characters: 1 } })) };
}

async function readAs(name: string, text: string): Promise<ReadFile> {
  if (/^\s*</.test(text.slice(0, 400).replace('\uFEFF', '')))
    return (await import('./readMusicXml.ts')).readMusicXml(text);
  const abc = /\.abc$/i.test(name) || /^(%abc|X:)/m.test(text.slice(0, 5000));
  return abc ? (await import('./readAbc.ts')).readAbc(text) : (await import('./readText.ts')).readText(text);
}

/** A compressed score, or a zip of files. */
async function readPacked(name: string, bytes: Uint8Array): Promise<ReadFile> {
  const { scoreOfMxl } = await import('./mxl.ts');
  if (/\.mxl$/i.test(name)) return readLetters(name, lettersOf(scoreOfMxl(bytes)));
  const files = unzip(bytes, (inside) => READABLE.test(inside) && !inside.startsWith('__MACOSX/'));
  if (files.some((file) => file.name === 'META-INF/container.xml'))
    return readLetters(name, lettersOf(scoreOfMxl(bytes)));
  if (files.length === 0) return { ok: false, trouble: t`there is no file in the zip that can be read` };
  const pieces: Piece[] = [];
  for (const file of files) {
    if (/\.zip$/i.test(file.name)) continue;
    const read = await readFile(file.name, file.bytes);
    const stem = file.name.replace(/^.*\//, '').replace(/\.[^.]*$/, '');
    if (!read.ok) return { ok: false, trouble: `${file.name}: ${read.trouble}` };
    pieces.push(...read.pieces.map((piece) => ({ ...piece, title: piece.title || stem })));
  }
  return { ok: true, pieces };
}
