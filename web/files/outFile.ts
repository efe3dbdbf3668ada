import { currentLanguage, t } from '../../core/words/say.ts';
import { OUT_FACTS, type OutId } from '../../core/formats/formatFacts.ts';
import type { NamedPattern, WriteOptions } from '../../core/formats/formats.ts';
import { fileName } from '../ui/saveFile.ts';
import { askOnce } from './askWorker.ts';
import type { OutAnswer, OutRequest, WrittenFile } from './fileMessages.ts';

/** A file that is ready to be saved. */
export interface OutFile {
  readonly name: string;
  readonly content: Blob;
}

const blob = (bytes: Uint8Array, type: string) => new Blob([bytes as Uint8Array<ArrayBuffer>], { type });

/** Has a worker write the files. Throws an Error that says what went wrong. */
async function written(request: OutRequest): Promise<readonly WrittenFile[]> {
  const worker = new Worker(new URL('../workers/writeFiles.worker.ts', import.meta.url), {
    type: 'module',
    name: currentLanguage(),
  });
  const answer = await askOnce<OutAnswer>(worker, request, t`The file cannot be made; reload the page.`);
  if (!answer.ok) throw new Error(t`The file cannot be made: ${answer.trouble}.`);
  return answer.files;
}

/** Points of a picture for each pixel of its lines: sharp on a slide. */
const ENLARGED = 2;

/** A sharp picture as points. */
async function pngOf(svg: Uint8Array): Promise<Uint8Array> {
  const image = new Image();
  // The app’s own rules allow pictures in addresses, not in memory.
  image.src = `data:image/svg+xml,${encodeURIComponent(new TextDecoder().decode(svg))}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = image.naturalWidth * ENLARGED;
  canvas.height = image.naturalHeight * ENLARGED;
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
  const content = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  if (!content) throw new Error(t`The picture is too large: choose fewer measures.`);
  return new Uint8Array(await content.arrayBuffer());
}

async function asPoints({ name, bytes }: WrittenFile): Promise<WrittenFile> {
  return { name: name.replace(/\.svg$/, '.png'), bytes: await pngOf(bytes) };
}

/**
 * One pattern, or several, as a file: several of a format that holds one are packed into a zip.
 * @param name  of the file, without an ending
 */
export async function outFile(
  name: string,
  id: OutId,
  patterns: readonly NamedPattern[],
  options: WriteOptions,
): Promise<OutFile> {
  const named = patterns.map((one) => ({ ...one, title: one.title.trim() || t`Pattern` }));
  const lines = await written({ format: id === 'png' ? 'svg' : id, patterns: named, options });
  const files: WrittenFile[] = [];
  for (const file of lines) files.push(id === 'png' ? await asPoints(file) : file);
  const [only] = files;
  const { endings, mime } = OUT_FACTS()[id];
  if (files.length === 1) return { name: `${name}${endings[0]}`, content: blob(only!.bytes, mime) };
  const { zip } = await import('../../core/formats/zip.ts');
  const packed = zip(files.map((file) => ({ ...file, name: fileName(file.name) })));
  return { name: `${name}.zip`, content: blob(packed, 'application/zip') };
}
