import { type Random, randomFrom } from '../random.ts';
import { STRUCK_THINGS, type StruckThing, strike } from './clapSynth.ts';
import { addAtLevel, laptop, meanSquare, voice } from './conditions.ts';

/** One clap of one child of a class. */
export interface Strike {
  /** From 0; the same child has the same hands all through. */
  readonly child: number;
  /** Seconds from the first sample. */
  readonly time: number;
}

/** A stand-in for a microphone in a room in which a class claps. */
export interface ClassSoundOptions {
  readonly seed: number;
  readonly sampleRate?: number;
  /** Seconds of sound; default: a second after the last clap. */
  readonly seconds?: number;
  /** Seconds in which the room's echo dies by 60 dB. */
  readonly echo?: number;
  /** How loud the echo is beside the clap itself, dB of energies; in a classroom two metres away it is above 0. */
  readonly echoDb?: number;
  /** How much the children's loudness at the microphone differs, dB, one deviation: hands, and near or far. */
  readonly variesDb?: number;
  /** What they strike; default: hands of three kinds, each child its own. */
  readonly things?: readonly StruckThing[];
  /** Several voices that talk, or all that count what they clap, at so many dB below the claps of the class. */
  readonly talkBelowDb?: number;
  readonly countingBelowDb?: number;
  /** A child so many dB above the others, near the microphone. */
  readonly loudChildDb?: number;
  /** Tables that are shaken now and then. */
  readonly shaken?: boolean;
  readonly microphone?: 'open' | 'phone' | 'laptop';
}

const TAU = 2 * Math.PI;
/** Steady noise of a room, full scale. */
const ROOM_NOISE = 10 ** (-62 / 20);
/** Of the loudest of all; a laptop sets its own level. */
const PEAK = 0.7;
/** High echoes die sooner: part of the time at 1 kHz. */
const HIGH_ECHO = 0.6;

/** Adds the echo of one strike: noise of the strike's colour that dies away, as a room's many paths do. */
function withEcho(dry: Float32Array, rate: number, echo: number, echoDb: number, random: Random): Float32Array {
  if (echo <= 0) return dry;
  const out = new Float32Array(dry.length + Math.round(echo * rate));
  out.set(dry);
  const energy = dry.reduce((sum, x) => sum + x * x, 0);
  const tail = new Float32Array(out.length);
  // The answer of the room, a random path every half a millisecond at first, denser later: thinned convolution.
  const paths = Math.round(220 * echo) + 80;
  for (let k = 0; k < paths; k++) {
    const late = 0.002 + (echo * 0.85 * (k + random.next())) / paths;
    const gain = random.normal() * Math.exp((-6.9 * late) / echo);
    const dull = late / echo > 0.3 ? HIGH_ECHO : 1;
    const at = Math.round(late * rate);
    let low = 0;
    for (let i = 0; i < dry.length && at + i < tail.length; i += 1) {
      low += dull * (dry[i]! - low);
      tail[at + i]! += gain * low;
    }
  }
  const tailEnergy = tail.reduce((sum, x) => sum + x * x, 1e-12);
  const level = Math.sqrt((energy * 10 ** (echoDb / 10)) / tailEnergy);
  for (let i = 0; i < out.length; i++) out[i]! += level * tail[i]!;
  return out;
}

/** Tables and chairs: thumps with little above 500 Hz, now and then. */
function shake(samples: Float32Array, rate: number, random: Random, level: number): void {
  for (let at = Math.floor(random.next() * rate); at < samples.length; at += Math.floor((0.3 + random.next()) * rate)) {
    const hz = 60 + 120 * random.next();
    const loud = level * (0.8 + 1.5 * random.next());
    for (let i = 0; i < 0.25 * rate && at + i < samples.length; i++)
      samples[at + i]! +=
        loud * Math.exp((-i / rate) * 18) * Math.sin((TAU * hz * i) / rate) * (1 + 0.3 * random.normal());
  }
}

