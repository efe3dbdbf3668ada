import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { everydayPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { printRhythm } from '../rhythm/text.ts';
import { countPattern, plainCounts } from '../counting/count.ts';
import type { CountingSystemId } from '../counting/countingSystems.ts';
import { READABLE_SCHOOLS, SPOKEN_SCHOOLS, recognise, readSpeech, speechTrouble } from './readSpeech.ts';

function read(text: string, school: CountingSystemId, meter = { upper: 4, lower: 4 }): string[] {
  const said = readSpeech(text, school, { meter });
  return said.ok ? said.patterns.map(printRhythm) : [`! ${said.word}`];
}

function spoken(text: string, school: CountingSystemId): string {
  const counted = countPattern(patternOf(text), { school });
  if (!counted.ok) throw new Error(counted.reason);
  return plainCounts(counted.measures);
}

describe('typed as it is said', () => {
  it.each([
    ['numbers', '1 & 2 3 (4)', '4/4 e e q q (q)'],
    ['ta', 'ta ti-ti ta-a', '4/4 q e e h'],
    ['takadimi', 'ta ta-di ta (ta)', '4/4 q e e q (q)'],
    ['ta', 'tom-ti ta sh', '4/4 q. e q (q)'],
    ['ta', 'titi ta TI TI ta', '4/4 e e q e e q'],
    ['ta', 'taa ta ta', '4/4 h q q'],
    ['ta', 'ti-ka-ti-ka ta, ta-a', '4/4 s s s s q h'],
    ['ta', 'tri-o-la ta ta ta', '4/4 3{e e e} q q q'],
    ['ta', 'tim-ka ta ta ta', '4/4 e. s q q q'],
    ['numbers', '1 and 2 3 4', '4/4 e e q q q'],
    ['numbers', '1+ 2+ 3 4', '4/4 e e e e q q'],
    ['numbers', '1e+a 2 3 4', '4/4 s s s s q q q'],
    ['numbers', '1e&a 2 3-4', '4/4 s s s s q h'],
    ['numbers', '1-2 3 4', '4/4 h q q'],
    ['numbers', '1-2 & 3-4', '4/4 q. e h'],
    ['numbers', '1-₂ & 3-4 | 1 2 (3-4)', '4/4 q. e h | q q (h)'],
    ['numbers', '1 2 3 4 1 2 3 4', '4/4 q q q q | q q q q'],
    ['numbers', '4 | 1-2-3-4', '4/4 ^ q | w'],
    ['numbers-te', '1 ta te ta 2 te 3 4', '4/4 s s s s e e q q'],
    ['pulses', '1-&-2-& 3-& 4 &', '4/4 h q e e'],
    ['takadimi', 'takadimi tadi ta ta', '4/4 s s s s e e q q'],
    ['words', 'otter crab periwinkle seal', '4/4 e e q s s s s h'],
    ['words', 'ot-ter crab crab crab', '4/4 e e q q q'],
    ['words', 'ottercrab crab crab', '4/4 e e q q q'],
    ['numbers', 'one and two three (four)', '4/4 e e q q (q)'],
    ['numbers', 'One-two Three & Four an', '4/4 h e e e e'],
    ['numbers', '1 ee and ah 2 3 4', '4/4 s s s s q q q'],
    ['numbers', '1 trip let 2 3 4', '4/4 3{e e e} q q q'],
    ['numbers-te', 'one tay two three four', '4/4 e e q q q'],
    ['pulses', 'one-and-two-and three-and four and', '4/4 h q e e'],
    ['takadimi', 'tah-dee ta ta ta', '4/4 e e q q q'],
    ['ta', 'tee-tee tah too', '4/4 e e q h'],
    ['ta', 'tate te ta-a', '4/4 q e e h'],
    ['ta', 'syn-co-pa ta ta', '4/4 e q e q q'],
    ['ta', 'Synkopa tumti', '4/4 e q e q. e'],
    ['ta', 'tripola ta ta ta', '4/4 3{e e e} q q q'],
    ['ta', 'tika-tika tiri-tiri ta shh', '4/4 s s s s s s s s q (q)'],
    ['note-names', 'half note quarter quarter', '4/4 h q q'],
    ['note-names', 'dotted quarter eighth quarter rest quarter', '4/4 q. e (q) q'],
    ['note-names', 'quarter-dot eighth half-note', '4/4 q. e h'],
    ['note-names', 'Two crotchets, a minim | four quavers (minim)', '4/4 q q h | e e e e (h)'],
    ['note-names', 'double dotted quarter sixteenth half rest', '4/4 q.. s (h)'],
    ['note-names', 'quarter | whole note hold on', '4/4 ^ q | w'],
    ['note-names', 'rest quarter rest half', '4/4 (q) (q) h'],
    ['within-note', '1-2 1 rest', '4/4 h q (q)'],
    ['within-note', 'C E F G 2 3 4 rest', "4/4 q'C' q'E' q'F' q'G'~ | h. (q)"],
    ['within-note', 'G-2 F# | 1 2 3 4', "4/4 ^ h'G' q'F#' | w"],
  ] as const)('%s: %s is %s', (school, text, first) => {
    const parses = read(text, school, first.includes(' h') && school === 'words' ? { upper: 5, lower: 4 } : undefined);
    expect(parses[0]!.replace('5/4', '4/4')).toBe(first);
  });

  it('gives the other parse where speech leaves a choice', () => {
    expect(read('1 3', 'numbers').slice(0, 2)).toEqual(['4/4 h h', '4/4 q (q) q (q)']);
    expect(read('ti ti ka ta ta ta', 'ta')).toContain('4/4 s e s q q q');
  });

  it.each([
    ['1 2 3 | 1 2 & 3', '3/4 q q q | q e e q', '4/4 q q h | q e e h'],
    ['ta ta ta | ta ti ti ta', '3/4 q q q | q e e q', '4/4 ^ q q q | q e e q'],
    ['1 2 3 1 2 3', '3/4 q q q | q q q', '4/4 q q h | q q h'],
    ['1 2 3 4 5 | 1-2-3 4-5', '5/4 q q q q q | h. h', undefined],
    ['1 la li 2 la li', '4/4 3{e e e} 3{e e e}', '6/8 e e e e e e'],
    ['1 2 3', '4/4 q q q', '3/4 q q q'],
    ['4 | 1 2 3 4', '4/4 ^ q | q q q q', undefined],
    ['1 2 3 4 | 1 2', '4/4 q q q q | q q', undefined],
    ['1 & 2 3 (4)', '4/4 e e q q (q)', undefined],
  ])('without a meter “%s” is %s, or perhaps %s', (text, first, other) => {
    const texts = recognise(text, undefined)!.patterns.map(printRhythm);
    expect(texts[0]).toBe(first);
    if (other !== undefined) expect(texts).toContain(other);
  });

  it('reads unfinished measures', () => expect(read('1 2', 'numbers')[0]).toBe('4/4 q q'));

  it.each([
    ['ta', 'ta ta-a tji', 'tji', '“tri”'],
    ['numbers', 'one two tree', 'tree', '“three”'],
    ['note-names', 'half quarter quartr', 'quartr', '“quarter”'],
    ['note-names', 'quarter and fish', 'fish', 'what can follow here'],
    ['within-note', 'C E 4', '4', 'what can follow here'],
  ] as const)('%s: “%s” stops at “%s”, expected %s', (school, text, word, expected) => {
    const said = readSpeech(text, school);
    expect(said).toMatchObject({ ok: false, word });
    expect(said.ok ? '' : said.expected).toContain(expected);
  });
  it('of all schools the one that understood most says where it stops', () => {
    expect(speechTrouble('ta ti-ti tq', undefined)).toMatchObject({ school: 'ta', word: 'tq', at: 9 });
    expect(speechTrouble('xylophone', 'ta')).toBeUndefined();
  });
  it('never takes plain numbers for counts within a note, but where the class counts so', () => {
    expect(recognise('1 2 3 4', undefined)!.school).toBe('numbers');
    expect(recognise('1-2 1 1', 'within-note')).toMatchObject({ school: 'within-note' });
    expect(recognise('quarter rest half', 'ta')!.school).toBe('note-names');
  });

  it.each([
    ['numbers', '1 2 banana 4', 'banana'],
    ['ta', 'ta ta zup', 'zup'],
    ['feet', '↓', ''],
    ['numbers', '', ''],
  ] as const)('%s: “%s” cannot be read', (school, text, word) =>
    expect(readSpeech(text, school)).toMatchObject({ ok: false, word }),
  );

  it.each([
    ['1 & 2 3 (4)', 'numbers'],
    ['1 te 2 3 4', 'numbers-te'],
    ['ta ti-ti ta-a', 'ta'],
    ['ta ta-di ta (ta)', 'takadimi'],
    ['1-& 2-& 3 & 4-&', 'pulses'],
    ['otter crab crab crab', 'words'],
    ['1 3', 'numbers'],
    ['q e e h', undefined],
  ])('“%s” is recognised as %s', (text, school) => expect(recognise(text, undefined)?.school).toBe(school));
});

/** Texts with everything speech can say, for the path there and back. */
const THERE_AND_BACK = [
  '4/4 q. e q q | h (h)',
  '4/4 e q e q (q)',
  '4/4 h. q~ | q e e~ e e q',
  '4/4 e (e) (e) e s s s s e s s',
  '4/4 3{e e e} q e. s q',
  '6/8 q e q (e)',
  '2/2 h q q | w',
  '4/4 ^ q | (M3) | h (h)',
  '3/4 q q q | h. | (q) e e q',
  '6/8 q. e e e | s s s s s s q. | h.',
  '12/8 q. q e e e e q.~ | q. q. h.',
  '7/8[2+2+3] q q e e e',
  '5/4 h. h',
  '3/8 e e s s',
  '4/4 3{q q q} h',
  '4/4 q q~ s s e q',
  '4/4 q.. s h',
  '9/8 q. q. (q.)',
  '4/4 ^ e | q q q q',
  '2/4 s e s e e',
  '4/4 6:4{s s s s s s} q h',
] as const;

describe('there and back', () => {
  it('note names say their notes just so', () => {
    const named = (pattern: Pattern) => {
      const counted = countPattern(pattern, { school: 'note-names', rests: 'parens' });
      return counted.ok ? plainCounts(counted.measures) : '';
    };
    fc.assert(
      fc.property(everydayPattern, (pattern) => {
        // What is not named cannot be read back: ties, tuplets and the shortest values, rests through a measure.
        fc.pre(!pattern.measures.some(({ items }) => items.every(({ kind }) => kind === 'rest')));
        fc.pre(!/[~{t]/.test(printRhythm(pattern)) && !pattern.pickup);
        const said = readSpeech(named(pattern), 'note-names', { meter: pattern.measures[0]!.meter });
        expect(said.ok && named(said.patterns[0]!)).toBe(named(pattern));
      }),
      { numRuns: 100 },
    );
  });
  for (const school of SPOKEN_SCHOOLS) {
    it.each(THERE_AND_BACK.map((text) => [text]))(`${school}: %s`, (text) => {
      const pattern = patternOf(text);
      const words = spoken(text, school);
      // What has no word cannot be said.
      if (school === 'words' && words.includes('·')) return;
      const said = readSpeech(words, school, { meter: pattern.measures[0]!.meter, most: 100 });
      expect(said.ok ? said.patterns.map(printRhythm) : said).toContain(printRhythm(pattern));
    });
  }

  it('for everyday patterns, in every school that says where things stand, the first parse is the pattern', () => {
    fc.assert(
      fc.property(
        everydayPattern,
        fc.constantFrom<CountingSystemId>('numbers', 'numbers-te', 'takadimi', 'pulses'),
        (pattern, school) => {
          const text = printRhythm(pattern);
          const said = readSpeech(spoken(text, school), school, { meter: pattern.measures[0]!.meter });
          expect(said.ok && printRhythm(said.patterns[0]!)).toBe(text);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('the more parses are asked for, the more come, and those before stay as they are', () => {
    fc.assert(
      fc.property(
        everydayPattern,
        fc.constantFrom(...SPOKEN_SCHOOLS),
        fc.integer({ min: 1, max: 20 }),
        fc.boolean(),
        (pattern, school, most, bars) => {
          const words = spoken(printRhythm(pattern), school).replaceAll(bars ? '' : ' |', '');
          const { meter } = pattern.measures[0]!;
          const [few, many] = [most, most + 7].map((count) => readSpeech(words, school, { meter, most: count }));
          if (!few!.ok || !many!.ok) return;
          const texts = many!.patterns.map(printRhythm);
          expect(few!.patterns.map(printRhythm)).toEqual(texts.slice(0, most));
          expect(new Set(texts).size).toBe(texts.length);
        },
      ),
      { numRuns: 150 },
    );
  });

  it('every parse is spoken just so, but for how its rests are given', () => {
    fc.assert(
      fc.property(everydayPattern, fc.constantFrom(...SPOKEN_SCHOOLS), (pattern, school) => {
        const words = spoken(printRhythm(pattern), school);
        const said = readSpeech(words, school, { meter: pattern.measures[0]!.meter, most: 12 });
        // Where one measure was said without bars it may be two.
        const plain = (text: string) => text.replaceAll(' |', '');
        for (const parse of said.ok ? said.patterns : [])
          expect(plain(spoken(printRhythm(parse), school))).toBe(plain(words));
      }),
      { numRuns: 150 },
    );
  });

  it('a text that grows is read as if it stood there at once', () => {
    const words = 'ta ti-ti ta-a | ti-ka-ti-ka ta sh ta | tri-o-la tom ti ta | -a ti ti ta sh';
    for (let end = 1; end <= words.length; end++) readSpeech(words.slice(0, end), 'ta');
    expect(read(words, 'ta')[0]).toBe('4/4 q e e h | s s s s q (q) q | 3{e e e} q. e q~ | q e e q (q)');
  });

  it('for everyday patterns said by value the pattern is among the parses', () => {
    fc.assert(
      fc.property(everydayPattern, (pattern) => {
        const said = readSpeech(spoken(printRhythm(pattern), 'ta'), 'ta', {
          meter: pattern.measures[0]!.meter,
          most: 200,
        });
        expect(said.ok && said.patterns.map(printRhythm)).toContain(printRhythm(pattern));
      }),
      { numRuns: 200 },
    );
  });

  it('never throws, whatever is typed', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc
            .array(fc.constantFrom('ta', 'ti-', '1', '&', '(', ')', '-', '|', 'e', '3', 'sh', 'half', 'dotted', 'rest'))
            .map((list) => list.join(' ')),
        ),
        fc.constantFrom(...READABLE_SCHOOLS),
        (text, school) => {
          expect(typeof readSpeech(text, school).ok).toBe('boolean');
        },
      ),
    );
  });
});
