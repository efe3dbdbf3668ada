import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyPattern, fullPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { printRhythm } from '../rhythm/text.ts';
import { readAbc } from './readAbc.ts';
import { readBack } from './read.test-helper.ts';
import { writeAbc } from './writeAbc.ts';

/** A tune with the usual header. */
const tune = (body: string, { meter = '4/4', unit = '1/8', key = 'C' } = {}) =>
  `X:1\nT:Gulls\nM:${meter}\nL:${unit}\nK:${key}\n${body}\n`;

describe('our own ABC', () => {
  const same = (pattern: Pattern) => {
    expect(readBack(readAbc(writeAbc(pattern))).text).toBe(printRhythm(pattern));
  };
  it('is read back as the same pattern, whatever rhythm text can write', () => {
    fc.assert(fc.property(anyPattern, same), { numRuns: 400 });
    fc.assert(fc.property(fullPattern, same), { numRuns: 150 });
  });
  it.each([
    '4/4 ^ q q q q | w',
    '4/4 ^ #5 q | w',
    '4/4 q q | w',
    '4/4 q | q',
    '4/4 h',
    '6/8[6] e e e e e e',
    '4/4 |: h :| |: h :|',
    '4/4 #5 (M7) | "A & B" w',
    "4/4 q'a & b' q'100%' h",
    '4/4 4:4{q q q q}',
  ])('%s', (text) => same(patternOf(text)));
  it('keeps title and tempo', () => {
    const abc = writeAbc(patternOf('4/4 w'), { title: 'Low "tide" 50%', quarters: 96 });
    const read = readAbc(abc);
    expect(read.ok && read.pieces[0]).toMatchObject({ title: 'Low "tide" 50%', quarters: 96 });
  });
});

