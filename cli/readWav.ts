import { t } from '../core/words/say.ts';
import { readFileSync, statSync } from 'node:fs';
import wavefile from 'wavefile';
import { UserError } from './readPattern.ts';

export interface Sound {
  readonly sampleRate: number;
  /** Seconds. */
  readonly duration: number;
  /** One channel, -1 to 1: the mean of all. */
  readonly samples: Float32Array;
}

/** A recording may be so long, and a file so large. */
const LONGEST_SECONDS = 15 * 60;
const LARGEST_BYTES = 200 * 2 ** 20;

interface Format {
  readonly sampleRate: number;
  readonly numChannels: number;
}

/** How one sample is read from the bytes of a format, from -1 to 1; by wavefile's name of the format. */
const READERS: Readonly<
  Record<string, { readonly bytes: number; readonly read: (view: DataView, at: number) => number }>
> = {
  '8': { bytes: 1, read: (view, at) => (view.getUint8(at) - 128) / 128 },
  '16': { bytes: 2, read: (view, at) => view.getInt16(at, true) / 32_768 },
  '24': {
    bytes: 3,
    read: (view, at) =>
      ((view.getUint8(at) << 8) | (view.getUint8(at + 1) << 16) | (view.getUint8(at + 2) << 24)) / 2_147_483_648,
  },
  '32': { bytes: 4, read: (view, at) => view.getInt32(at, true) / 2_147_483_648 },
  '32f': { bytes: 4, read: (view, at) => view.getFloat32(at, true) },
  '64': { bytes: 8, read: (view, at) => view.getFloat64(at, true) },
};

/**
 * Reads a WAV file of any usual format: 8 to 32 bits, floating point, A-law, µ-law, any rate, any number of channels.
 */
export function readWav(path: string): Sound {
  if (statSync(path).size > LARGEST_BYTES)
    throw new UserError(t`${path}: larger than 200 MB; cut it into shorter recordings`);
  const file = new wavefile.WaveFile();
  try {
    file.fromBuffer(readFileSync(path));
    if (file.bitDepth === '8a') file.fromALaw();
    if (file.bitDepth === '8m') file.fromMuLaw();
  } catch (error) {
    throw new UserError(
      t`${path}: not a readable WAV file (${error instanceof Error ? error.message : String(error)})`,
    );
  }
  const { sampleRate, numChannels } = file.fmt as Format;
  const reader = READERS[file.bitDepth];
  if (!reader)
    throw new UserError(
      t`${path}: WAV of this kind (${file.bitDepth} bits, compressed) is not read; save it
        as plain PCM`,
    );
  if (!(sampleRate >= 4000 && sampleRate <= 384_000) || !(numChannels >= 1))
    throw new UserError(t`${path}: a sampling rate of ${sampleRate} cannot be listened to`);
  // The bytes as they stand in the file: the decoder's own lists of numbers are slow for long recordings.
  const bytes = (file.data as { samples: Uint8Array }).samples;
  const frames = Math.floor(bytes.length / (reader.bytes * numChannels));
  if (frames / sampleRate > LONGEST_SECONDS)
    throw new UserError(t`${path}: longer than 15 minutes; cut it into shorter recordings`);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const samples = new Float32Array(frames);
  for (let i = 0, at = 0; i < frames; i++) {
    let sum = 0;
    for (let c = 0; c < numChannels; c++, at += reader.bytes) sum += reader.read(view, at);
    samples[i] = sum / numChannels;
  }
  return { sampleRate, duration: Math.round((frames / sampleRate) * 1e4) / 1e4, samples };
}
