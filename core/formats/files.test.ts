import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { printRhythm } from '../rhythm/text.ts';
import { leftOutList } from '../wording/leftOutWords.ts';
import { buildPattern } from './buildPattern.ts';
import { findPart, findVoice, partsOf, phrasesOf, usualPart } from './choosing.ts';
import { FORMATS, FORMAT_IDS } from './formats.ts';
import { mergeVoices } from './mergeVoices.ts';
import { mxlOf } from './mxl.ts';
import type { ReadFile } from './piece.ts';
import { readBack } from './read.test-helper.ts';
import { readFile } from './readFile.ts';
import { writeMidi } from './writeMidi.ts';
import { writeMusicXml } from './writeMusicXml.ts';
import { unzip, zip } from './zip.ts';

const HALF = patternOf('4/4 ^ q | q. e (q) q | 3{e e e} q (q)');
const TEXT = '4/4 ^ q | q. e (q) q | 3{e e e} q (q)';
const xml = writeMusicXml(HALF, { title: 'Möwen' });

/** In two bytes a letter. */
function utf16(text: string, littleEndian: boolean, mark: boolean): Uint8Array {
  const codes = [...(mark ? `\uFEFF${text}` : text)].map((sign) => sign.charCodeAt(0));
  return Uint8Array.from(codes.flatMap((code) => (littleEndian ? [code & 255, code >> 8] : [code >> 8, code & 255])));
}
const latin = (text: string) => Uint8Array.from([...text].map((sign) => sign.charCodeAt(0)));

const partOf = (id: number) => `<part id="${id}"><measure><note><duration>1</duration></note></measure></part>`;

describe('any file', () => {
  it.each<[string, string, Uint8Array]>([
    ['MusicXML', 'a.musicxml', strToU8(xml)],
    ['MusicXML under another ending', 'a.txt', strToU8(xml)],
    ['with a byte order mark', 'a.xml', strToU8(`\uFEFF${xml}`)],
    ['UTF-16, little end first', 'a.xml', utf16(xml.replace('UTF-8', 'UTF-16'), true, true)],
    ['UTF-16, big end first', 'a.xml', utf16(xml, false, true)],
    ['UTF-16 without a mark', 'a.xml', utf16(xml, true, false)],
    ['UTF-16 without a mark, big end first', 'a.xml', utf16(xml, false, false)],
    ['Latin letters that are declared', 'a.xml', latin(xml.replace('UTF-8', 'ISO-8859-1'))],
    ['packed', 'a.mxl', mxlOf(xml)],
    ['packed under another ending', 'a.zip', mxlOf(xml)],
    ['packed without a container', 'a.mxl', zipSync({ 'inside/song.xml': strToU8(xml) })],
    ['MIDI under another ending', 'a.dat', writeMidi(HALF)],
    ['text', 'a.txt', strToU8(`${TEXT}\n`)],
  ])('%s', async (_, name, bytes) => expect(readBack(await readFile(name, bytes)).text).toBe(TEXT));

  it('reads letters that are no UTF-8 as Latin, and says so', async () => {
    const read = await readFile('a.xml', latin(xml));
    expect(read.ok && read.pieces[0]).toMatchObject({ title: 'Möwen', leftOut: { characters: 1 } });
    const proper = await readFile('a.txt', strToU8('% one \uFFFD\n4/4 w'));
    expect(proper.ok && proper.pieces[0]!.leftOut).toEqual({});
  });

  it.each<[string, string, Uint8Array, string]>([
    ['nothing', 'a.txt', new Uint8Array(), 'the file is empty'],
    ['air', 'a.txt', strToU8(' \n '), 'the file is empty'],
    ['words', 'a.txt', strToU8('4/4 q q h\n\nhello'), 'line 3, column 3: expected'],
    ['a zip of something else', 'a.zip', zip([{ name: 'a.png', bytes: 'x' }]), 'no file in the zip that can be read'],
    [
      'a zip that is cut off',
      'a.zip',
      zip([{ name: 'a.txt', bytes: 'q q h '.repeat(2000) }]).subarray(0, 60),
      'the zip is broken',
    ],
    ['a score that is cut off', 'a.mxl', mxlOf(xml).subarray(0, 700), 'the zip is broken'],
    ['a bad file in a zip', 'a.zip', zip([{ name: 'in/a.txt', bytes: 'x' }]), 'in/a.txt: line 1, column 1'],
    ['too much text', 'a.txt', new Uint8Array(1_100_000).fill(113), 'a file of 1.1 MB is too much'],
    [
      'too large a zip',
      'a.zip',
      Uint8Array.from({ length: 20_100_000 }, (_, i) => [80, 75][i] ?? 0),
      'a zip of 20.1 MB is too much',
    ],
  ])('says why it cannot read %s', async (_, name, bytes, trouble) =>
    expect(readBack(await readFile(name, bytes)).text).toContain(trouble),
  );

  it.each<[string, string, string, string]>([
    ['notes of ABC', 'a.abc', `X:1\nK:C\n${'A'.repeat(150_001)}`, '150000 notes and rests'],
    ['measures of ABC', 'a.abc', `X:1\nK:C\n${'Z999|'.repeat(201)}`, '200000 measures'],
    ['tunes', 'a.abc', 'X:1\nK:C\nA|\n\n'.repeat(2001), '2000 pieces'],
    ['patterns', 'a.txt', '4/4 w\n\n'.repeat(2001), '2000 pieces'],
    ['voices', 'a.xml', `<score-partwise>${Array.from({ length: 2501 }, (_, i) => partOf(i)).join('')}`, '2500 voices'],
  ])('gives up at too many %s', async (_, name, text, most) =>
    expect(readBack(await readFile(name, strToU8(text))).text).toBe(`it has more than ${most}; split it`),
  );

  it('stops a zip that unpacks to more than it says, or to more than can be held', async () => {
    const huge = zipSync({ 'a.xml': new Uint8Array(41_000_000) }, { level: 1 });
    expect(readBack(await readFile('a.mxl', huge)).text).toBe('the zip unpacks to more than 40 MB');
    const lying = Uint8Array.from(huge);
    new DataView(lying.buffer).setUint32(22, 100, true);
    expect(readBack(await readFile('a.zip', lying)).text).toBe('the zip unpacks to more than 40 MB');
  });
});

