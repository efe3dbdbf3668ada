import { limit } from '../sound/sounds.ts';
import type { Seconds } from '../timing/units.ts';
import { vowelOnset } from './vowel.ts';
import { LONGEST_KEPT } from './voiceFacts.ts';

/** Frames in which loudness is followed: shorter than any consonant. */
const FRAME: Seconds = 0.01;
/** So much louder than the room a word begins, and so much it has to stay: its end dies away. In dB. */
const BEGINS_DB = 12;
const GOES_ON_DB = 8;
/** Softer than this, below full scale, nothing is a word, however still the room is. */
const SOFTEST_DB = -54;
/** Of the last frames so many are loud where a word begins: a knock on the table is shorter. */
const [LOUD_FRAMES, OF_FRAMES] = [6, 8];
/** And before it so many are quiet: else somebody is talking. */
const STILL_FRAMES = 6;
/** So long it is quiet after a word; “eight” is silent for a tenth of a second before its t. */
const QUIET_AFTER: Seconds = 0.24;
/** Longer silences before the loudest part of a word are before the word: a breath, a knock. */
const QUIET_INSIDE: Seconds = 0.14;
/** What is so much softer than the loudest part of a word belongs to no word. */
const SOFTEST_OF_WORD_DB = 34;
/** A soft consonant begins before it is loud enough to be told from the room. */
const BEFORE: Seconds = 0.09;
const AFTER: Seconds = 0.03;
/** A word of counting is shorter. */
const LONGEST_SPOKEN: Seconds = 1.2;
const RUMBLE_HZ = 70;
const FADE_IN: Seconds = 0.004;
const FADE_OUT: Seconds = 0.03;
/** So much a word has to stand out of the room, and so many of its samples may be at the edge of what is heard. */
const CLEAR_DB = 18;
const MOST_AT_EDGE = 0.002;
const EDGE = 0.985;
/** After something soft so long a word is waited for, before it is taken for one that was too soft. */
const PATIENCE: Seconds = 1;
/** The room is what is heard in the quietest part of the last seconds; at first it is only listened to. */
const ROOM_SECONDS: Seconds = 3;
const ROOM_FIRST: Seconds = 0.4;
const ROOM_PART = 0.2;
/** A recording without a room around its word: so much softer than the word it is taken to be. */
const NO_ROOM_DB = 45;
/** Loudest tenth of a second of every word, root mean square: as loud as the app's own words. */
export const WORD_LEVEL = 0.17;
const LOUDEST_PART: Seconds = 0.1;

/** Why what was heard is no word to count with. */
export type WordTrouble = 'nothing' | 'soft' | 'loud' | 'long';

/** A word, cut, levelled and aligned: its vowel is what falls on the beat. */
export interface SpokenWord {
  readonly samples: Float32Array;
  /** Seconds from its start. */
  readonly vowel: Seconds;
}

export type HeardWord =
  | { readonly ok: true; readonly word: SpokenWord }
  | { readonly ok: false; readonly trouble: WordTrouble };

/** What a microphone adds below any voice, and its offset, are taken away. */
class WithoutRumble {
  private readonly keep: number;
  private before: number | undefined;
  private out = 0;

  constructor(sampleRate: number) {
    this.keep = Math.exp((-2 * Math.PI * RUMBLE_HZ) / sampleRate);
  }

  of(samples: Float32Array): Float32Array {
    return samples.map((sample) => {
      this.out = this.keep * (this.out + sample - (this.before ?? sample));
      this.before = sample;
      return this.out;
    });
  }
}

/** All words as loud as each other by their loudest tenth of a second; what stands out of it is bent, never cut. */
function levelled(samples: Float32Array, sampleRate: number): Float32Array {
  const size = Math.min(samples.length, Math.round(LOUDEST_PART * sampleRate));
  let [sum, loudest] = [0, 0];
  samples.forEach((sample, i) => {
    sum += sample ** 2 - (i >= size ? samples[i - size]! ** 2 : 0);
    loudest = Math.max(loudest, sum);
  });
  const gain = loudest > 0 ? WORD_LEVEL / Math.sqrt(loudest / size) : 0;
  return samples.map((sample) => limit(sample * gain));
}

/** Without a step at either end. */
function faded(samples: Float32Array, sampleRate: number): Float32Array {
  const end = samples.length;
  return samples.map(
    (sample, i) => sample * Math.min(1, i / (FADE_IN * sampleRate), (end - 1 - i) / (FADE_OUT * sampleRate)),
  );
}

