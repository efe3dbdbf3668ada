import { makeSet } from '../../core/making/makeSet.ts';
import { soundKey } from '../../core/rhythm/soundings.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import type { MakeAnswer, MakeRequest } from '../files/makeMessages.ts';

function keysOf(texts: readonly string[]): ReadonlySet<string> {
  return new Set(
    texts.flatMap((text) => {
      const parsed = parseRhythm(text);
      return parsed.ok ? [soundKey(parsed.pattern)] : [];
    }),
  );
}

addEventListener('message', ({ data }: MessageEvent<MakeRequest>) => {
  const { wanted, count, seed, known } = data;
  postMessage(makeSet(wanted, count, seed, keysOf(known)) satisfies MakeAnswer);
});
