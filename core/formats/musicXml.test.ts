import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyPattern, fullPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { printRhythm } from '../rhythm/text.ts';
import { readBack } from './read.test-helper.ts';
import { readAbc } from './readAbc.ts';
import { readMusicXml } from './readMusicXml.ts';
import { writeMusicXml } from './writeMusicXml.ts';

const C = '<pitch><step>C</step><octave>5</octave></pitch>';
const E = '<pitch><step>E</step><alter>-1</alter><octave>5</octave></pitch>';
const note = (duration: number | string, more = '', pitch = C) =>
  `<note>${pitch}<duration>${duration}</duration>${more}</note>`;
const rest = (duration: number, more = '', attributes = '') =>
  `<note><rest${attributes}/><duration>${duration}</duration>${more}</note>`;
const type = (name: string, dots = 0) => `<type>${name}</type>${'<dot/>'.repeat(dots)}`;
const ratio = (n: number, m: number) =>
  `<time-modification><actual-notes>${n}</actual-notes><normal-notes>${m}</normal-notes></time-modification>`;
const group = (kind: string, number = 1) => `<notations><tuplet type="${kind}" number="${number}"/></notations>`;
const time = (beats: string | number, lower: string | number) =>
  `<time><beats>${beats}</beats><beat-type>${lower}</beat-type></time>`;
const opens = (divisions: number, beats: string | number = 4, lower: string | number = 4) =>
  `<attributes><divisions>${divisions}</divisions>${time(beats, lower)}</attributes>`;
const measure = (number: string | number, inside: string, more = '') =>
  `<measure number="${number}"${more}>${inside}</measure>`;
const bar = (inside: string, location = 'right') => `<barline location="${location}">${inside}</barline>`;
const back = (duration: number) => `<backup><duration>${duration}</duration></backup>`;
const tie = (kind: string) => `<tie type="${kind}"/>`;
function score(...parts: readonly string[]): string {
  const ids = parts.map((_, i) => `P${i + 1}`);
  const list = ids.map((id, i) => `<score-part id="${id}"><part-name>Part ${i + 1}</part-name></score-part>`).join('');
  const inside = parts.map((measures, i) => `<part id="${ids[i]}">${measures}</part>`).join('');
  return `<?xml version="1.0"?>\n<score-partwise><part-list>${list}</part-list>${inside}</score-partwise>`;
}

describe('our own MusicXML', () => {
  const same = (pattern: Pattern) => {
    expect(readBack(readMusicXml(writeMusicXml(pattern))).text).toBe(printRhythm(pattern));
  };
  it('is read back as the same pattern, whatever rhythm text can write', () => {
    fc.assert(fc.property(anyPattern, same), { numRuns: 400 });
    fc.assert(fc.property(fullPattern, same), { numRuns: 150 });
  });
  it.each([
    '4/4 ^ q q q q | w',
    '4/4 ^ #5 q | w',
    '4/4 q q | w',
    '6/8[6] e e e e e e',
    '4/4 (M7) | #20 "A" w',
    "4/4 q'a <b> & c' q h",
  ])('%s', (text) => same(patternOf(text)));
  it('has beams, stems, ties and groups as they are written', () => {
    const xml = writeMusicXml(patternOf('4/4 e. s 3{e e e} q~ q'), { title: 'Low <tide>', quarters: 90 });
    expect([...xml.matchAll(/<beam number="(\d)">([\w ]+)</g)].map(([, level, sign]) => `${level} ${sign}`)).toEqual([
      '1 begin',
      '1 end',
      '2 backward hook',
      '1 begin',
      '1 continue',
      '1 end',
    ]);
    expect(xml).toContain('<work-title>Low &lt;tide&gt;</work-title>');
    expect(xml).toContain('<sound tempo="90"/>');
    expect(xml.match(/<tie type="start"\/>/g)).toHaveLength(1);
    expect(xml).toContain('<tuplet type="start" bracket="no"/>');
    expect(xml).toContain('<divisions>12</divisions>');
  });
  it('has words under the notes where they are wished, and reads them as no labels', () => {
    const xml = writeMusicXml(patternOf('4/4 q q h'), { words: [['1', '2', '3-4']] });
    expect([...xml.matchAll(/<text>(.*?)</g)].map(([, text]) => text)).toEqual(['1', '2', '3-4']);
    expect(readBack(readMusicXml(xml))).toMatchObject({ text: '4/4 q q h', leftOut: {} });
  });
});