/** Loudness of each whole frame, dB of full scale. */
function framesOf(samples: Float32Array, sampleRate: number): number[] {
  const size = Math.round(FRAME * sampleRate);
  return Array.from({ length: Math.floor(samples.length / size) }, (_, f) => {
    let sum = 0;
    for (let i = f * size; i < (f + 1) * size; i++) sum += samples[i]! ** 2;
    return 10 * Math.log10(sum / size + 1e-12);
  });
}

const loudestOf = (levels: readonly number[]) => levels.reduce((a, b) => Math.max(a, b), -Infinity);

/** How loud the room is of which these are frames. */
function roomOf(levels: readonly number[]): number {
  const sorted = levels.toSorted((a, b) => a - b);
  return Math.max(SOFTEST_DB - BEGINS_DB, sorted[Math.floor(sorted.length * ROOM_PART)] ?? -Infinity);
}

/** How loud it is around a word; one that was cut already has hardly anything around it. */
function roomAround(levels: readonly number[]): number {
  const around = roomOf(levels);
  if (levels.length * FRAME > LONGEST_KEPT + 2 * BEFORE + AFTER) return around;
  const ends = Math.max(loudestOf(levels.slice(0, 3)), loudestOf(levels.slice(-3)));
  const room = Math.min(ends, around);
  const loudest = loudestOf(levels);
  return Math.max(SOFTEST_DB - BEGINS_DB, room < loudest - CLEAR_DB ? room : loudest - NO_ROOM_DB);
}

interface Stretch {
  readonly from: number;
  /** Undefined where it goes on to the end. */
  readonly to?: number;
}

/** From a loud frame on to where it has been quiet for long enough. */
function stretchFrom(levels: readonly number[], begins: number, room: number): Stretch {
  const quiet = Math.round(QUIET_AFTER / FRAME);
  let still = 0;
  for (let f = begins; f < levels.length; f++) {
    still = levels[f]! < room + GOES_ON_DB ? still + 1 : 0;
    if (still === quiet) return { from: begins, to: f - quiet + 1 };
  }
  return { from: begins };
}

/** Where in frames somebody speaks, the loudest of it; a knock is too short. */
function speechAmong(levels: readonly number[], room: number): Stretch | undefined {
  let best: { readonly stretch: Stretch; readonly loudest: number } | undefined;
  for (let f = 0; f < levels.length; f++) {
    const loud = levels.slice(f, f + OF_FRAMES).filter((level) => level >= room + BEGINS_DB).length;
    if (levels[f]! < room + BEGINS_DB || loud < LOUD_FRAMES) continue;
    const stretch = stretchFrom(levels, f, room);
    const loudest = loudestOf(levels.slice(f, stretch.to));
    if (!best || loudest > best.loudest) best = { stretch, loudest };
    f = stretch.to ?? levels.length;
  }
  return best?.stretch;
}

/** What of the speech is the word: around its loudest part, without a breath before it. */
function wordIn(levels: readonly number[], { from, to = levels.length }: Stretch, room: number): Required<Stretch> {
  const speech = levels.slice(from, to);
  const loudest = loudestOf(speech);
  const softest = Math.max(room + GOES_ON_DB, loudest - SOFTEST_OF_WORD_DB);
  const top = from + speech.indexOf(loudest);
  const longest = Math.round(QUIET_INSIDE / FRAME);
  let first = top;
  for (let f = top, quiet = 0; f >= from && quiet <= longest; f--) {
    quiet = levels[f]! < softest ? quiet + 1 : 0;
    if (quiet === 0) first = f;
  }
  // Its soft beginning, which is hardly louder than the room.
  const earliest = Math.max(0, first - Math.round(BEFORE / FRAME));
  while (first > earliest && levels[first - 1]! > Math.max(room + GOES_ON_DB / 2, softest - GOES_ON_DB)) first--;
  let last = to;
  while (last > top + 1 && levels[last - 1]! < softest) last--;
  return { from: first, to: last };
}

/**
 * The word in a recording: cut out of the silence around it, without rumble, as loud as the others, its vowel found.
 * @param samples  one spoken word with the room before and after it, mono, -1 to 1
 * @param room  how loud the room is, dB of full scale; from the recording itself where that is not known
 */
