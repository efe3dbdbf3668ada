import { perLanguage, t } from '../words/say.ts';
import { type MidiEvent, parseMidi } from 'midi-file';
import { type Fraction, ZERO, add, compare, sub, toNumber } from '../rhythm/fraction.ts';
import { COMMON_TIME, LARGEST_UPPER, LOWER_NUMBERS, type Meter, meterLength, sameMeter } from '../rhythm/meter.ts';
import type { EmptyMeasure } from './layNotes.ts';
import { onGrid } from './midiGrid.ts';
import { COUNT_IN_TRACK, isStill, patternOfBytes } from './midiRhythm.ts';
import { BadFile, Budget, Leavings, type Piece, type Played, type RawPart, type ReadFile, reading } from './piece.ts';
import { rawPattern } from './rawItems.ts';

/** Measures that a file lasts: more are no rhythm to be read. */
const MOST_MIDI_MEASURES = 5000;
/** Quarters a minute where a file says nothing (Standard MIDI Files 1.0). */
const USUAL_QUARTERS = 120;
/** Part of a quarter by which a last note may be held over a bar line: no measure is made for it. */
const HELD_OVER = 1 / 16;
const CUT_OFF = perLanguage(() => t`the file is cut off before its first track ends: save or send it again`);
/** Percussion is on the tenth channel. */
const DRUMS = 9;
/** Part of a whole note that two times may differ by rounding: less than a tick. */
const NEAR = 1e-4;

interface TimedEvent {
  readonly tick: number;
  readonly event: MidiEvent;
}

interface Sound {
  readonly from: number;
  to: number;
  readonly key: number;
}

/**
 * Reads a Standard MIDI File of type 0, 1 or 2, in ticks of a quarter or of film frames. Each channel of each track is
 * a part; one that no grid explains was played freely, and comes back in `played` alone.
 */
export function readMidi(bytes: Uint8Array): ReadFile {
  return reading('midi', bytes.length, () => [new MidiReader(bytes).piece()]);
}

function word(bytes: Uint8Array, at: number, size: number): number {
  let value = 0;
  for (let i = 0; i < size; i++) value = value * 256 + (bytes[at + i] ?? 0);
  return value;
}

const nameAt = (bytes: Uint8Array, at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));

/**
 * The header and the tracks, other chunks skipped as the standard asks.
 * @returns `cut` where a chunk goes on beyond the end, or tracks that the header counts are not there
 */
function chunksOf(bytes: Uint8Array): { header: Uint8Array; tracks: Uint8Array[]; cut: boolean } {
  // Some programs wrap the file once more.
  const start = nameAt(bytes, 0) === 'RIFF' ? 20 : 0;
  if (nameAt(bytes, start) !== 'MThd') throw new BadFile(t`it is no MIDI file: it does not begin with “MThd”`);
  const headerLength = word(bytes, start + 4, 4);
  if (headerLength < 6 || start + 8 + headerLength > bytes.length)
    throw new BadFile(t`it is no whole MIDI file: its header says a wrong length`);
  const tracks: Uint8Array[] = [];
  let at = start + 8 + headerLength;
  let cut = false;
  while (at + 8 <= bytes.length) {
    const length = word(bytes, at + 4, 4);
    if (nameAt(bytes, at) === 'MTrk') tracks.push(bytes.subarray(at + 8, Math.min(bytes.length, at + 8 + length)));
    at += 8 + length;
    cut ||= at > bytes.length;
  }
  const counted = word(bytes, start + 10, 2);
  return { header: bytes.subarray(start + 8, start + 8 + 6), tracks, cut: cut || tracks.length < counted };
}

/** One track alone as a file, so that a broken one does not take the others with it. */
function eventsOf(track: Uint8Array, header: Uint8Array): MidiEvent[] | undefined {
  const file = new Uint8Array(22 + track.length);
  file.set([0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 0, 0, 1, header[4]!, header[5]!, 0x4d, 0x54, 0x72, 0x6b]);
  new DataView(file.buffer).setUint32(18, track.length);
  file.set(track, 22);
  try {
    return parseMidi(file).tracks[0] ?? [];
  } catch {
    // The package throws words and errors of its own; what it could not read is said as a track left out.
    return undefined;
  }
}

class MidiReader {
  private readonly tracks: TimedEvent[][] = [];
  private readonly leavings = new Leavings();
  /** Ticks of a quarter. */
  private readonly quarter: number;
  private readonly tempos: { tick: number; quarters: number }[] = [];
  private readonly meters: { tick: number; meter: Meter }[] = [];
  private readonly markers: { tick: number; text: string }[] = [];
  private last = 0;
  private readonly budget = new Budget();

