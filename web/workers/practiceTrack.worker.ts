import { pcm16, wavHeader } from '../../core/sound/wav.ts';
import { type TrackOptions, practiceTrack, trackFrames } from '../../core/leading/practiceTrack.ts';
import type { Cue } from '../../core/leading/timetable.ts';

export interface TrackRequest {
  readonly cues: readonly Cue[];
  readonly options: TrackOptions;
}
export type TrackAnswer = { readonly done: number } | { readonly file: Blob };

const answer = (message: TrackAnswer) => postMessage(message);

addEventListener('message', ({ data }: MessageEvent<TrackRequest>) => {
  const parts: BlobPart[] = [wavHeader(trackFrames(data.options), data.options.sampleRate) as Uint8Array<ArrayBuffer>];
  let told = 0;
  for (const { block, done } of practiceTrack(data.cues, data.options)) {
    parts.push(pcm16(block) as Int16Array<ArrayBuffer>);
    if (done - told >= 0.02) answer({ done: (told = done) });
  }
  answer({ file: new Blob(parts, { type: 'audio/wav' }) });
});