export function cutWord(samples: Float32Array, sampleRate: number, room?: number): HeardWord {
  const clean = new WithoutRumble(sampleRate).of(samples);
  const levels = framesOf(clean, sampleRate);
  const still = room ?? roomAround(levels);
  const speech = speechAmong(levels, still);
  if (!speech) return { ok: false, trouble: 'nothing' };
  const { from, to } = wordIn(levels, speech, still);
  if ((to - from) * FRAME > LONGEST_SPOKEN) return { ok: false, trouble: 'long' };
  const size = Math.round(FRAME * sampleRate);
  const inside = samples.subarray(from * size, to * size);
  const atEdge = inside.reduce((count, sample) => count + (Math.abs(sample) >= EDGE ? 1 : 0), 0);
  if (atEdge > MOST_AT_EDGE * inside.length) return { ok: false, trouble: 'loud' };
  if (loudestOf(levels.slice(from, to)) < still + CLEAR_DB) return { ok: false, trouble: 'soft' };
  const begin = Math.max(0, from - 1) * size;
  const end = Math.min(clean.length, to * size + Math.round(AFTER * sampleRate), begin + LONGEST_KEPT * sampleRate);
  const word = levelled(faded(clean.slice(begin, end), sampleRate), sampleRate);
  return { ok: true, word: { samples: word, vowel: vowelOnset(word, sampleRate) } };
}

/** Waits for one word after the other in a sound that goes on, and learns all the while how loud the room is. */
export class WordFinder {
  private readonly size: number;
  private readonly clean: WithoutRumble;
  /** What is left of the last block, less than a frame. */
  private rest = new Float32Array(0);
  private room: number[] = [];
  /** Frames since a word is waited for, as they came, and how loud they are. */
  private frames: Float32Array[] = [];
  private levels: number[] = [];
  private waiting = false;
  /** It has been quiet since a word is waited for: what goes on from before is none. */
  private quiet = false;

  constructor(private readonly sampleRate: number) {
    this.size = Math.round(FRAME * sampleRate);
    this.clean = new WithoutRumble(sampleRate);
  }

  /** From here on a word is waited for: what was said before is none. */
  ask(): void {
    [this.frames, this.levels, this.waiting, this.quiet] = [[], [], true, false];
  }

  /** No word is waited for. */
  leave(): void {
    this.waiting = false;
  }

  /** Loudness of the last moment, dB of full scale. */
  get loudness(): number {
    return loudestOf(this.room.slice(-10));
  }

  /** @returns what was heard, as soon as it is over; undefined until then */
  hear(block: Float32Array): HeardWord | undefined {
    const samples = new Float32Array(this.rest.length + block.length);
    samples.set(this.rest);
    samples.set(block, this.rest.length);
    const whole = samples.length - (samples.length % this.size);
    this.rest = samples.slice(whole);
    for (let at = 0; at < whole; at += this.size) this.frame(samples.slice(at, at + this.size));
    return this.waiting && this.room.length * FRAME >= ROOM_FIRST ? this.found() : undefined;
  }

  private frame(frame: Float32Array): void {
    const [level] = framesOf(this.clean.of(frame), this.sampleRate);
    this.room = [...this.room, level!].slice(-Math.round(ROOM_SECONDS / FRAME));
    if (!this.waiting) return;
    this.quiet ||= this.isStill();
    if (!this.quiet) return;
    this.frames.push(frame);
    this.levels.push(level!);
    // Nothing for so long: only what may be the beginning of a word is kept.
    if (this.frames.length * FRAME > 2 * ROOM_SECONDS) {
      this.frames = this.frames.slice(-Math.round(ROOM_SECONDS / FRAME));
      this.levels = this.levels.slice(-this.frames.length);
    }
  }

  /** Nobody has spoken just now. */
  private isStill(): boolean {
    const last = this.room.slice(-STILL_FRAMES);
    return last.length === STILL_FRAMES && loudestOf(last) < roomOf(this.room) + BEGINS_DB;
  }

  private found(): HeardWord | undefined {
    const room = roomOf(this.room);
    const speech = speechAmong(this.levels, room);
    if (!speech) return undefined;
    if (speech.to === undefined) {
      if ((this.levels.length - speech.from) * FRAME <= 2 * LONGEST_SPOKEN) return undefined;
      this.leave();
      return { ok: false, trouble: 'long' };
    }
    // A breath: the word is yet to come.
    const isClear = loudestOf(this.levels.slice(speech.from, speech.to)) >= room + CLEAR_DB;
    if (!isClear && (this.levels.length - speech.to) * FRAME < PATIENCE) return undefined;
    this.leave();
    const heard = new Float32Array(this.frames.length * this.size);
    this.frames.forEach((frame, f) => heard.set(frame, f * this.size));
    return cutWord(heard, this.sampleRate, room);
  }
}
