import { t } from '../../core/words/say.ts';
import type { ClassHeard } from '../../core/ensemble/classHeard.ts';
import type { Bpm } from '../../core/timing/units.ts';
import type { TogetherAnswer, TogetherRequest } from './togetherMessages.ts';

const SAMPLE_RATE = 44_100;
const LONGEST_SECONDS = 300;

/** Why a recording cannot be listened to, in words for the teacher. */
export class BadRecording extends Error {}

/** All channels as one. */
function mono(buffer: AudioBuffer): Float32Array {
  const samples = new Float32Array(buffer.length);
  for (let channel = 0; channel < buffer.numberOfChannels; channel++)
    buffer.getChannelData(channel).forEach((sample, i) => (samples[i]! += sample / buffer.numberOfChannels));
  return samples;
}

/**
 * How a class clapped on a recording; the sound is forgotten after. Throws a BadRecording.
 * @param text  rhythm text of one part
 * @param bpm  about how fast it is
 */
export async function hearRecording(file: Blob, text: string, bpm: Bpm): Promise<ClassHeard> {
  const context = new OfflineAudioContext(1, 1, SAMPLE_RATE);
  const buffer = await context.decodeAudioData(await file.arrayBuffer()).catch(() => {
    throw new BadRecording(t`This browser cannot read the file: choose a sound file such as WAV, MP3 or M4A.`);
  });
  if (buffer.duration > LONGEST_SECONDS)
    throw new BadRecording(t`A recording is listened to for at most five minutes: cut it to the pattern.`);
  const worker = new Worker(new URL('../workers/together.worker.ts', import.meta.url), { type: 'module' });
  return new Promise<ClassHeard>((resolve, reject) => {
    worker.addEventListener('message', ({ data }: MessageEvent<TogetherAnswer>) => resolve(data.heard));
    worker.addEventListener('error', () => reject(new BadRecording(t`It could not be listened to: reload the page.`)));
    const samples = mono(buffer);
    const request: TogetherRequest = { kind: 'recording', id: '', text, bpm, samples, sampleRate: buffer.sampleRate };
    worker.postMessage(request, [samples.buffer]);
  }).finally(() => worker.terminate());
}
