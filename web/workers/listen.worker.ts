import { OnsetDetector } from '../../core/listening/detector.ts';
import { wavFile } from '../../core/sound/wav.ts';
import type { CapturedBlock } from '../audio/capture.worklet.ts';

/** Listens live through a port, or to a whole recording. */
export type ListenRequest =
  | {
      readonly kind: 'live';
      readonly port: MessagePort;
      readonly sampleRate: number;
      readonly clicks: readonly number[];
      readonly keep: boolean;
    }
  | { readonly kind: 'finish' }
  | { readonly kind: 'recording'; readonly samples: Float32Array; readonly sampleRate: number };

/** Outline of the sound: the greatest size in each step, from 0 to 1. */
export interface Outline {
  readonly peaks: Float32Array;
  readonly stepSeconds: number;
  /** Seconds of the first step, on the clock of the onsets. */
  readonly from: number;
}

export type ListenAnswer =
  | { readonly kind: 'heard'; readonly onsets: readonly number[]; readonly level: number }
  | { readonly kind: 'progress'; readonly done: number }
  | { readonly kind: 'finished'; readonly onsets: readonly number[]; readonly outline: Outline; readonly sound?: Blob };

const STEP_SECONDS = 0.005;
/** Live sound is kept for the outline up to this. */
const LONGEST_SECONDS = 15 * 60;

const answer = (message: ListenAnswer, transfer: Transferable[] = []) => postMessage(message, { transfer });

function outlineOf(samples: Float32Array, sampleRate: number, from: number): Outline {
  const step = Math.max(1, Math.round(STEP_SECONDS * sampleRate));
  const peaks = new Float32Array(Math.ceil(samples.length / step));
  for (let i = 0; i < samples.length; i++) {
    const k = Math.floor(i / step);
    peaks[k] = Math.max(peaks[k]!, Math.abs(samples[i]!));
  }
  return { peaks, stepSeconds: step / sampleRate, from };
}

interface Live {
  readonly detector: OnsetDetector;
  readonly sampleRate: number;
  readonly keep: boolean;
  readonly blocks: Float32Array[];
  readonly onsets: number[];
  start: number;
}

let live: Live | undefined;

function hear({ samples, time }: CapturedBlock, clicks: readonly number[], sampleRate: number, keep: boolean): void {
  // The clicks are known on the audio clock; the detector counts from its first sample.
  live ??= {
    detector: new OnsetDetector(
      sampleRate,
      undefined,
      clicks.map((click) => click - time),
    ),
    sampleRate,
    keep,
    blocks: [],
    onsets: [],
    start: time,
  };
  const found = live.detector.push(samples).map((onset) => onset + live!.start);
  live.onsets.push(...found);
  if (live.blocks.length * samples.length < LONGEST_SECONDS * sampleRate) live.blocks.push(samples);
  answer({
    kind: 'heard',
    onsets: found,
    level: samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0),
  });
}

function finish(): void {
  if (!live) {
    answer({
      kind: 'finished',
      onsets: [],
      outline: { peaks: new Float32Array(0), stepSeconds: STEP_SECONDS, from: 0 },
    });
    return;
  }
  const { detector, sampleRate, blocks, onsets, start, keep } = live;
  onsets.push(...detector.finish().map((onset) => onset + start));
  const samples = new Float32Array(blocks.reduce((sum, block) => sum + block.length, 0));
  let at = 0;
  for (const block of blocks) {
    samples.set(block, at);
    at += block.length;
  }
  const sound = keep
    ? new Blob([wavFile(samples, sampleRate) as Uint8Array<ArrayBuffer>], { type: 'audio/wav' })
    : undefined;
  answer({ kind: 'finished', onsets, outline: outlineOf(samples, sampleRate, start), ...(sound ? { sound } : {}) });
}

/** Seconds of a recording between two reports of progress. */
const CHUNK_SECONDS = 10;

function hearRecording(samples: Float32Array, sampleRate: number): void {
  const detector = new OnsetDetector(sampleRate);
  const size = CHUNK_SECONDS * sampleRate;
  const onsets: number[] = [];
  for (let from = 0; from < samples.length; from += size) {
    onsets.push(...detector.push(samples.subarray(from, from + size)));
    answer({ kind: 'progress', done: Math.min(1, (from + size) / samples.length) });
  }
  onsets.push(...detector.finish());
  answer({ kind: 'finished', onsets, outline: outlineOf(samples, sampleRate, 0) });
}

addEventListener('message', ({ data }: MessageEvent<ListenRequest>) => {
  if (data.kind === 'finish') finish();
  else if (data.kind === 'recording') hearRecording(data.samples, data.sampleRate);
  else
    data.port.onmessage = ({ data: block }: MessageEvent<CapturedBlock>) =>
      hear(block, data.clicks, data.sampleRate, data.keep);
});
