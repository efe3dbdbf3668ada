import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { toNumber } from '../rhythm/fraction.ts';
import { anyScore, scoreOfText } from '../rhythm/arbitraryScore.test-helper.ts';
import { attacksOf } from '../rhythm/score.ts';
import { printScore } from '../rhythm/scoreText.ts';
import type { ReadFile } from './piece.ts';
import { readAbc } from './readAbc.ts';
import { readMidi } from './readMidi.ts';
import { readMusicXml } from './readMusicXml.ts';
import { readText } from './readText.ts';
import { scoreOfPiece } from './scoreOfPiece.ts';
import { writeAbcScore } from './writeAbc.ts';
import { writeMidiScore } from './writeMidi.ts';
import { writeMusicXmlScore } from './writeMusicXml.ts';
import { writeWavScore } from './writeWav.ts';
import { partSound } from '../sound/partSounds.ts';
import { synthesise } from '../sound/sounds.ts';

/** What a file of several parts was read as; why it was not, else. */
function back(read: ReadFile): string {
  if (!read.ok) return read.trouble;
  const built = scoreOfPiece(read.pieces[0]!);
  return built.ok ? printScore(built.score) : built.trouble;
}

const WAYS = {
  text: (text: string) => readText(`${text}\n`),
  MusicXML: (text: string) => readMusicXml(writeMusicXmlScore(scoreOfText(text))),
  ABC: (text: string) => readAbc(writeAbcScore(scoreOfText(text))),
};

const SCORES = [
  '4/4 [clap] q q h | q e e h [stamp] h h | h h',
  '4/4 [clap] ^ q | q. e q q |: 3{e e e} q h :| h. [stamp]* h h [pat] (q) | (M2) | h.',
  '7/8[2+2+3] [A] e e e e q. | "A" #5 q q q. [B] (M1) | q q q.',
  '3/4 [left] h q~ | q h | 4/4 (M3) [right] h. | q q q | (M1) | w | w',
  "4/4 [Möwen & Co] q'crab' q h [2+2] s s s s e. s h [1]* w",
];

describe.each(Object.entries(WAYS))('several parts in %s', (_name, way) => {
  it.each(SCORES)('%s', (text) => expect(back(way(text))).toBe(printScore(scoreOfText(text))));

  it('come back as they were', () => {
    fc.assert(
      fc.property(anyScore, (score) => {
        const text = printScore(score);
        expect(back(way(text))).toBe(text);
      }),
      { numRuns: 150 },
    );
  });
});

it('gives each part of MusicXML an instrument of its own', () => {
  const [first, second] = writeMusicXmlScore(scoreOfText('4/4 [stamp] w [snap] h h')).split('<part id="P2">');
  expect(first).toContain('<midi-unpitched>37</midi-unpitched>');
  expect(first!.match(/instrument id="P1-I1"/g)!.length).toBeGreaterThan(1);
  expect(second!.match(/instrument id="P2-I1"/g)).toHaveLength(2);
  expect(second).not.toContain('P1-I1');
});

describe('several parts in MIDI', () => {
  it.each(SCORES)('%s has its attacks, a track a part', (text) => {
    const score = scoreOfText(text);
    const read = readMidi(writeMidiScore(score, { bpm: 60 }));
    if (!read.ok) throw new Error(read.trouble);
    const [piece] = read.pieces;
    expect(piece!.played!.map(({ part }) => part)).toEqual(
      score.parts.filter((_, i) => attacksOf(score).some(({ parts }) => parts.includes(i))).map(({ name }) => name),
    );
    const heard = piece!.played!.flatMap(({ onsets }) => onsets).sort((a, b) => a - b);
    const { lower } = score.parts[0]!.pattern.measures[0]!.meter;
    const attacks = attacksOf(score);
    const first = toNumber(attacks[0]!.at);
    const meant = attacks.flatMap(({ at, parts }) => parts.map(() => (toNumber(at) - first) * lower));
    heard.forEach((time, i) => expect(time - heard[0]!).toBeCloseTo(meant[i]!, 3));
    expect(heard).toHaveLength(meant.length);
  });

  it('come back where all of them sound', () => {
    const text = '4/4 [clap] |: q q h :| q e e h [stamp] h h | h h';
    expect(back(readMidi(writeMidiScore(scoreOfText(text), { countIn: true })))).toBe(text);
  });
});