  constructor(bytes: Uint8Array) {
    const { header, tracks, cut } = chunksOf(bytes);
    if (tracks.length === 0) throw new BadFile(cut ? CUT_OFF() : t`there is no track in it`);
    if (cut) this.leavings.add('cut-off');
    for (const track of tracks) {
      const events = eventsOf(track, header);
      if (events) this.tracks.push(timed(events));
      else this.leavings.add('unreadable');
    }
    if (this.tracks.length === 0)
      throw new BadFile(cut ? CUT_OFF() : t`its tracks are broken: none of them can be read`);
    this.collect();
    this.quarter = this.ticksOfQuarter(word(header, 4, 2));
  }

  piece(): Piece {
    const all = this.tracks.flatMap((track, i) => this.partsOf(track, i));
    // A count-in of our own files is no part of the piece.
    const ours = all.some(({ pattern }) => pattern);
    const heard = all.filter(({ name, pattern }) => !ours || pattern || name !== COUNT_IN_TRACK);
    if (heard.length === 0) throw new BadFile(t`there are no notes in it`);
    const parts: RawPart[] = [];
    const played: Played[] = [];
    for (const { id, name, sounds, leavings, pattern } of heard) {
      this.budget.use('voices');
      const over = this.quarter * HELD_OVER;
      const measures = this.measures(Math.max(...sounds.map(({ from, to }) => Math.max(from + 1, to - over))));
      const notes = sounds.map(({ from, to }) => ({ from: this.wholes(from), to: this.wholes(to) }));
      const own = pattern && isStill(pattern, notes, metersOf(this.meters), 1.5 / this.quarter / 4);
      const written = own ? rawPattern(pattern) : onGrid(notes, measures, this.quarter, leavings);
      const literal = own ? { literal: true } : {};
      if (written)
        parts.push({ id, name, voices: [{ id: '1', measures: written, leftOut: leavings.counts, ...literal }] });
      played.push({ part: name, onsets: sounds.map(({ from }) => this.seconds(from)), free: written === undefined });
    }
    const quarters = this.tempos[0]?.quarters;
    if (this.tempos.length > 1) this.leavings.add('tempo-marks', this.tempos.length - 1);
    return {
      title: this.titleOf(),
      parts,
      leftOut: this.leavings.counts,
      played,
      ...(quarters === undefined ? {} : { quarters }),
    };
  }

  /** The name of the first track that has no notes is that of the piece, in files of several tracks. */
  private titleOf(): string {
    const [first] = this.tracks;
    const named = first?.find(({ event }) => event.type === 'trackName')?.event as { text?: string } | undefined;
    const notes = first?.some(({ event }) => event.type === 'noteOn');
    return this.tracks.length > 1 && notes === false ? (named?.text ?? '').trim() : '';
  }

  /** Tempos, meters and markers, wherever they stand. */
  private collect(): void {
    for (const { tick, event } of this.tracks.flat()) {
      this.last = Math.max(this.last, tick);
      if (event.type === 'setTempo' && event.microsecondsPerBeat > 0)
        this.tempos.push({ tick, quarters: 60_000_000 / event.microsecondsPerBeat });
      else if (event.type === 'timeSignature') {
        const meter = { upper: event.numerator, lower: event.denominator };
        if (meter.upper >= 1 && meter.upper <= LARGEST_UPPER && LOWER_NUMBERS.includes(meter.lower))
          this.meters.push({ tick, meter });
      } else if (event.type === 'marker' && event.text.trim() !== '')
        this.markers.push({ tick, text: event.text.trim() });
      else if (event.type === 'lyrics') this.leavings.add('lyrics');
      else if (event.type === 'cuePoint') this.leavings.add('words');
    }
    const byTick = (a: { tick: number }, b: { tick: number }) => a.tick - b.tick;
    this.tempos.sort(byTick);
    this.meters.sort(byTick);
  }

  private ticksOfQuarter(division: number): number {
    if (division === 0) throw new BadFile(t`its header says that a quarter has no ticks`);
    if (division < 0x8000) return division;
    const frames = 256 - (division >> 8);
    const perSecond = (frames === 29 ? 29.97 : frames) * (division & 0xff);
    if (perSecond === 0) throw new BadFile(t`its header says that a second has no ticks`);
    return (perSecond * 60) / (this.tempos[0]?.quarters ?? USUAL_QUARTERS);
  }

  private wholes(tick: number): number {
    return tick / this.quarter / 4;
  }

  /** When a tick is, by the tempos. */
  private seconds(tick: number): number {
    let at = 0;
    let time = 0;
    let quarters = USUAL_QUARTERS;
    for (const tempo of this.tempos) {
      if (tempo.tick >= tick) break;
      time += ((tempo.tick - at) / this.quarter) * (60 / quarters);
      at = tempo.tick;
      quarters = tempo.quarters;
    }
    return time + ((tick - at) / this.quarter) * (60 / quarters);
  }

