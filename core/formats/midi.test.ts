import fc from 'fast-check';
import { type MidiEvent, parseMidi, writeMidi as midiBytes } from 'midi-file';
import { describe, expect, it } from 'vitest';
import { fullPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { soundKey, soundings } from '../rhythm/soundings.ts';
import { randomFrom } from '../random.ts';
import { ZERO, compare } from '../rhythm/fraction.ts';
import { barCheck, barsAddUp } from '../rhythm/barCheck.ts';
import { printRhythm } from '../rhythm/text.ts';
import { scheduleOf } from '../timing/schedule.ts';
import { buildPattern } from './buildPattern.ts';
import { readBack } from './read.test-helper.ts';
import { readMidi } from './readMidi.ts';
import { writeMidi } from './writeMidi.ts';

function back(bytes: Uint8Array, part = 0): Pattern {
  const read = readMidi(bytes);
  if (!read.ok) throw new Error(read.trouble);
  const found = read.pieces[0]!.parts[part];
  if (!found) throw new Error(`no part: ${JSON.stringify(read.pieces[0])}`);
  const built = buildPattern(found.voices[0]!);
  if (!built.ok) throw new Error(built.trouble);
  return built.pattern;
}

const OWN = [
  '4/4 q q e e q',
  '4/4 q. e (q) q | h. (q)',
  '3/4 ^ q | h q | q. e',
  '6/8 q e q. | e e e q.',
  '4/4 3{e e e} q 3{e (e) e} q',
  '4/4 3{q q q} h',
  '2/4 q s s e | (e) q e',
  '4/4 (M1) | q q h',
  '4/4 5:4{s s s s s} q h',
  '4/4 e (e) e (e) h',
  '3/4 "A" q q q | q h',
];

/** What is written in beats: a cell, and how many quarters it lasts. */
const CELLS: readonly (readonly [string, number])[] = [
  ['q', 1],
  ['(q)', 1],
  ['e e', 1],
  ['e (e)', 1],
  ['(e) e', 1],
  ['e. s', 1],
  ['s e.', 1],
  ['s e s', 1],
  ['s s s s', 1],
  ['e s s', 1],
  ['3{e e e}', 1],
  ['3{e (e) e}', 1],
  ['3{q e}', 1],
  ['3{s s s} e', 1],
  ['5:4{s s s s s}', 1],
  ['t t s e', 1],
  ['h', 2],
  ['q. e', 2],
  ['e q e', 2],
  ['3{q q q}', 2],
  ['3{q (q) q}', 2],
  ['w', 4],
];
const inBeats = fc.array(fc.constantFrom(...CELLS), { minLength: 4, maxLength: 24 }).map((cells) => {
  const measures: string[][] = [[]];
  let full = 0;
  for (const [text, quarters] of cells) {
    if (full % 4 === 0 && full > 0 && measures.at(-1)!.length > 0) measures.push([]);
    if ((full % 4) + quarters > 4 || (quarters === 2 && full % 2 === 1)) continue;
    measures.at(-1)!.push(text);
    full += quarters;
  }
  while (full % 4 !== 0) {
    measures.at(-1)!.push('q');
    full++;
  }
  return patternOf(
    `4/4 ${measures
      .filter((items) => items.length > 0)
      .map((items) => items.join(' '))
      .join(' | ')} | w`,
  );
});

/** A file as another program leaves it: it knows nothing of the text in it. */
const asOthers = (bytes: Uint8Array) =>
  changed(bytes, (events) => events.filter(({ type }) => type !== 'sequencerSpecific'));

function changed(bytes: Uint8Array, change: (events: MidiEvent[]) => MidiEvent[]): Uint8Array {
  const { header, tracks } = parseMidi(bytes);
  return Uint8Array.from(midiBytes({ header, tracks: tracks.map(change) }));
}

describe('our own MIDI', () => {
  it('comes back as it was written, whatever that is', () => {
    fc.assert(
      fc.property(fullPattern, fc.boolean(), (pattern, counted) => {
        fc.pre(soundings(pattern).length > 0);
        const bytes = writeMidi(pattern, { countIn: counted });
        expect(printRhythm(back(bytes))).toBe(printRhythm(pattern));
      }),
      { numRuns: 200 },
    );
  });
  it.each(['2/4 |: q (e) e :| h', "4/4 (M2) | q'é' q h | (w)", '3/4 ^ q | "A" h q | q. e (q) | h'])(
    'keeps what MIDI has no signs for: %s',
    (text) => {
      expect(printRhythm(back(writeMidi(patternOf(text), { title: 'Tide' })))).toBe(text);
      expect(printRhythm(back(writeMidi(patternOf(text), { countIn: true })))).toBe(text);
    },
  );
  it.each<[string, (events: MidiEvent[]) => MidiEvent[], string]>([
    [
      'a note is moved',
      (events) => events.map((event) => (event.type === 'noteOn' ? { ...event, deltaTime: 480 } : event)),
      '4/4 (e) q. q. e~ | q q. q.',
    ],
    [
      'all of it is a beat later',
      (events) =>
        events.map((event, i) =>
          i === events.findIndex(({ type }) => type === 'noteOn') ? { ...event, deltaTime: 960 } : event,
        ),
      '4/4 (q) q q q | q q q q | q',
    ],
    [
      'the last note is taken out',
      (events) => events.filter((_event, i) => i < events.findLastIndex(({ type }) => type === 'noteOn')),
      '4/4 q q',
    ],
    [
      'it has another meter',
      (events) => events.map((event) => (event.type === 'timeSignature' ? { ...event, numerator: 3 } : event)),
      '3/4 q q q',
    ],
    [
      'its event is broken',
      (events) => events.map((event) => (event.type === 'sequencerSpecific' ? { ...event, data: [0x7d, 99] } : event)),
      '4/4 q q',
    ],
  ])('is read by its notes where %s', (_, change, text) => {
    expect(printRhythm(back(changed(writeMidi(patternOf('4/4 |: q q q q :|')), change)))).toMatch(
      new RegExp(`^${text.replaceAll(/[()|.]/g, '\\$&')}`),
    );
  });
  it('is the same with a count-in, where that is in the file', () => {
    const counted = writeMidi(patternOf('3/4 ^ q | "A" h q | q. e (q) | h'), {
      countIn: true,
      sound: 'wood',
      title: 'Tide',
    });
    expect(printRhythm(back(asOthers(counted)))).toBe('3/4 (M1) | (h) q | "A" h q | q. e (q) | h (q)');
    // The count-in is no part of the piece.
    const read = readMidi(counted);
    expect(read.ok && read.pieces[0]!.parts.map(({ name }) => name)).toEqual(['Rhythm']);
    expect(read.ok && read.pieces[0]!.title).toBe('Tide');
  });
});

describe('the same from another program', () => {
  it.each(OWN)('%s', (text) => expect(printRhythm(back(asOthers(writeMidi(patternOf(text)))))).toBe(text));
  it.each([
    '12/8 q. 2:3{e e} 4:3{e e e e} e e e',
    '9/8 2:3{e e} q. e e e | 4:3{e e e e} q. q e',
    '5/4 3{e e e} q 5:4{s s s s s} q e e',
    '5/4 3{q q q} 3{e e e} h',
    '4/4 e 3{e e e} e h',
    '4/4 e 3{q q q} e q',
  ])('%s', (text) => expect(printRhythm(back(asOthers(writeMidi(patternOf(text)))))).toBe(text));
  it('sounds the same, whatever is written in beats', () => {
    fc.assert(
      fc.property(inBeats, (pattern) => {
        const read = back(asOthers(writeMidi(pattern)));
        expect(soundKey(read)).toBe(soundKey(pattern));
        expect(barsAddUp(barCheck(read))).toBe(true);
      }),
      { numRuns: 500 },
    );
  });
  it('has as many ticks as its groups need', () => {
    const bytes = writeMidi(patternOf('4/4 7:4{s s s s s s s} q h'));
    expect((bytes[12]! * 256 + bytes[13]!) % 7).toBe(0);
    expect(printRhythm(back(asOthers(bytes)))).toBe('4/4 7:4{s s s s s s s} q h');
  });
  it('sounds the same, wherever its groups begin; what is moved is said, and rare', () => {
    let moved = 0;
    const numRuns = 200;
    fc.assert(
      fc.property(fullPattern, (pattern) => {
        // A pickup that is played again in the middle moves the bar lines, and MIDI has no sign for that; nor for the
        // bar line after a pickup where nothing sounds behind it.
        const last = soundings(pattern).at(-1);
        fc.pre(last !== undefined && !(pattern.pickup && pattern.measures.some((one) => one.repeatEnd)));
        fc.pre(compare(last, ZERO) >= 0);
        const read = readMidi(asOthers(writeMidi(pattern)));
        const built = read.ok ? buildPattern(read.pieces[0]!.parts[0]!.voices[0]!) : undefined;
        if (!built?.ok) throw new Error('it cannot be read');
        expect(barsAddUp(barCheck(built.pattern))).toBe(true);
        if (built.troubles.length > 0) moved++;
        else expect(soundKey(built.pattern)).toBe(soundKey(pattern));
      }),
      { numRuns },
    );
    expect(moved).toBeLessThan(numRuns * 0.03);
  });
});

/** Events of a track, each after so many ticks, as bytes: `[delta, ...event]`. */
function track(events: readonly (readonly number[])[]): number[] {
  const bytes = events.flatMap(([delta, ...event]) => [...lengthBytes(delta!), ...event]);
  return [...letters('MTrk'), 0, 0, bytes.length >> 8, bytes.length & 255, ...bytes];
}
const letters = (text: string) => [...text].map((sign) => sign.charCodeAt(0));
function lengthBytes(value: number): number[] {
  const bytes = [value & 127];
  for (let left = value >> 7; left > 0; left >>= 7) bytes.unshift((left & 127) | 128);
  return bytes;
}
const file = (format: number, division: readonly [number, number], ...tracks: readonly number[][]) =>
  Uint8Array.from([...letters('MThd'), 0, 0, 0, 6, 0, format, 0, tracks.length, ...division, ...tracks.flat()]);
const END = [0, 0xff, 0x2f, 0];
const meter = (upper: number, power: number) => [0, 0xff, 0x58, 4, upper, power, 24, 8];
/** Quarters of 96 ticks: on, off and the next at once. */
const notes = (channel: number, lengths: readonly number[], sounds = 1) =>
  lengths.flatMap((length, i) => [
    [i === 0 ? 0 : Math.round(lengths[i - 1]! * (1 - sounds)), 0x90 + channel, 60, 90],
    [Math.round(length * sounds), 0x80 + channel, 60, 0],
  ]);

/** A file of one track, 120 ticks a quarter, of sounds from one tick to another. */
function soundsFile(sounds: readonly (readonly [from: number, to: number])[]): Uint8Array {
  const events = sounds
    .flatMap(([from, to], i) => [
      [from, 0x90, 50 + (i % 20), 90],
      [to, 0x80, 50 + (i % 20), 0],
    ])
    .sort(([a, one], [b, other]) => a! - b! || one! - other!);
  return file(
    0,
    [0, 120],
    track([...events.map(([at, ...event], i) => [at! - (events[i - 1]?.[0] ?? 0), ...event]), END]),
  );
}
const quarters = (count: number) => Array.from({ length: count }, (_, i) => [i * 120, (i + 1) * 120] as const);

describe('MIDI that was played by hand', () => {
  const read = (sounds: readonly (readonly [number, number])[]) => readBack(readMidi(soundsFile(sounds)));
  it.each([3, 5, 8, 12, 40])('a note that is held %i ticks over the bar is a quarter as the others', (over) => {
    const sounds = quarters(8).map(([from, to], i) => [from, i === 3 ? to + over : to] as const);
    expect(read(sounds).text).toBe('4/4 q q q q | q q q q');
  });
  it('all of them are held over, the last one over the end', () =>
    expect(read(quarters(8).map(([from, to]) => [from, to + 5])).text).toBe('4/4 q q q q | q q q q'));
  it('five over two beats are one group', () =>
    expect(read([0, 48, 96, 144, 192].map((at) => [at, at + 48] as const).concat([[240, 480]])).text).toBe(
      '4/4 5:4{e e e e e} h',
    ));
  it('one too close to be written is said, not lost', () => {
    const { text, troubles } = read([...quarters(4), [475, 479], [480, 600], [600, 960]]);
    expect(text).toBe('4/4 q q q q | q h.');
    expect(troubles).toEqual([expect.stringMatching(/^1: .*; one too close to the next is left out$/)]);
  });
  it('what begins at the bar line after rounding is there, and not said to be left out', () => {
    const sounds = [
      [0, 90],
      [180, 220],
      [260, 280],
      [300, 315],
      [330, 340],
      [350, 410],
      [472, 482],
      [506, 511],
    ] as const;
    const { text, troubles } = read(sounds);
    expect(soundings(patternOf(text))).toHaveLength(sounds.length);
    expect(troubles).toEqual([expect.not.stringContaining('too close')]);
  });
  it('no attack is lost without a word', () => {
    const length = fc.constantFrom(20, 30, 40, 60, 80, 90, 120, 180, 240);
    const sound = fc.record({
      length,
      off: fc.integer({ min: -2, max: 2 }),
      part: fc.constantFrom(0.5, 0.9, 1, 1.04),
      rest: fc.boolean(),
      close: fc.integer({ min: 0, max: 60 }),
    });
    fc.assert(
      fc.property(fc.array(sound, { minLength: 4, maxLength: 30 }), (all) => {
        let at = 0;
        const sounds = all.flatMap(({ length: lasts, off, part, rest, close }) => {
          const from = Math.max(0, at + off);
          at += lasts;
          if (rest) return [];
          const one = [from, from + Math.max(2, Math.round(lasts * part))] as const;
          return close > 56 ? [one, [from + 5 + close / 2, from + 10 + close / 2] as const] : [one];
        });
        fc.pre(sounds.length > 0);
        const file = readMidi(soundsFile(sounds.map(([from, to]) => [Math.round(from), Math.round(to)] as const)));
        const voice = file.ok ? file.pieces[0]!.parts[0]?.voices[0] : undefined;
        fc.pre(voice !== undefined);
        const built = buildPattern(voice);
        if (!built.ok) throw new Error(built.trouble);
        const said = built.troubles.reduce((sum, { trouble }) => {
          const [, many] = /; (one|\d+) too close/.exec(trouble) ?? [];
          return sum + (many === undefined ? 0 : many === 'one' ? 1 : Number(many));
        }, 0);
        const { 'chord-notes': chords = 0, 'close-notes': close = 0 } = voice.leftOut;
        expect(scheduleOf(built.pattern, 60).notes.length + said + chords + close).toBe(sounds.length);
      }),
      { numRuns: 150 },
    );
  });
});

describe('MIDI that is cut off', () => {
  const whole = [...file(1, [0, 96], track([...notes(0, [96, 96, 192]), END]), track([...notes(1, [192, 192]), END]))];
  const cutTo = (length: number) => readBack(readMidi(Uint8Array.from(whole.slice(0, length))));
  it('says so, wherever that is, and reads what is there', () => {
    expect(cutTo(whole.length).leftOut).toEqual({ pitches: 3 });
    const second = whole.length - 8 - track([...notes(1, [192, 192]), END]).length + 8;
    expect(cutTo(second)).toMatchObject({ text: '4/4 q q h', leftOut: { 'cut-off': 1 } });
    expect(cutTo(20).text).toBe('the file is cut off before its first track ends: save or send it again');
    for (let length = 22; length < whole.length; length++) {
      const { text, leftOut } = cutTo(length);
      expect([length, /cut off|no notes/.test(text) || leftOut['cut-off'] === 1]).toEqual([length, true]);
    }
  });
});

describe('MIDI of others', () => {
  it.each<[string, Uint8Array, string]>([
    ['type 0', file(0, [0, 96], track([meter(3, 2), ...notes(0, [96, 48, 48, 96]), END])), '3/4 q e e q'],
    [
      'running status, and a note that ends by striking with no force',
      file(0, [0, 96], track([[0, 0x90, 60, 90], [96, 60, 0], [0, 60, 90], [288, 60, 0], END])),
      '4/4 q h.',
    ],
    [
      'a key that is struck before it is lifted',
      file(
        0,
        [0, 96],
        track([
          [0, 0x90, 60, 90],
          [96, 0x90, 60, 90],
          [2, 0x80, 60, 0],
          [190, 0x80, 60, 0],
          [0, 0x90, 60, 90],
          [96, 0x80, 60, 0],
          END,
        ]),
      ),
      '4/4 q h q',
    ],
    ['frames of a film', file(1, [0x100 - 25, 40], track([...notes(0, [500, 250, 250, 1000]), END])), '4/4 q e e h'],
    [
      'chunks that nobody knows',
      Uint8Array.from([
        ...file(1, [0, 96]),
        ...letters('XFIH'),
        0,
        0,
        0,
        2,
        1,
        2,
        ...track([...notes(0, [192, 192]), END]),
      ]),
      '4/4 h h',
    ],
    [
      'a length beyond the end',
      Uint8Array.from(
        [...file(0, [0, 96], track([...notes(0, [192, 192]), END]))].map((byte, i) => (i === 19 ? 90 : byte)),
      ),
      '4/4 h h',
    ],
    ['six eighths', file(0, [0, 96], track([meter(6, 3), ...notes(0, [48, 48, 48, 96, 48]), END])), '6/8 e e e q e'],
    [
      'a pickup in a meter of its own',
      file(0, [0, 96], track([meter(1, 2), ...notes(0, [96]), meter(3, 2), ...notes(0, [192, 96, 192]), END])),
      '3/4 ^ q | h q | h',
    ],
    [
      'notes that are played short',
      file(0, [0, 96], track([...notes(0, [96, 48, 48, 96, 96, 192, 192], 0.5), END])),
      '4/4 q e e q q | h h',
    ],
    [
      'a chord',
      file(
        0,
        [0, 96],
        track([[0, 0x90, 60, 90], [0, 0x90, 64, 90], [192, 0x80, 60, 0], [0, 0x80, 64, 0], ...notes(0, [192]), END]),
      ),
      '4/4 h h',
    ],
  ])('%s', (_, bytes, text) => expect(readBack(readMidi(bytes)).text).toBe(text));

  it('makes a part of each channel and each track that sounds', () => {
    const two = track([[0, 0xff, 3, 3, ...letters('Top')], ...notes(0, [192, 192]), END]);
    const read = readMidi(
      file(
        1,
        [0, 96],
        track([[0, 0xff, 3, 4, ...letters('Song')], meter(4, 2), END]),
        two,
        track([...notes(9, [96, 96, 192]), END]),
      ),
    );
    expect(read.ok && read.pieces[0]!.title).toBe('Song');
    expect(read.ok && read.pieces[0]!.parts.map(({ name }) => name)).toEqual(['Top', 'Track 3']);
    expect(readBack(read, {}, { part: 1 })).toEqual({ text: '4/4 q q h', leftOut: {}, troubles: [] });
    expect(readBack(read).leftOut).toEqual({ pitches: 2 });
  });

  it('reads what is played to a grid a little unevenly, and takes what is played freely for a performance', () => {
    const random = randomFrom(5);
    const played = (beside: number, drift: number) => {
      const lengths = Array.from({ length: 40 }, (_, i) => [480, 240, 240, 480, 960][i % 5]!);
      let at = 0;
      let before = 0;
      const events = lengths.flatMap((length, i) => {
        const on = Math.max(before, Math.round(at * (1 + drift * i) + (random.next() - 0.5) * 2 * beside));
        at += length;
        const delta = on - before;
        before = on + 100;
        return [
          [delta, 0x99, 39, 90],
          [100, 0x89, 39, 0],
        ];
      });
      return readMidi(file(0, [1, 224], track([...events, END])));
    };
    expect(readBack(played(6, 0)).text).toMatch(/^4\/4 q/);
    const free = played(40, 0.002);
    expect(readBack(free).text).toBe('performed');
    expect(free.ok && free.pieces[0]!.played![0]).toMatchObject({ free: true, part: 'Track 1' });
    expect(free.ok && free.pieces[0]!.played![0]!.onsets[5]).toBeCloseTo(2.5, 0);
  });

  it.each<[string, Uint8Array, string]>([
    ['no MIDI', Uint8Array.from(letters('RIFX0000')), 'it does not begin with “MThd”'],
    ['a header too long', Uint8Array.from([...letters('MThd'), 0, 0, 1, 0, 0, 1]), 'its header says a wrong length'],
    ['no track', file(1, [0, 96]), 'there is no track in it'],
    ['no ticks', file(0, [0, 0], track([...notes(0, [96]), END])), 'a quarter has no ticks'],
    ['no note', file(0, [0, 96], track([END])), 'there are no notes in it'],
    ['a broken track', file(0, [0, 96], track([[0, 0xff, 0x58, 9, 1, 2]])), 'none of them can be read'],
    [
      'an endless note',
      file(0, [0, 1], track([...Array.from({ length: 30 }, () => [0x0f_ff_ff_ff, 0x90, 60, 1]), END])),
      'more than 5000 measures',
    ],
    ['too much', new Uint8Array(4_100_000), 'a file of 4.1 MB is too much'],
  ])('says why it cannot read %s', (_, bytes, trouble) => expect(readBack(readMidi(bytes)).text).toContain(trouble));
});
