import { Unzip, UnzipInflate, strToU8, zipSync } from 'fflate';
import { joined } from './joined.ts';
import { BadFile, LARGEST_FILES, megabytes } from './piece.ts';

/** A file of a zip. */
export interface ZipEntry {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** Bytes that are unpacked at most, all together: a zip may say one thing and hold another. */
const MOST_UNPACKED = 40_000_000;
const MOST_FILES = 2000;
/** Bytes that are unpacked at once: a thousand times as many may come out. */
const STEP = 8192;

/**
 * The files of a zip that are wanted, unpacked step by step, so that one that unpacks to more than can be held is
 * stopped. Throws `BadFile` where it is no zip, or too large.
 */
export function unzip(bytes: Uint8Array, wanted: (name: string) => boolean): ZipEntry[] {
  if (bytes.length > LARGEST_FILES.zip)
    throw new BadFile(`a zip of ${megabytes(bytes.length)} is too much (at most ${megabytes(LARGEST_FILES.zip)})`);
  const found = new Map<string, Uint8Array[]>();
  let unpacked = 0;
  // What is thrown while something is unpacked comes back as a broken file: what was meant is kept here.
  let stopped: BadFile | undefined;
  const archive = new Unzip((file) => {
    if (file.name.endsWith('/') || !wanted(file.name)) return;
    if (found.size >= MOST_FILES) throw new BadFile(`the zip has more than ${MOST_FILES} files`);
    const parts: Uint8Array[] = [];
    found.set(file.name, parts);
    file.ondata = (error, part) => {
      if (error) throw stopped ?? new BadFile(`the zip is broken in “${file.name.slice(0, 60)}”`);
      unpacked += part.length;
      if (unpacked > MOST_UNPACKED) {
        stopped = new BadFile(`the zip unpacks to more than ${megabytes(MOST_UNPACKED)}`);
        throw stopped;
      }
      parts.push(part);
    };
    file.start();
  });
  archive.register(UnzipInflate);
  try {
    for (let at = 0; at < bytes.length; at += STEP)
      archive.push(bytes.subarray(at, at + STEP), at + STEP >= bytes.length);
  } catch (error) {
    if (error instanceof BadFile) throw error;
    throw new BadFile('the zip is broken: pack it again');
  }
  return [...found].map(([name, parts]) => ({ name, bytes: joined(parts) }));
}

/** Every file of a zip has this day, so that the same files make the same bytes. */
const DAY = '2020-01-01';

/** Files as a zip; those of one name are numbered. */
export function zip(entries: readonly { readonly name: string; readonly bytes: Uint8Array | string }[]): Uint8Array {
  const files: Record<string, Uint8Array> = {};
  for (const { name, bytes } of entries) {
    const [, stem, ending] = /^(.*?)(\.[^.]*)?$/.exec(name)! as unknown as [string, string, string | undefined];
    let free = name;
    for (let k = 2; free in files; k++) free = `${stem} ${k}${ending ?? ''}`;
    files[free] = typeof bytes === 'string' ? strToU8(bytes) : bytes;
  }
  return zipSync(files, { mtime: DAY });
}
