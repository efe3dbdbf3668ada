import { practiceTrack, trackFrames } from '../../core/leading/practiceTrack.ts';
import { pcm16, wavHeader } from '../../core/sound/wav.ts';
import type { TrackAnswer, TrackRequest } from '../audio/trackMessages.ts';

/** Progress is told in steps of so much. */
const TOLD_STEP = 0.02;

const answer = (message: TrackAnswer) => postMessage(message);

/** The blocks of one channel, or of two, left and right taking turns. */
function* blocksOf({ cues, options, parts }: TrackRequest): Generator<{ block: Float32Array; done: number }> {
  if (parts === 1) {
    yield* practiceTrack(cues, options);
    return;
  }
  const right = practiceTrack(cues, { ...options, side: { of: 'right', parts } });
  for (const { block: left, done } of practiceTrack(cues, { ...options, side: { of: 'left', parts } })) {
    const other = right.next().value as { readonly block: Float32Array };
    const both = new Float32Array(left.length * 2);
    left.forEach((sample, i) => {
      both[2 * i] = sample;
      both[2 * i + 1] = other.block[i]!;
    });
    yield { block: both, done };
  }
}

addEventListener('message', ({ data }: MessageEvent<TrackRequest>) => {
  const { options, parts } = data;
  const header = wavHeader(trackFrames(options), options.sampleRate, parts === 1 ? 1 : 2);
  const pieces: BlobPart[] = [header as Uint8Array<ArrayBuffer>];
  let told = 0;
  for (const { block, done } of blocksOf(data)) {
    pieces.push(pcm16(block) as Int16Array<ArrayBuffer>);
    if (done - told >= TOLD_STEP) answer({ done: (told = done) });
  }
  answer({ file: new Blob(pieces, { type: 'audio/wav' }) });
});
