import { readFile } from '../../core/formats/readFile.ts';
import type { FileAnswer, FileRequest } from '../files/fileMessages.ts';
import { answerIn } from './inLanguage.ts';

const answer = (message: FileAnswer) => postMessage(message);

addEventListener('message', ({ data: { name, bytes } }: MessageEvent<FileRequest>) => {
  answerIn()
    .then(() => readFile(name, bytes))
    .then(answer, (error: Error) => answer({ ok: false, trouble: error.message }));
});
