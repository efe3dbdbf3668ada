import { practiceTrack, trackFrames } from '../../core/leading/practiceTrack.ts';
import { pcm16, wavHeader } from '../../core/sound/wav.ts';
import type { TrackAnswer, TrackRequest } from '../audio/trackMessages.ts';

/** Progress is told in steps of so much. */
const TOLD_STEP = 0.02;

const answer = (message: TrackAnswer) => postMessage(message);

addEventListener('message', ({ data }: MessageEvent<TrackRequest>) => {
  const parts: BlobPart[] = [wavHeader(trackFrames(data.options), data.options.sampleRate) as Uint8Array<ArrayBuffer>];
  let told = 0;
  for (const { block, done } of practiceTrack(data.cues, data.options)) {
    parts.push(pcm16(block) as Int16Array<ArrayBuffer>);
    if (done - told >= TOLD_STEP) answer({ done: (told = done) });
  }
  answer({ file: new Blob(parts, { type: 'audio/wav' }) });
});