describe('ABC of others', () => {
  it.each([
    [
      'lengths',
      tune('A4 B2 c d|A/B/c/d/ A//B//c3/2 d z y2 z|x2 z2 A4|'),
      '4/4 h q e e | s s s s t t e. e (e) (e) | (q) (q) h',
    ],
    ['three-quarter lengths', tune('A3/4B/4 c/>d/ e2 z2 f2|'), '4/4 s. t s. t q (q) q'],
    ['broken rhythm', tune('A>B c<d e>>f g<<a|A2>B2 z>A d<z|'), '4/4 e. s s e. e.. t t e.. | q. e (e.) s s (e.)'],
    [
      'triplets',
      tune('(3ABc (3:2:2A2B d2 e2|(3:2A/B/c/ z/ A4 z2 z/|'),
      '4/4 3{e e e} 3{q e} q q | 3{s s s} (s) h (q) (s)',
    ],
    [
      'groups by the meter',
      tune('(2AB (4ABcd|(3ABc (3zAz A2|', { meter: '6/8' }),
      '6/8 2:3{e e} 4:3{e e e e} | 3{e e e} 3{(e) e (e)} q',
    ],
    ['five in compound meter', tune('(5ABcde d3|', { meter: '6/8' }), '6/8 5:3{e e e e e} q.'],
    ['five in simple meter', tune('(5ABcde A2 B4|'), '4/4 5:2{e e e e e} q h'],
    ['ties', tune('A2-A B-B2 c2-|c4 z4|[CE]4-[CE]4|[CE]4-[CG]4|A4-B4|'), '4/4 q~ e e~ q q~ | h (h) | h~ h | h h | h h'],
    ['rests of measures', tune('Z|Z3|X2|z8|'), '4/4 (M1) | (M3) | (M2) | (w)'],
    ['repeats', tune('|:A8:|B8::c8:|'), '4/4 |: w :| w :| |: w :|'],
    ['double repeats', tune('A8:||:B8:|'), '4/4 w :| |: w :|'],
    ['three times', tune('|::A8::|B8|'), '4/4 w | #1 w | #1 w | w'],
    ['endings', tune('|:A8|1B8:|2c4d4|]'), '4/4 w | w | #1 w | #3 h h'],
    ['a first ending alone', tune('|:A8|1B8:|c8|'), '4/4 w | w | #1 w | #3 w'],
    ['a first ending alone, at the end', tune('|:A8|1B4B4:|'), '4/4 w | h h | #1 w'],
    ['both times the same ending', tune('|:A8|1,2B4B4:|c8|'), '4/4 w | h h | #1 w | h h | w'],
    [
      'text that looks like music',
      tune('A8|\n%%begintext\nB8|X:7\n%%endtext\nc8|\n%%beginps x\nd\n%%endps'),
      '4/4 w | w',
    ],
    ['a text that does not end', tune('A8|\n%%begintext\nB8|'), '4/4 w'],
    ['fields, words and chords in a second voice', tune('A4B4 & [M:3/4]c2"a|b"[ce]2!f!c4 | A8|'), '4/4 h h | w'],
    ['endings in brackets', tune('|:A8|[1-2 B8:|[3 c4d4||d8|'), '4/4 w | w | #1 w | w | #1 w | #3 h h | w'],
    [
      'endings without a sign at the start',
      tune('A8|B8|1c8:|2d8||\n|:e8|f4f4:|'),
      '4/4 w | w | w | #1 w | w | #4 w |: w | h h :|',
    ],
    ['a pickup', tune('d2|A8|B6|]'), '4/4 ^ q | w | h.'],
    ['a pickup inside the repeat', tune('|:d2|A8|B6:|'), '4/4 ^ |: q | w | h. :|'],
    [
      'letters over a pickup inside a measure',
      tune('P:A\n|:d2|A8|B6:|\nP:B\n|:g2|A4A4|B6:|'),
      '4/4 ^ "A" q | w | h. q | #1 "A" w | h. q | "B" h h | h. q | #3 "B" h h | h.',
    ],
    [
      'a second part with its own pickup',
      tune('|:d2|A8|B6:|\n|:g2|A4A4|B6:|'),
      '4/4 ^ q | w | h. q | #1 w | h. q | h h | h. q | #3 h h | h.',
    ],
    ['a pickup after a double bar', tune('d2|A8|B6||g2|A8|B6|]'), '4/4 ^ q | w | h. q | w | h.'],
    [
      'changes of meter and unit',
      tune('A8|[M:3/4]A6|\nM:6/8\nA3B3|[L:1/16]A6B6|'),
      '4/4 w | 3/4 h. | 6/8 q. q. | q. q.',
    ],
    ['groups in the meter', tune('ABc de fg|', { meter: '3+2+2/8' }), '7/8[3+2+2] e e e e e e e'],
    ['cut time', tune('A4 B4|', { meter: 'C|' }), '2/2 h h'],
    ['no meter', tune('A2B2c2|A4B4c4A2|', { meter: 'none' }), '3/4 q q q | 7/4 h h h q'],
    ['no unit, short meter', 'X:1\nM:2/4\nK:C\nA4B4|\n', '2/4 q q'],
    ['no unit, no number', 'M:4/4\nK:C\nA4B4|\n', '4/4 h h'],
    ['parts', tune('P:A\nA8|B8|\nP:B\nc8|]'), '4/4 "A" w | w | "B" w'],
    ['lines that go on', tune('A4\\\nB4|%comment\nc8|'), '4/4 h h | w'],
    ['air and old line ends', tune(' A2  B2 c2d2  | A8 |]').replaceAll('\n', '\r\n'), '4/4 q q q q | w'],
    ['a second voice in the measure', tune('A4B4 & c2c2c2c2 | A8|'), '4/4 h h | w'],
    ['dashed bars', tune('A4.|B4|'), '4/4 h h'],
    ['bare bars at the line', tune('|A8|\n|B8|\n||c8||'), '4/4 w | w | w'],
    ['decorated bars', tune('[|A8|B8|]'), '4/4 w | w'],
    [
      'a group too large',
      tune('(127:64:3ABC A6|'),
      'measure 1 cannot be written: it has a group of 127 in the time of 64; groups of up to 16 can be written',
    ],
  ])('%s', (_, abc, text) => expect(readBack(readAbc(abc)).text).toBe(text));

  it.each([
    ['a meter that changes about', tune('A4|B6|c4|', { meter: '2/4 3/4' }), '2/4 h | 3/4 h. | 2/4 h', ['2/4 3/4']],
    ['a meter there is not', tune('A8|B4|', { meter: '33/32' }), '4/4 w | 2/4 h', ['33/32']],
  ])('%s: says so, and each measure is as long as it is', (_, abc, text, meters) => {
    const { troubles, ...read } = readBack(readAbc(abc));
    expect([read.text, troubles]).toEqual([text, meters.map((meter) => `1: the meter “${meter}” cannot be read`)]);
  });
  it('says where groups stand in groups', () => {
    expect(readBack(readAbc(tune('A8|(3:2:3AB(3cde fgab|'))).troubles).toEqual([
      '2: a group begins inside another one',
    ]);
  });
  it('goes on with a title, and with words', () => {
    const read = readAbc(tune('+:nobody\nA8|\nw:la la\n+:la').replace('T:Gulls\n', 'T:Gulls\n+:at noon\n'));
    expect(read.ok && read.pieces[0]!.title).toBe('Gulls at noon');
    expect(readBack(read).leftOut).toEqual({ lyrics: 3, pitches: 1 });
  });

  it('counts what it leaves out', () => {
    const body = '{g}A"Am"B !trill!c~d|"^slow"{/fe}e2 .f(.g|!f!A4) [CEG]4!D.C.!|\nw:la la-la';
    expect(readBack(readAbc(tune(body))).leftOut).toEqual({
      'grace-notes': 3,
      'chord-symbols': 1,
      ornaments: 2,
      words: 1,
      articulations: 2,
      slurs: 1,
      dynamics: 1,
      jumps: 1,
      'chord-notes': 2,
      lyrics: 3,
      pitches: 11,
    });
  });
  it.each([
    ['C', 'CDE ^F =F _B cd', "4/4 e'C' e'D' e'E' e'F#' e'F' e'Bb' e'C' e'D'"],
    ['D', 'FFcc =FFzz|F8', "4/4 e'F#' e'F#' e'C#' e'C#' e'F' e'F' (e) (e) | w'F#'"],
    ['Gm', 'BEbe', "4/4 e'Bb' e'Eb' e'Bb' e'Eb'"],
    ['A mix', 'GFCz', "4/4 e'G' e'F#' e'C#' (e)"],
  ])('in %s has the letters of %s', (key, body, text) => {
    const read = readBack(readAbc(tune(`${body}|`, { key })), { labels: 'letters' });
    expect(read.text).toBe(text);
    expect(read.leftOut.pitches).toBeUndefined();
  });
  it('reads every voice and every tune', () => {
    const voices = readAbc(tune('V:1 name="Top"\nCDEF GABc|c8|\nV:2\nC4 E4|G,8|\nV:1\nc8|'));
    expect(readBack(voices, {}, { voice: '1' }).text).toBe('4/4 e e e e e e e e | w | w');
    expect(readBack(voices, {}, { voice: '2' }).text).toBe('4/4 h h | w');
    const inline = readAbc('X:1\nM:4/4\nL:1/4\nV:a\nV:b\nK:C\n[V:a]ABcd|[V:b]A2B2|\n');
    expect(readBack(inline, {}, { voice: 'b' }).text).toBe('4/4 h h');
    const tunes = readAbc(`L:1/4\n\n${tune('A8|')}\nX:2\nT:two\nM:2/4\nK:C\nAB|\n`);
    expect(readBack(tunes, {}, { piece: 1 }).text).toBe('2/4 q q');
    expect(tunes.ok && tunes.pieces.map(({ title }) => title)).toEqual(['Gulls', 'two']);
  });
  it.each([
    ['Q:1/4=120', 120],
    ['Q:3/8=60', 90],
    ['Q:"Brisk" 1/2=60', 120],
    ['Q:100', 100],
  ])('%s is %i quarters a minute', (field, quarters) => {
    const read = readAbc(`X:1\n${field}\nK:C\nA|`);
    expect(read.ok && read.pieces[0]!.quarters).toBe(quarters);
  });
  it.each([
    ['', 'there is no tune in it'],
    ['X:1\nT:only words\n', 'there is no tune in it'],
    [tune('A/0|'), 'has nothing to be divided by'],
    [`X:1\nK:C\n${'A'.repeat(2_100_000)}`, 'a file of 2.1 MB is too much'],
  ])('says why it cannot read %.20s', (abc, trouble) => expect(readBack(readAbc(abc)).text).toContain(trouble));
});
