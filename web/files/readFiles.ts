import { currentLanguage, t } from '../../core/words/say.ts';
import type { ReadFile } from '../../core/formats/piece.ts';
import type { FileAnswer, FileRequest } from './fileMessages.ts';

/** What a page takes at all; each format has a limit of its own below. */
const LARGEST_BYTES = 25_000_000;
/** A file that takes longer is given up, milliseconds. */
const PATIENCE = 15_000;

/** Has a worker of its own read a file: one that never ends is stopped with it. */
export async function readInWorker(file: File): Promise<ReadFile> {
  if (file.size > LARGEST_BYTES) return { ok: false, trouble: t`larger than 25 MB; export fewer parts or measures` };
  const bytes = await file.arrayBuffer().catch(() => undefined);
  if (!bytes) return { ok: false, trouble: t`the browser cannot read it; copy it to this device and choose it again` };
  const worker = new Worker(new URL('../workers/readFiles.worker.ts', import.meta.url), {
    type: 'module',
    name: currentLanguage(),
  });
  try {
    return await new Promise<ReadFile>((resolve) => {
      const giveUp = (trouble: string) => resolve({ ok: false, trouble });
      const late = setTimeout(() => giveUp(t`takes too long to read; export fewer parts or measures`), PATIENCE);
      worker.addEventListener('error', () => giveUp(t`cannot be read; reload the page and try again`));
      worker.addEventListener('message', ({ data }: MessageEvent<FileAnswer>) => {
        clearTimeout(late);
        resolve(data);
      });
      const request: FileRequest = { name: file.name, bytes: new Uint8Array(bytes) };
      worker.postMessage(request, [bytes]);
    });
  } finally {
    worker.terminate();
  }
}

let handed: readonly File[] = [];

/** Hands files from one view to the next. */
export function handOver(files: readonly File[]): void {
  handed = files;
}

/** What the view before handed over, once. */
export function takeHandedOver(): readonly File[] {
  const files = handed;
  handed = [];
  return files;
}
