import type { Voice, VoiceWord } from '../../contract/voice.ts';
import { VOICE_RATE } from '../../core/listening/voiceFacts.ts';
import type { SpokenWord } from '../../core/listening/spokenWord.ts';
import { pcm16 } from '../../core/sound/wav.ts';

/** Samples as they are sent and kept: two bytes each, base64. */
export function soundText(samples: Float32Array): string {
  const view = new DataView(new ArrayBuffer(samples.length * 2));
  pcm16(samples).forEach((sample, i) => view.setInt16(2 * i, sample, true));
  let letters = '';
  for (let i = 0; i < view.byteLength; i++) letters += String.fromCharCode(view.getUint8(i));
  return btoa(letters);
}

export function spokenWord({ sound, vowel }: VoiceWord): SpokenWord {
  const letters = atob(sound);
  const view = new DataView(new ArrayBuffer(letters.length));
  for (let i = 0; i < letters.length; i++) view.setUint8(i, letters.charCodeAt(i));
  const samples = Float32Array.from({ length: letters.length >> 1 }, (_, i) => view.getInt16(2 * i, true) / 32_768);
  return { samples, vowel };
}

/** Samples of one rate as a context of another has them. */
export async function rendered(
  context: OfflineAudioContext,
  samples: Float32Array,
  sampleRate: number,
): Promise<AudioBuffer> {
  const buffer = context.createBuffer(1, samples.length, sampleRate);
  buffer.copyToChannel(Float32Array.from(samples), 0);
  const source = context.createBufferSource();
  source.buffer = buffer;
  source.connect(context.destination);
  source.start();
  return context.startRendering();
}

/** A word as it is kept, whatever the rate at which it was heard. */
export async function keptWord(word: string, { samples, vowel }: SpokenWord, sampleRate: number): Promise<VoiceWord> {
  const frames = Math.max(1, Math.round((samples.length / sampleRate) * VOICE_RATE));
  const buffer = await rendered(new OfflineAudioContext(1, frames, VOICE_RATE), samples, sampleRate);
  return { word, vowel: Math.min(vowel, (frames - 1) / VOICE_RATE), sound: soundText(buffer.getChannelData(0)) };
}

export type OwnWords = ReadonlyMap<string, SpokenWord>;

export function ownWords(words: readonly VoiceWord[]): OwnWords {
  return new Map(words.map((one) => [one.word, spokenWord(one)]));
}

let speaking: OwnWords = new Map();

/** From here on the page counts with these words, and with the app's where there is none. */
export function speakWith(voice: Voice | undefined): void {
  speaking = voice?.speaks === true ? ownWords(voice.words) : new Map();
}

/** The words of a teacher's own voice that the page counts with. */
export const wordsToSpeakWith = (): OwnWords => speaking;
