import { OnsetDetector } from '../../core/listening/detector.ts';
import type { PlayedClicks } from '../../core/listening/playedClicks.ts';
import { wavFile } from '../../core/sound/wav.ts';
import { synthesiseClaps } from '../../core/sound/clapSynth.ts';
import type { CapturedBlock, ListenAnswer, ListenRequest, Outline } from '../audio/listenMessages.ts';

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
  start: number;
}

let live: Live | undefined;

function hear({ samples, time }: CapturedBlock, clicks: PlayedClicks, sampleRate: number, keep: boolean): void {
  // The clicks are known on the audio clock; the detector counts from its first sample.
  live ??= {
    detector: new OnsetDetector(sampleRate, { ...clicks, times: clicks.times.map((click) => click - time) }),
    sampleRate,
    keep,
    blocks: [],
    start: time,
  };
  const found = live.detector.push(samples).map((onset) => onset + live!.start);
  if (live.blocks.length * samples.length < LONGEST_SECONDS * sampleRate) live.blocks.push(samples);
  answer({
    kind: 'heard',
    onsets: found,
    level: samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0),
    seconds: samples.length / sampleRate,
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
  const { detector, sampleRate, blocks, start, keep } = live;
  const onsets = detector.finish().map((onset) => onset + start);
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

const PRACTICE_RATE = 22_050;

/** The hands of a practice child are made to sound, and heard as a microphone would hear them. */
function hearPractice(claps: readonly number[], seed: number): void {
  const sound = { seed, reverberation: 'classroom', noiseDb: -52, sampleRate: PRACTICE_RATE } as const;
  hearRecording(synthesiseClaps(claps, sound), PRACTICE_RATE);
}

function hearLive({ port, clicks, sampleRate, keep }: Extract<ListenRequest, { kind: 'live' }>): void {
  port.onmessage = ({ data }: MessageEvent<CapturedBlock>) => hear(data, clicks, sampleRate, keep);
}

addEventListener('message', ({ data }: MessageEvent<ListenRequest>) => {
  switch (data.kind) {
    case 'live':
      return hearLive(data);
    case 'finish':
      return finish();
    case 'recording':
      return hearRecording(data.samples, data.sampleRate);
    case 'practice':
      return hearPractice(data.claps, data.seed);
  }
});