describe('text', () => {
  const texts = async (text: string) => {
    const read = await readFile('a.txt', strToU8(text));
    if (!read.ok) return read.trouble;
    return read.pieces.map((piece, i) => `${piece.title}: ${readBack(read, {}, { piece: i }).text}`);
  };
  it('is one pattern over several lines, or several patterns', async () => {
    expect(await texts('4/4 q q\nq q |\nw')).toEqual([': 4/4 q q q q | w']);
    expect(await texts('q q q q\nq q h\n3/4 h.')).toEqual([': 4/4 q q q q', ': 4/4 q q h', ': 3/4 h.']);
    expect(await texts('% Low tide\nq q h\n\n% Gulls\n\n3/4 h.\n\nw')).toEqual([
      'Low tide: 4/4 q q h',
      'Gulls: 3/4 h.',
      ': 4/4 w',
    ]);
    expect(await texts('4/4 q q\nq')).toEqual([': 4/4 q q q']);
  });
  it('says on which line it cannot be read', async () => {
    expect(await texts('% one\nq q h\n\n% two\nq q\nq x')).toMatch(/^line 6, column 3: expected/);
  });
});

/** Sound and braille are for ears and fingers. */
const READ_BACK = FORMAT_IDS.filter((id) => id !== 'wav' && id !== 'braille');

