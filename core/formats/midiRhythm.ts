import { strFromU8, strToU8 } from 'fflate';
import { type Fraction, add, sub, toNumber } from '../rhythm/fraction.ts';
import { type Meter, meterLength } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type PlayedMeasure, playPattern } from '../rhythm/place.ts';
import { parseRhythm, printRhythm } from '../rhythm/text.ts';

/**
 * MIDI has no repeats, groups, words or final rests. So our files carry the rhythm text as well, in an event that
 * other programs leave alone: no maker's number (0x7D, MIDI 1.0), our name, the text.
 */
const NO_MAKER = 0x7d;
const NAME = 'rhythm text ';

/** The track of the beats that count in: no part of the piece. */
export const COUNT_IN_TRACK = 'Count-in';

/** What an event that only this program reads holds. */
export function rhythmBytes(pattern: Pattern): number[] {
  return [NO_MAKER, ...strToU8(NAME + printRhythm(pattern))];
}

/** The pattern of such an event; undefined where it is somebody else's, or broken. */
export function patternOfBytes(data: ArrayLike<number>): Pattern | undefined {
  const [maker, ...letters] = Array.from(data);
  if (maker !== NO_MAKER) return undefined;
  const text = strFromU8(Uint8Array.from(letters));
  if (!text.startsWith(NAME)) return undefined;
  const parsed = parseRhythm(text.slice(NAME.length));
  return parsed.ok ? parsed.pattern : undefined;
}

/** What sounds, from beat 1 of measure 1 in whole notes; what is tied sounds on. */
export function soundsOf(played: readonly PlayedMeasure[]): { from: Fraction; to: Fraction }[] {
  const sounds: { from: Fraction; to: Fraction }[] = [];
  for (const { at, measure } of played) {
    for (const { kind, onset, length } of measure.events) {
      if (kind === 'rest') continue;
      const from = sub(add(at, onset), measure.onset);
      const to = add(from, length);
      if (kind === 'note') sounds.push({ from, to });
      else if (sounds.length > 0) sounds[sounds.length - 1]!.to = to;
    }
  }
  return sounds;
}

/**
 * Whether the notes and meters of a file are still those of the pattern: another program may have changed them, and
 * then the text says something that is not true any more.
 * @param notes   in order, in whole notes from the start of the file
 * @param meters  of the file, in order
 * @param near    less than a tick and a half, in whole notes
 */
export function isStill(
  pattern: Pattern,
  notes: readonly { from: number; to: number }[],
  meters: readonly Meter[],
  near: number,
): boolean {
  const played = playPattern(pattern);
  const sounds = soundsOf(played);
  if (notes.length === 0 || sounds.length !== notes.length) return false;
  const before = notes[0]!.from - toNumber(sounds[0]!.from);
  // A count-in is whole measures before it.
  const measure = toNumber(meterLength(pattern.measures[0]!.meter));
  const pickup = -toNumber(played[0]!.at);
  const whole = Math.round(before / measure) * measure;
  const inPlace = [pickup, whole].some((time) => Math.abs(before - time) < near && time >= pickup - near);
  const alike = sounds.every(({ from, to }, i) => {
    const note = notes[i]!;
    return Math.abs(note.from - before - toNumber(from)) < near && Math.abs(note.to - before - toNumber(to)) < near;
  });
  const written = changes(played.map((one) => one.measure.meter));
  const found = changes(meters);
  const same = (from: number) =>
    found.length - from === written.length && written.every((meter, i) => alikeInFile(meter, found[i + from]!));
  // A pickup has a meter of its own in the file.
  return inPlace && alike && (same(0) || (pattern.pickup && same(1)));
}

/** MIDI knows no groups of beats. */
const alikeInFile = (a: Meter, b: Meter) => a.upper === b.upper && a.lower === b.lower;

function changes(meters: readonly Meter[]): Meter[] {
  return meters.filter((meter, i) => i === 0 || !alikeInFile(meter, meters[i - 1]!));
}
