import type { OutAnswer, OutRequest, WrittenFile } from '../files/fileMessages.ts';
import { WRITTEN } from '../files/outFormats.ts';
import { answerIn } from './inLanguage.ts';

const answer = (message: OutAnswer) => postMessage(message);

async function write({ format, patterns, options }: OutRequest): Promise<WrittenFile[]> {
  const {
    many,
    write: bytesOf,
    endings: [ending],
  } = WRITTEN()[format]!;
  const files: WrittenFile[] = [];
  for (const together of many ? [patterns] : patterns.map((one) => [one]))
    files.push({ name: `${together[0]!.title}${ending}`, bytes: await bytesOf(together, options) });
  return files;
}

addEventListener('message', ({ data }: MessageEvent<OutRequest>) => {
  answerIn()
    .then(() => write(data))
    .then(
      (files) => answer({ ok: true, files }),
      (error: Error) => answer({ ok: false, trouble: error.message }),
    );
});