describe('what goes out', () => {
  const named = [
    { title: 'Low tide', pattern: HALF },
    { title: 'Low tide', pattern: patternOf('3/4 q q q') },
  ];
  it.each(READ_BACK)('%s is read back', async (id) => {
    const bytes = await FORMATS()[id].write(named.slice(0, 1), { bpm: 90 });
    const read = await readFile(`a${FORMATS()[id].endings[0]}`, bytes);
    expect(readBack(read).text).toBe(TEXT);
    if (id !== 'text') expect(read.ok && Math.round(read.pieces[0]!.quarters!)).toBe(90);
  });
  it('takes several patterns where there is room for them, with their names', async () => {
    for (const id of READ_BACK.filter((one) => FORMATS()[one].many)) {
      const read = await readFile(`a${FORMATS()[id].endings[0]}`, await FORMATS()[id].write(named, {}));
      expect(read.ok && read.pieces.map(({ title }) => title)).toEqual(['Low tide', 'Low tide']);
      expect(readBack(read, {}, { piece: 1 }).text).toBe('3/4 q q q');
    }
  });
  it('puts counts under the notes of a score, and the tempo of the counted beat', async () => {
    const six = [{ title: '', pattern: patternOf('6/8 q e q.') }];
    const out = await FORMATS().musicxml.write(six, { bpm: 60, counts: { school: 'numbers' } });
    const text = new TextDecoder().decode(out);
    expect([...text.matchAll(/<text>(.*?)</g)].map(([, word]) => word)).toHaveLength(3);
    expect(text).toContain('tempo="90"');
  });
  it('is heard as clicks and claps', async () => {
    const wav = await FORMATS().wav.write([{ title: '', pattern: patternOf('4/4 q q q q') }], { bpm: 120 });
    expect(new TextDecoder().decode(wav.subarray(0, 4))).toBe('RIFF');
    // A measure of clicks and one of claps, a second before and after them.
    expect((wav.length - 44) / 2 / 44_100).toBeCloseTo(4 + 1.25, 1);
  });
  it('packs files of one name beside each other', () => {
    const packed = zip([
      { name: 'a.txt', bytes: '1' },
      { name: 'a.txt', bytes: '2' },
      { name: 'b', bytes: strToU8('3') },
    ]);
    expect(unzip(packed, () => true).map(({ name, bytes }) => [name, new TextDecoder().decode(bytes)])).toEqual([
      ['a.txt', '1'],
      ['a 2.txt', '2'],
      ['b', '3'],
    ]);
    expect(unzip(packed, (name) => name === 'b')).toHaveLength(1);
  });
});

describe('choosing', () => {
  it('finds parts by place, id or name, and phrases at letters, repeats and every eight measures', async () => {
    const read = (await readFile('a.txt', strToU8('% One\n4/4 (q) (h.)\n\n% Two\n4/4 w'))) as Extract<
      ReadFile,
      { ok: true }
    >;
    const parts = partsOf(read.pieces);
    expect(findPart(parts, '2')?.piece.title).toBe('Two');
    expect(findPart(parts, 'two')?.piece.title).toBe('Two');
    expect(findPart(parts, 'three')).toBeUndefined();
    expect(usualPart(parts)?.piece.title).toBe('Two');
    expect(findVoice(parts[0]!.part, '1')?.id).toBe('1');
    const long = await readFile('a.txt', strToU8(`4/4 w | w | "A" w | w | w :| ${'w | '.repeat(10)} w`));
    const { measures } = (long as Extract<ReadFile, { ok: true }>).pieces[0]!.parts[0]!.voices[0]!;
    expect(
      phrasesOf(
        measures,
        measures.map((_, i) => i + 1),
      ),
    ).toEqual([
      { from: 1, to: 2 },
      { from: 3, to: 5 },
      { from: 6, to: 13 },
      { from: 14, to: 16 },
    ]);
  });
  it('puts several voices into one rhythm', async () => {
    const merged = async (...texts: readonly string[]) => {
      const read = (await readFile('a.txt', strToU8(texts.join('\n\n')))) as Extract<ReadFile, { ok: true }>;
      const voice = mergeVoices(read.pieces.map(({ parts }) => parts[0]!.voices[0]!));
      const built = voice && buildPattern(voice);
      return built?.ok ? printRhythm(built.pattern) : undefined;
    };
    expect(await merged('4/4 h h', '4/4 q q q (q)')).toBe('4/4 q q h');
    expect(await merged('4/4 w~ | h h', '4/4 (q) q (h) | w')).toBe('4/4 q h. | h h');
    expect(await merged('4/4 3{e e e} q h', '4/4 q q (h)')).toBe('4/4 3{e e e} q h');
    expect(await merged('4/4 ^ q | h h', '4/4 ^ e e | (w)')).toBe('4/4 ^ e e | h h');
    expect(await merged('4/4 (h) (h)', '4/4 (M1)')).toBe('4/4 (M1)');
    expect(await merged('4/4 w', '3/4 h.')).toBeUndefined();
  });
  it('says what was left out, by kind and number', () => {
    expect(leftOutList({ pitches: 12, slurs: 1, 'grace-notes': 2 }, { parts: 1, voices: 2 })).toEqual([
      'one other part',
      '2 other voices',
      'the pitches of 12 notes',
      '2 grace notes',
      'one slur',
    ]);
    expect(leftOutList({}, { parts: 0, voices: 0 })).toEqual([]);
  });
});