describe('parts of other programs', () => {
  const part = (id: string, measures: string) => `<part id="${id}">${measures}</part>`;
  const TIME =
    '<attributes><divisions>1</divisions>' + '<time><beats>4</beats><beat-type>4</beat-type></time></attributes>';
  const measure = (number: number, notes: string, first = false) =>
    `<measure number="${number}">${first ? TIME : ''}${notes}</measure>`;
  const note = (duration: number) =>
    `<note><pitch><step>C</step><octave>4</octave></pitch><duration>${duration}</duration></note>`;
  const file = (names: readonly string[], parts: readonly string[]) =>
    [
      '<score-partwise><part-list>',
      ...names.map((name, i) => `<score-part id="P${i + 1}"><part-name>${name}</part-name></score-part>`),
      '</part-list>',
      ...parts,
      '</score-partwise>',
    ].join('');
  const whole = measure(1, note(4), true);

  it('are one score where they have the same measures, each with a name that can be written', () => {
    const xml = file(["Voice [I] 'high'", 'Drum', 'Drum'], [part('P1', whole), part('P2', whole), part('P3', whole)]);
    expect(back(readMusicXml(xml))).toBe('4/4 [Voice I high] w [Drum] w [Drum 2] w');
  });

  it.each([
    ['one is longer', [whole, whole + measure(2, note(4))], 'part “B” has 2 measures, and the first has 1'],
    [
      'one has another meter',
      [whole, measure(1, note(3), true).replace('<beats>4', '<beats>3')],
      'part “B” has another meter or repeat in measure 1',
    ],
    [
      'one has a pickup',
      [
        measure(0, note(1), true).replace('number="0"', 'number="0" implicit="yes"') + measure(1, note(4)),
        measure(0, note(2), true).replace('number="0"', 'number="0" implicit="yes"') + measure(1, note(4)),
      ],
      'part “B” has another pickup',
    ],
    ['there is one alone', [whole], 'it has 1 parts that sound; two to 4 make a score'],
    ['there are five', Array.from({ length: 5 }, () => whole), 'it has 5 parts that sound; two to 4 make a score'],
  ])('are none where %s', (_what, bodies, trouble) => {
    const xml = file(
      bodies.map((_, i) => 'ABCDE'[i]!),
      bodies.map((body, i) => part(`P${i + 1}`, body)),
    );
    expect(back(readMusicXml(xml))).toBe(trouble);
  });

  it('of ABC are its voices, which have names of their own', () => {
    const abc = 'X:1\nT:Tide\nM:4/4\nL:1/4\nV:1 name="Low"\nV:2\nK:C\nV:1\nC2 C2|C4|]\nV:2\nC C C2|z4|]\n';
    expect(back(readAbc(abc))).toBe('4/4 [Low] h h | w [part 2] q q h | (w)');
  });

  it('of a range are cut at the same measures', () => {
    const read = readText('4/4 [clap] q q h | w | q q q q [stamp]* h h\n');
    if (!read.ok) throw new Error(read.trouble);
    const built = scoreOfPiece(read.pieces[0]!, { from: 2, to: 3 });
    expect(built.ok && printScore(built.score)).toBe('4/4 [clap] #2 w | q q q q [stamp] h h | h h');
  });
});

describe('several parts as sound', () => {
  const wave = (text: string) => {
    const file = writeWavScore(scoreOfText(text), { bpm: 120 });
    const view = new DataView(file.buffer);
    const [channels, rate] = [view.getUint16(22, true), view.getUint32(24, true)];
    const side = (channel: number) =>
      Float32Array.from({ length: (file.length - 44) / 4 }, (_, i) => view.getInt16(44 + 4 * i + 2 * channel, true));
    return { channels, rate, left: side(0), right: side(1) };
  };
  /** Seconds after the first click at which one side has more than the clicks both have. */
  const struckOn = (own: Float32Array, other: Float32Array, rate: number) => {
    const times: number[] = [];
    own.forEach((sample, i) => {
      const time = i / rate;
      if (Math.abs(sample - other[i]!) > 3000 && time - (times.at(-1) ?? -1) > 0.2) times.push(time);
    });
    return times.map((time) => Math.round(time * 100) / 100);
  };

  it('have a side each, and the clicks on both', () => {
    const { channels, rate, left, right } = wave('4/4 [clap] q (q) q (q) [stamp] (q) q (q) q');
    expect(channels).toBe(2);
    // A quarter of a second of silence, four clicks, then by turns: all that is not on both sides.
    expect(struckOn(left, right, rate)).toEqual([2.25, 2.75, 3.25, 3.75]);
    const loud = (side: Float32Array, at: number) =>
      Math.max(...side.slice(Math.round(at * rate), Math.round((at + 0.05) * rate)).map(Math.abs));
    for (const at of [0.25, 0.75, 1.25, 1.75]) expect(loud(left, at)).toBeCloseTo(loud(right, at), 0);
    expect(loud(left, 2.25)).toBeGreaterThan(1.2 * loud(right, 2.25));
    expect(loud(right, 2.75)).toBeGreaterThan(1.2 * loud(left, 2.75));
  });

  it('sound each like itself, no two at about the same pitch', () => {
    const kinds = ['clap', 'stamp', 'pat', 'snap', 'left', 'right'].map((name, i) => partSound(name, i).struck);
    // Turns up and down a second: twice the pitch that is heard.
    const pitches = kinds.map((kind) => {
      const samples = synthesise({ kind }, 44_100).slice(0, 2000);
      return samples.filter((sample, k) => k > 0 && sample * samples[k - 1]! < 0).length;
    });
    const apart = pitches.toSorted((a, b) => a - b).map((pitch, i, all) => (i === 0 ? 2 : pitch / all[i - 1]!));
    expect(Math.min(...apart)).toBeGreaterThan(1.2);
    expect(partSound('group A', 0).struck).toBe('clap');
    expect([1, 2, 3].map((i) => partSound(`group ${i}`, i).struck)).toEqual(['stamp', 'wood', 'pat']);
    expect(partSound(' STAMP ', 0)).toBe(partSound('stamp', 3));
  });
});
