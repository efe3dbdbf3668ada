import { t } from '../../core/words/say.ts';
import type { Cue } from '../../core/leading/cue.ts';
import type { Channel } from '../../core/leading/cueSounds.ts';
import type { Recording } from '../../core/leading/practiceTrack.ts';
import { SoundBank } from './soundBank.ts';
import type { TrackAnswer, TrackRequest } from './trackMessages.ts';

/** The rate most players take; the recordings are brought to it when they are decoded. */
const SAMPLE_RATE = 44_100;

export interface Track {
  /** A run, all of it or a part of it. */
  readonly cues: readonly Cue[];
  /** How long it is. */
  readonly seconds: number;
  readonly levels: Readonly<Record<Channel, number>>;
  readonly clapAs?: 'clap' | 'wood';
  /** So many parts sound beside each other, and which of them is left out. */
  readonly parts?: number;
  readonly missing?: number | undefined;
  /** A child each: when it claps, seconds of the run. */
  readonly claps?: TrackRequest['claps'];
}

/**
 * Renders a run as a WAV file, in a worker; throws where that fails.
 * @param told  how much of it is done, 0 to 1
 * @param signal  breaks it off
 */
export async function makeTrack(track: Track, told: (done: number) => void, signal: AbortSignal): Promise<Blob> {
  const { cues, seconds, levels, clapAs = 'clap', parts = 1, missing, claps } = track;
  const bank = new SoundBank(new OfflineAudioContext(1, 1, SAMPLE_RATE));
  await bank.prepare(cues, clapAs);
  const words = new Map(
    [...bank.words()].map(([word, { buffer, lead }]): [string, Recording] => [
      word,
      { samples: buffer.getChannelData(0).slice(), vowel: lead },
    ]),
  );
  signal.throwIfAborted();
  const making = new Worker(new URL('../workers/practiceTrack.worker.ts', import.meta.url), { type: 'module' });
  const options = {
    sampleRate: SAMPLE_RATE,
    seconds,
    levels,
    words,
    clapAs,
    ...(missing === undefined ? {} : { missing }),
  };
  return new Promise<Blob>((resolve, reject) => {
    signal.addEventListener('abort', () => reject(new DOMException('broken off', 'AbortError')));
    making.addEventListener('error', () => reject(new Error(t`the sound file could not be made`)));
    making.addEventListener('message', ({ data }: MessageEvent<TrackAnswer>) => {
      if ('done' in data) told(data.done);
      else resolve(data.file);
    });
    const request: TrackRequest = { cues, options, parts, ...(claps ? { claps } : {}) };
    making.postMessage(request);
  }).finally(() => making.terminate());
}
