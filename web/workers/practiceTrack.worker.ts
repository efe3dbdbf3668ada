import { concert } from '../../core/ensemble/concert.ts';
import { TRACK_LEAD_SECONDS, practiceTrack, trackFrames } from '../../core/leading/practiceTrack.ts';
import { pcm16, wavHeader } from '../../core/sound/wav.ts';
import type { TrackAnswer, TrackRequest } from '../audio/trackMessages.ts';

/** Progress is told in steps of so much. */
const TOLD_STEP = 0.02;

const answer = (message: TrackAnswer) => postMessage(message);

/** Left and right taking turns. */
function twoSides(left: Float32Array, right: Float32Array): Float32Array {
  const both = new Float32Array(left.length * 2);
  left.forEach((sample, i) => {
    both[2 * i] = sample;
    both[2 * i + 1] = right[i]!;
  });
  return both;
}

type Block = { readonly block: Float32Array; readonly done: number };

/** Everybody's claps over what is led: they are laid in when that is there. */
function* concertBlocks({ cues, options }: TrackRequest, claps: readonly (readonly number[])[]): Generator<Block> {
  const under = new Float32Array(trackFrames(options));
  let at = 0;
  for (const { block, done } of practiceTrack(cues, options)) {
    under.set(block, at);
    at += block.length;
    yield { block: new Float32Array(0), done: done / 2 };
  }
  const times = claps.map((own) => own.map((time) => time + TRACK_LEAD_SECONDS));
  yield { block: twoSides(...concert(times, under, options.sampleRate)), done: 1 };
}

/** The blocks of one channel, or of two, left and right taking turns. */
function* blocksOf({ cues, options, parts }: TrackRequest): Generator<Block> {
  if (parts === 1) {
    yield* practiceTrack(cues, options);
    return;
  }
  const right = practiceTrack(cues, { ...options, side: { of: 'right', parts } });
  for (const { block: left, done } of practiceTrack(cues, { ...options, side: { of: 'left', parts } }))
    yield { block: twoSides(left, (right.next().value as Block).block), done };
}

addEventListener('message', ({ data }: MessageEvent<TrackRequest>) => {
  const { options, parts, claps } = data;
  const channels = parts === 1 && !claps ? 1 : 2;
  const header = wavHeader(trackFrames(options), options.sampleRate, channels);
  const pieces: BlobPart[] = [header as Uint8Array<ArrayBuffer>];
  let told = 0;
  for (const { block, done } of claps ? concertBlocks(data, claps) : blocksOf(data)) {
    pieces.push(pcm16(block) as Int16Array<ArrayBuffer>);
    if (done - told >= TOLD_STEP) answer({ done: (told = done) });
  }
  answer({ file: new Blob(pieces, { type: 'audio/wav' }) });
});
