import { t } from '../../core/words/say.ts';
import type { Seconds } from '../../core/timing/units.ts';
import type { ListenAnswer, ListenRequest, Outline } from './listenMessages.ts';

/** Rate at which recordings are listened to. */
const RECORDING_RATE = 44_100;
const LARGEST_BYTES = 200 * 2 ** 20;
const LONGEST: Seconds = 15 * 60;

export interface HeardRecording {
  readonly onsets: readonly Seconds[];
  readonly outline: Outline;
}

/** A key or pad is heard exactly: what is written in MIDI needs no listening. */
async function heardInMidi(file: File): Promise<HeardRecording | undefined> {
  const start = new TextDecoder().decode(await file.slice(0, 4).arrayBuffer());
  if (start !== 'MThd') return undefined;
  const { readInWorker } = await import('../files/readFiles.ts');
  const read = await readInWorker(file);
  if (!read.ok) throw new Error(read.trouble);
  const played = read.pieces.flatMap((piece) => piece.played ?? []);
  const { onsets } = played.reduce((most, part) => (part.onsets.length > most.onsets.length ? part : most));
  return { onsets, outline: { peaks: new Float32Array(), stepSeconds: 1, from: 0 } };
}

export function listenWorker(): Worker {
  return new Worker(new URL('../workers/listen.worker.ts', import.meta.url), { type: 'module' });
}

/** Has a worker of its own listen to a whole sound. Throws an Error that says what went wrong. */
async function listenTo(
  request: ListenRequest,
  transfer: Transferable[],
  onProgress: (done: number) => void,
  signal: AbortSignal,
): Promise<HeardRecording> {
  if (signal.aborted) throw new Error('stopped');
  const worker = listenWorker();
  try {
    return await new Promise<HeardRecording>((resolve, reject) => {
      signal.addEventListener('abort', () => reject(new Error('stopped')));
      worker.addEventListener('error', () =>
        reject(new Error(t`could not be listened to; reload the page and try again`)),
      );
      worker.addEventListener('message', ({ data }: MessageEvent<ListenAnswer>) => {
        if (data.kind === 'progress') onProgress(data.done);
        if (data.kind === 'finished') resolve({ onsets: data.onsets, outline: data.outline });
      });
      worker.postMessage(request, transfer);
    });
  } finally {
    worker.terminate();
  }
}

/** Listens to a sound file of any kind the browser reads. Throws an Error that says what is wrong with it. */
export async function listenToFile(
  file: File,
  onProgress: (done: number) => void,
  signal: AbortSignal,
): Promise<HeardRecording> {
  if (file.size > LARGEST_BYTES) throw new Error(t`larger than 200 MB; cut it into shorter recordings`);
  const midi = await heardInMidi(file);
  if (midi) return midi;
  const bytes = await file.arrayBuffer();
  const buffer = await new OfflineAudioContext(1, 1, RECORDING_RATE).decodeAudioData(bytes).catch(() => {
    throw new Error(t`not a sound file this browser can read; try WAV, MP3, M4A, OGG, WebM or MIDI`);
  });
  if (buffer.duration > LONGEST) throw new Error(t`longer than 15 minutes; cut it into shorter recordings`);
  const samples = buffer.getChannelData(0).slice();
  for (let channel = 1; channel < buffer.numberOfChannels; channel++)
    buffer.getChannelData(channel).forEach((sample, i) => (samples[i]! += sample));
  const request: ListenRequest = { kind: 'recording', samples, sampleRate: buffer.sampleRate };
  return listenTo(request, [samples.buffer], onProgress, signal);
}

/** Makes the claps of a practice child sound, and hears them as a microphone would. @param claps  not before 0 */
export async function hearPractice(claps: readonly Seconds[], seed: number): Promise<HeardRecording> {
  return listenTo({ kind: 'practice', claps, seed }, [], () => undefined, new AbortController().signal);
}
