import { type MidiEvent, writeMidi as midiBytes } from 'midi-file';
import { countIn } from '../leading/countIn.ts';
import { type Fraction, frac, mul, toNumber } from '../rhythm/fraction.ts';
import { type Meter, beatOf, sameMeter } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { playPattern } from '../rhythm/place.ts';
import type { Part, Score } from '../rhythm/score.ts';
import { partSound } from '../sound/partSounds.ts';
import { COUNT_IN_TRACK, rhythmBytes, soundsOf } from './midiRhythm.ts';

export interface MidiOptions {
  readonly title?: string;
  /** Counted beats a minute. */
  readonly bpm?: number;
  readonly sound?: 'clap' | 'wood';
  /** One measure of beats before it. */
  readonly countIn?: boolean;
}

const USUAL_BPM = 84;
/** Ticks of a quarter: halves of it down to 1/64, and thirds and fifths. */
const USUAL_DIVISION = 960;
const LARGEST_DIVISION = 32_767;
/** General MIDI percussion: hand clap, high wood block; the side stick counts in. */
const KEYS = { clap: 39, wood: 76, stick: 37 } as const;
const DRUMS = 9;
const LOUD = 100;

interface Timed {
  readonly tick: number;
  /** Ends before beginnings of the same moment, names before both. */
  readonly order: number;
  readonly event: Record<string, unknown>;
}

/**
 * A pattern as a Standard MIDI File: one track with meters and tempo, one of claps on the percussion channel, repeats
 * written out (the text of it goes along, so that they come back); a count-in on a track of its own.
 */
export function writeMidi(pattern: Pattern, options: MidiOptions = {}): Uint8Array {
  return writeTracks([{ name: '', pattern }], options);
}

/** A score of several parts in the same way: a track each, with a sound of its own. */
export function writeMidiScore({ parts }: Score, options: MidiOptions = {}): Uint8Array {
  return writeTracks(parts, options);
}

function writeTracks(parts: readonly Part[], options: MidiOptions): Uint8Array {
  const { title = '', bpm = USUAL_BPM, sound = 'clap' } = options;
  const { pattern } = parts[0]!;
  const played = playPattern(pattern);
  const all = parts.flatMap((part) => playPattern(part.pattern));
  const division = divisionFor(all.flatMap(({ measure }) => measure.events.map(({ length }) => length)));
  const first = played[0]!;
  const meter = pattern.measures[0]!.meter;
  const beat = beatOf(meter).length;
  const whole = 60 / bpm / toNumber(beat);
  const beats = options.countIn ? countIn(pattern, bpm) : [];
  /** @param time  from beat 1 of measure 1, in whole notes */
  const tick = (time: Fraction) => Math.round(toNumber(time) * division * 4);
  // What comes before beat 1 of measure 1: a pickup; with a count-in, whole measures that hold both.
  const measureTicks = (meter.upper * division * 4) / meter.lower;
  const counts = beats.map(({ time }) => Math.round((time / whole) * division * 4));
  const before = counts.length === 0 ? -tick(first.at) : Math.ceil(-counts[0]! / measureTicks) * measureTicks;
  const quarters = (60 / whole) * 4;
  const conductor: Timed[] = [
    ...(title === '' ? [] : [{ tick: 0, order: 0, event: { meta: true, type: 'trackName', text: title } }]),
    {
      tick: 0,
      order: 0,
      event: { meta: true, type: 'setTempo', microsecondsPerBeat: Math.round(60_000_000 / quarters) },
    },
    ...meters(pattern, before, tick, counts.length > 0),
  ];
  const claps = parts.map(({ name, pattern: own }, i): Timed[] => {
    const key = name === '' ? KEYS[sound] : partSound(name, i).key;
    return [
      { tick: 0, order: 0, event: { meta: true, type: 'trackName', text: name || 'Rhythm' } },
      { tick: 0, order: 0, event: { meta: true, type: 'sequencerSpecific', data: rhythmBytes(own) } },
      ...soundsOf(playPattern(own)).flatMap(({ from, to }) => note(before + tick(from), before + tick(to), key)),
    ];
  });
  const stick = counts.flatMap((at) => note(before + at, before + at + Math.round(division / 4), KEYS.stick));
  const tracks = [
    conductor,
    ...claps,
    ...(stick.length > 0
      ? [[{ tick: 0, order: 0, event: { meta: true, type: 'trackName', text: COUNT_IN_TRACK } }, ...stick]]
      : []),
  ];
  return Uint8Array.from(
    midiBytes({
      header: { format: 1, numTracks: tracks.length, ticksPerBeat: division },
      tracks: tracks.map(inDeltas),
    }),
  );
}

/** So many ticks that every length is a whole number of them, where that can be written. */
function divisionFor(lengths: readonly Fraction[]): number {
  const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));
  let division = USUAL_DIVISION;
  for (const length of lengths) {
    const { d } = mul(length, frac(4));
    const finer = (division / gcd(division, d)) * d;
    if (finer <= LARGEST_DIVISION) division = finer;
  }
  return division;
}

function note(from: number, to: number, key: number): Timed[] {
  const end = Math.max(from + 1, to);
  return [
    { tick: from, order: 2, event: { type: 'noteOn', channel: DRUMS, noteNumber: key, velocity: LOUD } },
    { tick: end, order: 1, event: { type: 'noteOff', channel: DRUMS, noteNumber: key, velocity: 0 } },
  ];
}

/** Meters and rehearsal letters; a pickup is a short measure in a meter of its own. */
function meters(pattern: Pattern, before: number, tick: (time: Fraction) => number, counted: boolean): Timed[] {
  const events: Timed[] = [];
  const sign = ({ upper, lower }: Meter, at: number) => {
    events.push({
      tick: at,
      order: 0,
      event: {
        meta: true,
        type: 'timeSignature',
        numerator: upper,
        denominator: lower,
        metronome: 24,
        thirtyseconds: 8,
      },
    });
  };
  let now: Meter | undefined;
  const first = pattern.measures[0]!.meter;
  if (counted) sign((now = first), 0);
  playPattern(pattern).forEach(({ at, measure }, i) => {
    const short = i === 0 && pattern.pickup && !counted ? meterOfPickup(measure.length) : undefined;
    const meter = short ?? measure.meter;
    if (!now || !sameMeter(now, meter)) sign((now = meter), before + tick(at));
    if (measure.letter !== undefined)
      events.push({ tick: before + tick(at), order: 0, event: { meta: true, type: 'marker', text: measure.letter } });
  });
  return events;
}

function meterOfPickup({ n, d }: Fraction): Meter | undefined {
  const lower = Math.max(4, d);
  return lower <= 32 && (lower & (lower - 1)) === 0 ? { upper: (n * lower) / d, lower } : undefined;
}

function inDeltas(events: readonly Timed[]): MidiEvent[] {
  const sorted = [...events].sort((a, b) => a.tick - b.tick || a.order - b.order);
  let before = 0;
  const deltas = sorted.map(({ tick, event }) => {
    const deltaTime = tick - before;
    before = tick;
    return { ...event, deltaTime } as unknown as MidiEvent;
  });
  return [...deltas, { deltaTime: 0, meta: true, type: 'endOfTrack' }];
}
