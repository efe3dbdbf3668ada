import { readFile } from '../../core/formats/readFile.ts';
import type { FileAnswer, FileRequest } from '../files/fileMessages.ts';

const answer = (message: FileAnswer) => postMessage(message);

addEventListener('message', ({ data: { name, bytes } }: MessageEvent<FileRequest>) => {
  readFile(name, bytes).then(answer, (error: Error) => answer({ ok: false, trouble: error.message }));
});
