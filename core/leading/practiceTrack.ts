import { type Sound, type Struck, WHISPER_LEVEL, limit, soundKey, synthesise } from '../sound/sounds.ts';
import type { Cue } from './cue.ts';
import { type Channel, soundOf } from './cueSounds.ts';

/** A recorded word, ready to be mixed. */
export interface Recording {
  readonly samples: Float32Array;
  /** Seconds from its start to the vowel, which falls on the beat. */
  readonly vowel: number;
}

export interface TrackOptions {
  readonly sampleRate: number;
  /** Length of the run in seconds. */
  readonly seconds: number;
  readonly levels: Readonly<Record<Channel, number>>;
  readonly clapAs?: Struck;
  /** Recorded words at `sampleRate`; a word without a recording is left out. */
  readonly words: ReadonlyMap<string, Recording>;
  /** Of a run of so many parts the left or the right channel: parts stand beside each other from left to right. */
  readonly side?: { readonly of: 'left' | 'right'; readonly parts: number };
  /** A part that is left out: whoever hears the track does it. */
  readonly missing?: number;
}

/** How loud a part is on one side: the first of them is heard left alone, the last one right alone. */
export function sideLevel(part: number | undefined, side: TrackOptions['side']): number {
  if (!side || part === undefined || side.parts < 2) return 1;
  const right = part / (side.parts - 1);
  return side.of === 'right' ? right : 1 - right;
}

/** Silence before the first cue, so that a consonant before the first beat has room. */
export const TRACK_LEAD_SECONDS = 0.25;
const TRACK_TAIL_SECONDS = 1;
const BLOCK_SECONDS = 1;
/**
 * Mixes the sounding cues of a run into blocks of a second, each sound on the very sample of its time.
 * @param cues  by time, rising
 * @returns blocks in order, each with the part done so far, 0 to 1
 */
export function* practiceTrack(
  cues: readonly Cue[],
  options: TrackOptions,
): Generator<{ readonly block: Float32Array; readonly done: number }> {
  const { sampleRate, levels, clapAs, words, side, missing } = options;
  const made = new Map<string, Recording | undefined>();
  const recordingOf = (sound: Sound): Recording | undefined => {
    const key = soundKey(sound);
    if (!made.has(key))
      made.set(
        key,
        sound.kind === 'word' ? words.get(sound.word) : { samples: synthesise(sound, sampleRate), vowel: 0 },
      );
    return made.get(key);
  };
  const sounding = cues
    .flatMap((cue) => {
      const found = soundOf(cue, clapAs);
      const heard = cue.part === undefined || cue.part !== missing ? sideLevel(cue.part, side) : 0;
      const recording = found && heard > 0 && levels[found.channel] > 0 ? recordingOf(found.sound) : undefined;
      if (!found || !recording) return [];
      const whisper = found.sound.kind === 'word' && found.sound.whispered ? WHISPER_LEVEL : 1;
      return [
        {
          at: Math.round((cue.time + TRACK_LEAD_SECONDS - recording.vowel) * sampleRate),
          samples: recording.samples,
          level: levels[found.channel] * whisper * heard,
        },
      ];
    })
    .sort((a, b) => a.at - b.at);

  const total = trackFrames(options);
  const size = Math.round(BLOCK_SECONDS * sampleRate);
  let next = 0;
  let active: typeof sounding = [];
  for (let from = 0; from < total; from += size) {
    const block = new Float32Array(Math.min(size, total - from));
    while (next < sounding.length && sounding[next]!.at < from + block.length) active.push(sounding[next++]!);
    for (const { at, samples, level } of active) {
      const first = Math.max(0, at - from);
      const last = Math.min(block.length, at - from + samples.length);
      for (let i = first; i < last; i++) block[i]! += samples[i - at + from]! * level;
    }
    active = active.filter(({ at, samples }) => at + samples.length > from + block.length);
    for (let i = 0; i < block.length; i++) block[i] = limit(block[i]!);
    yield { block, done: Math.min(1, (from + block.length) / total) };
  }
}

/** Samples of a whole track. */
export function trackFrames({ sampleRate, seconds }: Pick<TrackOptions, 'sampleRate' | 'seconds'>): number {
  return Math.ceil((TRACK_LEAD_SECONDS + seconds + TRACK_TAIL_SECONDS) * sampleRate);
}