/** A phone's microphone: nothing below 150 Hz or above 7 kHz, and it clips at the loudest. */
function phone(samples: Float32Array, rate: number): Float32Array {
  const [under, over] = [150, 7000].map((hz) => 1 - Math.exp((-TAU * hz) / rate)) as [number, number];
  let [low, dull] = [0, 0];
  return samples.map((x) => {
    low += under * (x - low);
    dull += over * (x - low - dull);
    return Math.max(-0.6, Math.min(0.6, 1.4 * dull));
  });
}

/** Claps of a class in a room, mono, -1 to 1; the same seed gives the same sound. @param strikes  in any order */
export function synthesiseClass(strikes: readonly Strike[], options: ClassSoundOptions): Float32Array {
  const { seed, echo = 0.5, echoDb = 0, variesDb = 4, loudChildDb, microphone = 'open' } = options;
  const { sampleRate: rate = 44_100, things = STRUCK_THINGS.slice(0, 2) } = options;
  const random = randomFrom(seed);
  const last = strikes.reduce((most, { time }) => Math.max(most, time), 0);
  const samples = new Float32Array(Math.ceil((options.seconds ?? last + 1) * rate));
  const children = strikes.reduce((most, { child }) => Math.max(most, child), -1) + 1;
  const hands = Array.from({ length: children }, (_, child) => {
    const thing = random.pick(things);
    const gain = 10 ** ((variesDb * random.normal() + (child === 0 ? (loudChildDb ?? 0) : 0)) / 20);
    // Near the microphone the room is weak beside the clap.
    const own = echoDb + 2 * random.normal() - (child === 0 ? (loudChildDb ?? 0) : 0);
    return {
      gain,
      sounds: Array.from({ length: 2 }, () => withEcho(strike(thing, rate, random), rate, echo, own, random)),
    };
  });
  for (const { child, time } of strikes) {
    const { gain, sounds } = hands[child]!;
    const sound = random.pick(sounds);
    const level = gain * 10 ** ((1.5 * random.normal()) / 20);
    const at = Math.round(time * rate);
    for (let i = Math.max(0, -at); i < sound.length && at + i < samples.length; i++)
      samples[at + i]! += level * sound[i]!;
  }
  const levels = strikes.map(({ time }) => {
    const from = Math.max(0, Math.round(time * rate));
    return Math.sqrt(meanSquare(samples.subarray(from, from + Math.round(0.05 * rate))));
  });
  const usual = levels.sort((a, b) => a - b)[levels.length >> 1] ?? 0.1;
  if (options.talkBelowDb !== undefined) {
    const voices = Array.from({ length: 5 }, () => voice(samples.length, rate, random));
    for (const one of voices) addAtLevel(samples, one, usual, options.talkBelowDb + 7);
  }
  if (options.countingBelowDb !== undefined) countAloud(samples, rate, random, strikes, usual, options.countingBelowDb);
  if (options.shaken) shake(samples, rate, random, usual);
  const peak = samples.reduce((most, x) => Math.max(most, Math.abs(x)), 1e-9);
  for (let i = 0; i < samples.length; i++) samples[i] = (PEAK / peak) * samples[i]! + ROOM_NOISE * random.normal();
  const heard =
    microphone === 'laptop' ? laptop(samples, rate) : microphone === 'phone' ? phone(samples, rate) : samples;
  return heard.map((x) => Math.max(-1, Math.min(1, x)));
}

/** Voices that say a syllable with each clap, each child near its own. */
function countAloud(
  samples: Float32Array,
  rate: number,
  random: Random,
  strikes: readonly Strike[],
  level: number,
  belowDb: number,
): void {
  const said = new Float32Array(samples.length);
  const length = Math.round(0.22 * rate);
  const syllables = Array.from({ length: 12 }, () => voice(length, rate, random));
  for (const { time } of strikes) {
    const one = random.pick(syllables);
    const at = Math.round((time + 0.015 * random.normal()) * rate);
    for (let i = Math.max(0, -at); i < length && at + i < said.length; i++) said[at + i]! += one[i]!;
  }
  addAtLevel(samples, said, level, belowDb);
}
