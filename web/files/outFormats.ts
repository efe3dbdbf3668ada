import { FORMATS, FORMAT_IDS, type Format, type NamedPattern, type WriteOptions } from '../../core/formats/formats.ts';

/** Everything that patterns can go out as, in the order in which it is offered. */
export const OUT_FORMATS: Readonly<Record<string, Format>> = Object.fromEntries(
  FORMAT_IDS.map((id) => [id, FORMATS[id]]),
);

/** A file that is ready to be saved. */
export interface OutFile {
  readonly name: string;
  readonly content: Blob;
}

const blob = (bytes: Uint8Array, type: string) => new Blob([bytes as Uint8Array<ArrayBuffer>], { type });

/**
 * One pattern, or several, as a file: several of a format that holds one are packed into a zip.
 * @param name  of the file, without an ending
 */
export async function outFile(
  name: string,
  patterns: readonly NamedPattern[],
  { write, endings, mime, many }: Format,
  options: WriteOptions,
): Promise<OutFile> {
  const [ending] = endings;
  if (patterns.length === 1 || many) {
    return { name: `${name}${ending}`, content: blob(await write(patterns, options), mime) };
  }
  const { zip } = await import('../../core/formats/zip.ts');
  const files = [];
  for (const one of patterns) {
    files.push({ name: `${fileName(one.title)}${ending}`, bytes: await write([one], options) });
  }
  return { name: `${name}.zip`, content: blob(zip(files), 'application/zip') };
}

/** What no file system allows in a name. */
const FORBIDDEN = /[\\/:*?"<>|]/g;

function fileName(title: string): string {
  return title.replace(FORBIDDEN, ' ').trim() || 'Pattern';
}