  private partsOf(track: readonly TimedEvent[], index: number) {
    const name = (
      track.find(({ event }) => event.type === 'trackName')?.event as { text?: string } | undefined
    )?.text?.trim();
    const written =
      track.map(({ event }) => event.type === 'sequencerSpecific' && patternOfBytes(event.data)).find(Boolean) ||
      undefined;
    const byChannel = new Map<number, { sounds: Sound[]; open: Map<number, Sound[]>; leavings: Leavings }>();
    for (const { tick, event } of track) {
      if (event.type !== 'noteOn' && event.type !== 'noteOff') continue;
      let part = byChannel.get(event.channel);
      if (!part) byChannel.set(event.channel, (part = { sounds: [], open: new Map(), leavings: new Leavings() }));
      if (event.type === 'noteOn') {
        const sound = { from: tick, to: -1, key: event.noteNumber };
        part.sounds.push(sound);
        part.open.set(sound.key, [...(part.open.get(sound.key) ?? []), sound]);
      } else {
        // The same key struck again before it was lifted: the first is lifted first.
        const open = part.open.get(event.noteNumber)?.shift();
        if (open) open.to = tick;
      }
      this.budget.use('notes');
    }
    return [...byChannel].flatMap(([channel, { sounds, leavings }]) => {
      if (sounds.length === 0) return [];
      for (const sound of sounds)
        if (sound.to <= sound.from) sound.to = Math.max(sound.from + 1, sound.to < 0 ? this.last : 0);
      if (channel !== DRUMS) leavings.add('pitches', sounds.length);
      const single = chordsAsOne(sounds, this.quarter / 32, leavings);
      const channels = byChannel.size > 1 ? t`, channel ${channel + 1}` : '';
      return [
        {
          id: `${index + 1}.${channel + 1}`,
          name: `${name || t`Track ${index + 1}`}${channels}`,
          sounds: single,
          pattern: written,
          leavings,
        },
      ];
    });
  }

  /** The measures up to a tick, by the meters of the file. */
  private measures(end: number): EmptyMeasure[] {
    const { meters } = this;
    const measures: EmptyMeasure[] = [];
    let at: Fraction = ZERO;
    let next = 0;
    let meter = COMMON_TIME;
    const until = this.wholes(end) - NEAR;
    while (toNumber(at) < until) {
      if (measures.length >= MOST_MIDI_MEASURES)
        throw new BadFile(t`it lasts more than ${MOST_MIDI_MEASURES} measures`);
      while (meters[next] && this.wholes(meters[next]!.tick) <= toNumber(at) + 1e-6) meter = meters[next++]!.meter;
      const letter = this.markers.find(({ tick }) => Math.abs(this.wholes(tick) - toNumber(at)) < 1e-6)?.text;
      this.budget.use('measures');
      measures.push({ meter, at, length: meterLength(meter), ...(letter === undefined ? {} : { letter }) });
      at = add(at, meterLength(meter));
    }
    return withoutComplement(withPickup(measures), until);
  }
}

const metersOf = (signs: readonly { meter: Meter }[]) => signs.map(({ meter }) => meter);

/** A first measure in a shorter meter of its own is a pickup to the meter that follows. */
function withPickup(measures: readonly EmptyMeasure[]): EmptyMeasure[] {
  const [first, second, ...others] = measures;
  if (!first || !second || sameMeter(first.meter, second.meter)) return [...measures];
  const shorter = compare(first.length, meterLength(second.meter)) < 0;
  return shorter ? [{ ...first, meter: second.meter, pickup: true }, second, ...others] : [...measures];
}

/** After a pickup the last measure may end that much earlier. */
function withoutComplement(measures: readonly EmptyMeasure[], until: number): EmptyMeasure[] {
  const [first] = measures;
  const last = measures.at(-1);
  if (!first?.pickup || !last || last === first) return [...measures];
  const length = sub(last.length, first.length);
  const ends = compare(length, ZERO) > 0 && toNumber(add(last.at, length)) >= until - NEAR;
  return ends ? [...measures.slice(0, -1), { ...last, length }] : [...measures];
}

function timed(events: readonly MidiEvent[]): TimedEvent[] {
  let tick = 0;
  return events.map((event) => ({ tick: (tick += event.deltaTime || 0), event }));
}

/** Sounds that begin together are one: as long as the longest of them. */
function chordsAsOne(sounds: readonly Sound[], together: number, leavings: Leavings): Sound[] {
  const single: Sound[] = [];
  for (const sound of [...sounds].sort((a, b) => a.from - b.from)) {
    const before = single.at(-1);
    if (before && sound.from - before.from < together) {
      before.to = Math.max(before.to, sound.to);
      leavings.add('chord-notes');
    } else single.push({ ...sound });
  }
  return single;
}