const sign = (type: string, inside: string) =>
  `<attributes><measure-style><measure-repeat type="${type}">${inside}</measure-repeat></measure-style></attributes>`;
const CANNOT = 'measure 1 cannot be written: it has';
const eighth3 = type('eighth') + ratio(3, 2);

describe('MusicXML of others', () => {
  it.each<[string, string, string]>([
    [
      'durations alone',
      measure(1, opens(2) + note(2) + note(1) + note(1) + note(3) + note(1)) + measure(2, note(8)),
      '4/4 q e e q. e | w',
    ],
    ['durations with a point', measure(1, opens(1) + note('1.5') + note('0.5') + note(2)), '4/4 q. e h'],
    [
      'triplets without brackets',
      measure(
        1,
        opens(6) +
          note(2, eighth3).repeat(3) +
          note(4, type('quarter') + ratio(3, 2)) +
          note(2, eighth3) +
          note(12, type('half')),
      ),
      '4/4 3{e e e} 3{q e} h',
    ],
    [
      'triplets by durations alone',
      measure(1, opens(6) + note(2).repeat(3) + note(4) + note(2) + note(12)),
      '4/4 3{e e e} 3{q e} h',
    ],
    [
      'triplets with rounded durations',
      measure(
        1,
        opens(8) + note(3, eighth3).repeat(2) + note(2, eighth3) + note(8, type('quarter')) + note(16, type('half')),
      ),
      '4/4 3{e e e} q h',
    ],
    [
      'six triplets in one bracket',
      measure(
        1,
        opens(6) +
          note(2, eighth3 + group('start')) +
          note(2, eighth3).repeat(4) +
          note(2, eighth3 + group('stop')) +
          note(12),
      ),
      '4/4 3{e e e e e e} h',
    ],
    [
      'a group in a group',
      measure(
        1,
        opens(18) +
          note(12, type('quarter') + ratio(3, 2) + group('start')) +
          note(4, type('eighth') + ratio(9, 4) + group('start', 2)) +
          note(4, type('eighth') + ratio(9, 4)) +
          note(4, type('eighth') + ratio(9, 4) + group('stop', 2)) +
          note(12, type('quarter') + ratio(3, 2) + group('stop')) +
          note(36),
      ),
      '4/4 3{q} 9:4{e e e} 3{q} h',
    ],
    ['a breve', measure(1, opens(1, 4, 2) + note(8, type('breve'))), '4/2 w~ w'],
    [
      'signs that fill the measure before durations that do not',
      measure(1, opens(1) + note(1, type('half')) + note(1, type('quarter')).repeat(2)),
      '4/4 h q q',
    ],
    [
      'durations that fill the measure before signs that do not',
      measure(1, opens(1) + note(2, type('quarter')) + note(1, type('quarter')).repeat(2)),
      '4/4 h q q',
    ],
    [
      'rests of a measure',
      measure(1, opens(1, 3) + rest(3, '', ' measure="yes"')) +
        measure(2, rest(3)) +
        measure(3, rest(3, type('whole'))) +
        measure(4, rest(4, '', ' measure="yes"')) +
        measure(5, rest(1) + note(2)),
      '3/4 (M1) | (M1) | (M1) | (M1) | (q) h',
    ],
    ['a whole rest that is written', measure(1, opens(1) + rest(4, type('whole'))), '4/4 (w)'],
    [
      'many measures of rest',
      measure(
        1,
        opens(1) + '<attributes><measure-style><multiple-rest>3</multiple-rest></measure-style></attributes>' + rest(4),
      ) +
        measure(2, rest(4)) +
        measure(3, rest(4)) +
        measure(4, note(4)),
      '4/4 (M3) | w',
    ],
    [
      'measures that are played again at a sign',
      measure(1, opens(1) + note(1) + note(3)) +
        measure(2, sign('start', '1') + rest(4)) +
        measure(3, '') +
        measure(4, sign('stop', '') + note(2).repeat(2)),
      '4/4 q h. | q h. | q h. | h h',
    ],
    ['a pickup by its number', measure(0, opens(1, 3) + note(1)) + measure(1, note(3)), '3/4 ^ q | h.'],
    [
      'a pickup that does not count',
      measure(1, opens(1, 3) + note(1), ' implicit="yes"') + measure(1, note(3)),
      '3/4 ^ q | h.',
    ],
    ['a pickup that is counted', measure(1, opens(1, 3) + note(1)) + measure(2, note(3)), '3/4 ^ q | h.'],
    [
      'numbers as printed',
      measure(12, opens(1) + note(4)) + measure('X1', note(4)) + measure(20, note(4)),
      '4/4 #12 w | w | #20 w',
    ],
    [
      'repeats',
      measure(1, opens(1) + bar('<repeat direction="forward"/>', 'left') + note(4)) +
        measure(2, note(4) + bar('<repeat direction="backward"/>')),
      '4/4 |: w | w :|',
    ],
    [
      'three times',
      measure(1, opens(1) + note(4) + bar('<repeat direction="backward" times="3"/>')) + measure(2, note(4)),
      '4/4 w | #1 w | #1 w | w',
    ],
    [
      'endings',
      measure(1, opens(1) + bar('<repeat direction="forward"/>', 'left') + note(4)) +
        measure(
          2,
          bar('<ending number="1,2" type="start"/>', 'left') +
            note(2) +
            note(2) +
            bar('<ending number="1,2" type="stop"/><repeat direction="backward"/>'),
        ) +
        measure(
          3,
          bar('<ending number="3" type="start"/>', 'left') +
            note(1) +
            note(3) +
            bar('<ending number="3" type="discontinue"/>'),
        ) +
        measure(4, note(4)),
      '4/4 w | h h | #1 w | h h | #1 w | #3 q h. | w',
    ],
    [
      'a measure in two halves',
      measure(1, opens(1) + note(3)) + measure('X1', note(1), ' implicit="yes"') + measure(2, note(4)),
      '4/4 h. q | w',
    ],
    [
      'a repeat inside a measure',
      measure(1, opens(1) + note(4)) +
        measure(2, note(3) + bar('<repeat direction="backward"/>')) +
        measure('X1', bar('<repeat direction="forward"/>', 'left') + note(1), ' implicit="yes"') +
        measure(3, note(4)) +
        measure(4, note(3) + bar('<repeat direction="backward"/>')),
      '4/4 w | h. | #1 w | h. q | w | h. q | #3 w | h.',
    ],
    [
      'meters in groups',
      measure(1, opens(2, '3+2', 8) + note(1).repeat(3) + note(2)) +
        measure(
          2,
          `<attributes>${time(2, 4).replace('</time>', '')}${time(3, 8).replace('<time>', '')}</attributes>` +
            note(4) +
            note(3),
        ),
      '5/8[3+2] e e e q | 7/8[2+2+3] h q.',
    ],
    [
      'a meter in the middle of a measure, from the next on',
      measure(1, opens(1) + note(4) + `<attributes>${time(3, 4)}</attributes>`) + measure(2, note(3)),
      '4/4 w | 3/4 h.',
    ],
    [
      'no meter',
      measure(1, '<attributes><divisions>1</divisions><time><senza-misura/></time></attributes>' + note(1).repeat(3)) +
        measure(2, note(2) + note(3)),
      '3/4 q q q | 5/4 h h.',
    ],
    [
      'ties',
      measure(1, opens(1) + note(4, tie('start'))) + measure(2, note(2, tie('stop')) + note(2, tie('start'), E)),
      '4/4 w~ | h h',
    ],
    [
      'ties that only begin',
      measure(1, opens(1) + note(4, tie('start'))) + measure(2, note(2) + note(2, tie('start')) + note(0)),
      '4/4 w~ | h h',
    ],
    [
      'a bracket that ends before its group is full',
      measure(1, opens(6) + note(2, eighth3 + group('start') + group('stop')) + note(2, eighth3).repeat(3)),
      '4/4 3{e} 3{e e e}',
    ],
    [
      'ties by their arcs alone',
      measure(1, opens(1) + note(4, '<notations><tied type="start"/></notations>')) +
        measure(2, note(4, '<notations><tied type="stop"/></notations>')),
      '4/4 w~ | w',
    ],
    [
      'a chord of which one note is tied',
      measure(
        1,
        opens(1) +
          note(2, tie('start')) +
          note(2, '', `<chord/>${E}`) +
          note(2, tie('stop')) +
          note(2, '', `<chord/>${E}`),
      ),
      '4/4 h h',
    ],
    [
      'a chord that is tied',
      measure(
        1,
        opens(1) +
          note(2, tie('start')) +
          note(2, tie('start'), `<chord/>${E}`) +
          note(2, tie('stop')) +
          note(2, tie('stop'), `<chord/>${E}`),
      ),
      '4/4 h~ h',
    ],
    ['two notes at once without a chord', measure(1, opens(1) + note(4) + back(4) + note(4)), '4/4 w'],
    ['a note that begins before another is over', measure(1, opens(1) + note(3) + back(1) + note(2)), '4/4 h h'],
    ['gaps', measure(1, opens(1) + note(1) + '<forward><duration>2</duration></forward>' + note(1)), '4/4 q (h) q'],
    [
      'cue notes and grace notes',
      measure(
        1,
        opens(1) +
          `<note><grace/>${C}<type>eighth</type></note>` +
          note(2) +
          `<note><cue/>${C}<duration>2</duration></note>`,
      ),
      '4/4 h (h)',
    ],
    [
      'what is too fine',
      measure(1, opens(16) + note(1, type('64th')) + note(63)),
      `${CANNOT} a note of 1/64 of a whole note; nothing finer than thirty-seconds can be written`,
    ],
    [
      'a group too large',
      measure(1, opens(1, 2) + note(1, type('whole') + ratio(127, 64))),
      'measure 1 cannot be written: it has a group of 127 in the time of 64; groups of up to 16 can be written',
    ],
  ])('%s', (_, inside, text) => expect(readBack(readMusicXml(score(inside))).text).toBe(text));

  it('says by how much signs and durations differ, and shows the signs', () => {
    const read = readBack(
      readMusicXml(
        score(measure(1, opens(2, 2) + note(4)) + measure(2, note(3, type('half')) + note(2, type('quarter')))),
      ),
    );
    expect(read.text).toBe('2/4 h | h q');
    expect(read.troubles).toEqual(['2: its signs make 3 quarters and its durations 5/2; the signs are shown']);
  });
  it('reads every part and voice, and the letters over the first part in all', () => {
    const letter = '<direction><direction-type><rehearsal>A</rehearsal></direction-type></direction>';
    const two =
      note(2, '<voice>1</voice>').repeat(2) +
      back(4) +
      '<forward><duration>1</duration></forward>' +
      note(1, '<voice>5</voice>');
    const xml = score(
      measure(1, opens(1) + two) + measure(2, letter + note(4, '<voice>1</voice>')),
      measure(1, opens(2) + note(8)) + measure(2, note(2) + note(6)),
    );
    const read = readMusicXml(xml);
    expect(readBack(read).text).toBe('4/4 h h | "A" w');
    expect(readBack(read, {}, { voice: '5' }).text).toBe('4/4 (q) q (h) | "A" (M1)');
    expect(readBack(read, {}, { voice: '2' }).text).toBe('4/4 (q) q (h) | "A" (M1)');
    expect(readBack(read, {}, { part: 1 }).text).toBe('4/4 w | "A" q h.');
    expect(read.ok && read.pieces[0]!.parts.map(({ name }) => name)).toEqual(['Part 1', 'Part 2']);
  });
  const at = (staff: number, voice = 1) => `<voice>${voice}</voice><staff>${staff}</staff>`;
  it('staves may number their voices alike', () => {
    const upper = note(2, at(1)) + note(2, at(1));
    const xml = score(
      measure(1, opens(1) + upper + back(4) + note(4, at(2))) +
        measure(2, note(4, at(1)) + back(4) + upper.replaceAll('<staff>1', '<staff>2')),
    );
    const read = readMusicXml(xml);
    expect(read.ok && read.pieces[0]!.parts[0]!.voices.map(({ id }) => id)).toEqual(['1', '1 staff 2']);
    expect(readBack(read).text).toBe('4/4 h h | w');
    expect(readBack(read, {}, { voice: '1 staff 2' })).toEqual({
      text: '4/4 w | h h',
      leftOut: { pitches: 3 },
      troubles: [],
    });
  });
  it('one voice may go from staff to staff, its groups with it', () => {
    const [three, crossing] = [type('eighth') + ratio(3, 2), at(2)];
    const xml = score(
      measure(
        1,
        opens(6) +
          note(2, at(1).replace('<staff>1</staff>', '') + three + '<staff>1</staff>' + group('start')) +
          note(2, `<voice>1</voice>${three}<staff>2</staff>`) +
          note(2, `<voice>1</voice>${three}<staff>1</staff>${group('stop')}`) +
          note(6, crossing) +
          note(12, at(1)),
      ),
    );
    expect(readBack(readMusicXml(xml))).toEqual({ text: '4/4 3{e e e} q h', leftOut: { pitches: 5 }, troubles: [] });
  });
  it('a bracket inside a group begins no other group', () => {
    const three = type('eighth') + ratio(3, 2);
    const ends = `<notations><tuplet type="stop" number="2"/><tuplet type="stop" number="1"/></notations>`;
    const xml = score(
      measure(
        1,
        opens(6) +
          note(2, three + group('start')) +
          note(2, three + group('start', 2)) +
          note(2, three + ends) +
          note(18),
      ),
    );
    expect(readBack(readMusicXml(xml)).text).toBe('4/4 3{e e e} h.');
  });
  it.each([
    ['', '4/4 ^ (q) | w'],
    [' implicit="yes"', '4/4 ^ (q) | w'],
  ])('a pickup of rest is as long as it is (%s)', (attributes, text) => {
    const whole = ' measure="yes"';
    const xml = score(measure(0, opens(1) + rest(1, '', whole), attributes) + measure(1, note(4)));
    expect(readBack(readMusicXml(xml)).text).toBe(text);
    const later = score(measure(1, opens(1) + note(4)) + measure(2, rest(1, '', whole)) + measure(3, note(4)));
    expect(readBack(readMusicXml(later)).text).toBe('4/4 w | (M1) | w');
  });
  it('a note that never ends is refused in a line', () => {
    const xml = score(measure(1, opens(1) + note(9_999_999)));
    expect(readBack(readMusicXml(xml)).text).toMatch(
      /^measure 1 cannot be written: it has a note of more than 32 whole/,
    );
  });
  it('reads scores by time as scores by parts', () => {
    const part = (id: string, inside: string) => `<part id="${id}">${inside}</part>`;
    const names = ['Top', 'Low'].map((name) => `<score-part id="${name}"><part-name>${name}</part-name></score-part>`);
    const xml = [
      `<score-timewise version="1.0"><part-list>${names.join('')}</part-list>`,
      measure(1, part('Top', opens(1) + note(2).repeat(2)) + part('Low', opens(2) + note(8))),
      measure(2, part('Top', note(4)) + part('Low', note(2) + note(6))),
      '</score-timewise>',
    ].join('');
    expect(readBack(readMusicXml(xml)).text).toBe('4/4 h h | w');
    expect(readBack(readMusicXml(xml), {}, { part: 1 }).text).toBe('4/4 w | q h.');
  });
  it('takes the measures that are chosen, by their printed numbers', () => {
    const xml = score(
      Array.from({ length: 9 }, (_, i) =>
        measure(i + 1, (i === 0 ? opens(1) : '') + (i % 2 ? note(4) : note(2).repeat(2))),
      ).join(''),
    );
    expect(readBack(readMusicXml(xml), { from: 5, to: 8 }).text).toBe('4/4 #5 h h | w | h h | w');
    expect(readBack(readMusicXml(xml), { from: 5, to: 12 }).text).toBe(
      'there are no measures 5 to 12; they are numbered 1 to 9',
    );
  });
  it('gives a chord the letter of its last note, as ABC does', () => {
    const chord = note(4) + note(4, '', `<chord/>${E}`);
    expect(readBack(readMusicXml(score(measure(1, opens(1) + chord))), { labels: 'letters' }).text).toBe("4/4 w'Eb'");
    expect(readBack(readAbc('X:1\nK:C\n[C_E]8|'), { labels: 'letters' }).text).toBe("4/4 w'Eb'");
  });
  it('keeps letter names at a switch, and counts what it leaves out', () => {
    const xml = score(
      measure(
        1,
        opens(1) +
          '<direction><direction-type><dynamics><f/></dynamics></direction-type></direction><harmony/>' +
          note(
            2,
            '<notations><articulations><staccato/></articulations><slur type="start"/>' +
              '<ornaments><trill-mark/></ornaments>' +
              '</notations><lyric><text>la</text></lyric>',
            E,
          ) +
          note(2, '', C.replace('<octave>', '<alter>1</alter><octave>')) +
          '<direction><sound fine="yes"/></direction>',
      ),
    );
    const read = readMusicXml(xml);
    expect(readBack(read).leftOut).toEqual({
      dynamics: 1,
      'chord-symbols': 1,
      articulations: 1,
      slurs: 1,
      ornaments: 1,
      lyrics: 1,
      jumps: 1,
      pitches: 2,
    });
    expect(readBack(read, { labels: 'letters' }).text).toBe("4/4 h'Eb' h'C#'");
  });
  it.each<[string, string]>([
    ['<html><body/></html>', 'no MusicXML score: it begins with <html>'],
    [score(measure(1, opens(1) + note(4))).slice(0, 260), 'the XML is broken at line 2'],
    [
      `<!DOCTYPE s [<!ENTITY a "aa"><!ENTITY b "&a;&a;">]>${score(measure(1, opens(1) + note(4)))
        .slice(22)
        .replace('Part 1', '&b;')}`,
      'undefined entity',
    ],
    [`<score-partwise>${'<a>'.repeat(10_000)}`, 'more than 60 deep'],
    [score(measure(1, opens(0) + note(4))), 'a quarter has at least one'],
    [score(measure(1, opens(1) + note('many'))), 'its duration “many” is no number'],
    [score(measure(1, opens(1) + note('900000000000.123456789'))), 'too large to be counted exactly'],
    ['<score-partwise><part-list/></score-partwise>', 'there are no measures in it'],
    ['<measure/>'.repeat(20_001), '20001 measures, and at most 20000 are read'],
    [`<score-partwise>${' '.repeat(12_000_000)}`, 'a file of 12 MB is too much'],
  ])('says why it cannot read %.40s', (xml, trouble) => expect(readBack(readMusicXml(xml)).text).toContain(trouble));
});
