import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { placePattern } from '../rhythm/place.ts';
import { type CountOptions, countPattern, plainCounts } from './count.ts';

function say(text: string, options: CountOptions): string {
  const counted = countPattern(patternOf(text), options);
  return counted.ok ? plainCounts(counted.measures) : counted.reason;
}

const COLUMNS = ['numbers', 'ta', 'takadimi', 'numbers-te', 'feet'] as const;

/** Rows of handbook §4; an empty cell is one the handbook leaves open. */
const HANDBOOK: readonly (readonly string[])[] = [
  ['4/4 q q e e q', '1 2 3 & 4', 'ta ta ti ti ta', 'ta ta ta di ta', '1 2 3 te 4', '↓-↑ ↓-↑ ↓ ↑ ↓-↑'],
  ['4/4 q. e q q', '1-₂ & 3 4', 'tom ti ta ta', 'ta-a di ta ta', '1-₂ te 3 4', '↓-↑-↓ ↑ ↓-↑ ↓-↑'],
  ['4/4 e q e q (q)', '1 &-₂ & 3 (4)', 'ti ta ti ta sh', 'ta di-i di ta (ta)', '1 te-₂ te 3 (4)', '↓ ↑-↓ ↑ ↓-↑ (↓-↑)'],
  [
    '4/4 h. q~ | q e e~ e e q', '1-2-3 4 | -1 2 & -₃ & 4', 'ta-a-a ta | -a ti ti -i ti ta', 'ta-a-a ta | -a ta di -i di ta', '1-2-3 4 | -1 2 te -₃ te 4',
    '↓-↑-↓-↑-↓-↑ ↓-↑ | -↓-↑ ↓ ↑ -↓ ↑ ↓-↑',
  ],
  [
    '4/4 e (e) (e) e s s s s e s s', '1 (&) (2) & 3 e & a 4 & a', 'ti s s ti ti ka ti ka ti ti ka', 'ta (di) (ta) di ta ka di mi ta di mi', '1 (te) (2) te 3 ta te ta 4 te ta',
    '↓ (↑) (↓) ↑ ↓ · ↑ · ↓ ↑ ·',
  ],
  ['4/4 3{e e e} q e. s q', '1 la li 2 3 a 4', 'tri o la ta tim ka ta', 'ta ki da ta ta mi ta', '1 la li 2 3 ta 4', '↓ · · ↓-↑ ↓-↑ · ↓-↑'],
  ['6/8 q e q (e)', '1 li 2 (li)', 'ta ti ta s', 'ta da ta (da)', '1 li 2 (li)'],
  ['2/2 h q q | w', '1 2 & | 1-2', 'ta-a ta ta | ta-a-a-a', 'ta ta di | ta-a', '1 2 te | 1-2', '↓-↑ ↓ ↑ | ↓-↑-↓-↑'],
  ['4/4 ^ q | (M3) h (h)', '4 | (1-2-3-4) | (2-2-3-4) | (3-2-3-4) | 1-2 (3-4)', 'ta | sh-sh-sh-sh | sh-sh-sh-sh | sh-sh-sh-sh | ta-a sh-sh'],
];

describe('the rows of the handbook', () => {
  for (const [text, ...cells] of HANDBOOK) {
    cells.forEach((expected, i) => {
      it(`${COLUMNS[i]}: ${text}`, () => expect(say(text!, { school: COLUMNS[i]! })).toBe(expected));
    });
  }
  it('counts six eighths in 6/8', () => {
    expect(say('6/8 e e e q.', { school: 'numbers', beat: 'e' })).toBe('1 2 3 4-5-6');
    expect(say('6/8 e e e q.', { school: 'ta', beat: 'e' })).toBe('ti ti ti tom');
  });
});

/** Each line: school, rhythm text, tokens. */
const CASES: readonly (readonly [CountOptions['school'], string, string])[] = [
  ['numbers', '4/4 h. q', '1-2-3 4'],
  ['numbers', '4/4 q.. s h', '1-₂ a 3-4'],
  ['numbers', '4/4 e. s~ q h', '1 a -2 3-4'],
  ['numbers', '4/4 q q~ s s e q', '1 2 -₃ e & 4'],
  ['numbers', '4/4 q s~ s e h', '1 2 - & 3-4'],
  ['numbers', '6/8 s s s s s s q.', '1 ta la ta li ta 2'],
  ['numbers', '6/8 e. s e q.', '1 ta li 2'],
  ['numbers', '12/8 h. q. e (q)', '1-2 3 4 (la)'],
  ['numbers', '3/8 e e s s', '1 2 3 &'],
  ['numbers', '7/8[2+2+3] q q e e e', '1-2 3-4 5 6 7'],
  ['numbers', '5/4 h. h', '1-2-3 4-5'],
  ['numbers', '4/4 3{q q q} h', '1 li-₂ la 3-4'],
  ['numbers', '4/4 6:4{s s s s s s} q h', '1 ta la ta li ta 2 3-4'],
  ['numbers', '4/4 5:4{s s s s s} q h', '1 · · · · 2 3-4'],
  ['numbers', '4/4 t t t t e q h', '1 · e · & 2 3-4'],
  ['numbers', '3/4 ^ e | q q q', '& | 1 2 3'],
  ['numbers', '3/4 (M1) | q q q | (M2)', '(1-2-3) | 1 2 3 | (1-2-3) | (2-2-3)'],
  ['pulses', '4/4 h q e e', '1-&-2-& 3-& 4 &'],
  ['pulses', '4/4 q. e h~ | w', '1-&-2 & 3-&-4-& | -1-&-2-&-3-&-4-&'],
  ['pulses', '4/4 3{e e e} (q) h', '1 la li (2-&) 3-&-4-&'],
  ['pulses', '6/8 q. q e', '1-la-li 2-la li'],
  ['numbers-te', '6/8 s s s s s s q.', '1 ta la ta li ta 2'],
  ['takadimi', '6/8 s s s s s s q.', 'ta va ki di da ma ta'],
  ['takadimi', '4/4 w | h. (q)', 'ta-a-a-a | ta-a-a (ta)'],
  ['takadimi', '4/4 e (q.) h', 'ta (di-ta) ta-a'],
  ['takadimi', '4/4 s s~ e q~ h', 'ta ka -a ta -a-a'],
  ['takadimi', '4/4 3{e e e} 6:4{s s s s s s} h', 'ta ki da ta va ki di da ma ta-a'],
  ['ta', '4/4 w | h. q', 'ta-a-a-a | ta-a-a ta'],
  ['ta', '6/8 h. | q. (q.)', 'tom-om | tom sh-s'],
  ['ta', '6/8 q.~ q. | e e e q e', 'tom -o | ti ti ti ta ti'],
  ['ta', '4/4 3{q e} 3{e (e) e} h', 'tri la tri s la ta-a'],
  ['ta', '4/4 (w) | (h) (q.) (e)', 'sh-sh-sh-sh | sh-sh sh-s s'],
  ['ta', '2/4 s e s e e', 'ti ti ka ti ti'],
  ['note-names', '4/4 h. q | q. e e s s q | w', 'half-note-dot quarter | quarter-dot eighth eighth sixteenth sixteenth quarter | whole-note-hold-on'],
  ['note-names', '4/4 (h) (e) e q', 'rest-rest rest eighth quarter'],
  ['within-note', "4/4 h'G' q (q) | q. e h", 'G-2 1 rest | 1-2 1 1-2'],
  ['within-note', '4/4 h h~ | q q q. e~ | e q. h', '1-2 1-2 | -3 1 1-2 1 | - 1-2 1-2'],
  ['feet', '4/4 s s e (h)', '↓ · ↑ (↓-↑-↓-↑)'],
  ['feet', '4/4 3{q q q} h', '↓ ·-↓ · ↓-↑-↓-↑'],
  ['feet', '6/8 q. q.', 'the feet go down and up in simple meters; a beat of 6/8 divides in three (count a value that divides in two)'],
];

describe('further cases', () => {
  it.each(CASES)('%s: %s', (school, text, expected) => expect(say(text, { school })).toBe(expected));
});

describe('rest styles', () => {
  const text = '4/4 q (e) e (h) | (M1)';
  it.each([
    ['numbers', 'parens', '1 (2) & (3-4) | (1-2-3-4)'],
    ['numbers', 'whisper', '1 (2) & (3-4) | (1-2-3-4)'],
    ['numbers', 'rest', '1 rest & rest-rest | rest-rest-rest-rest'],
    ['numbers', 'sh', '1 sh & sh-sh | sh-sh-sh-sh'],
    ['numbers', 'silent', '1 _ & _ | _'],
    ['ta', 'sh', 'ta s ti sh-sh | sh-sh-sh-sh'],
    ['ta', 'parens', 'ta (ti) ti (ta-a) | (ta-a-a-a)'],
    ['ta', 'rest', 'ta rest ti rest-rest | rest-rest-rest-rest'],
    ['note-names', 'parens', 'quarter (eighth) eighth (half-note) | (whole-note-hold-on)'],
    ['within-note', 'parens', '1 (1) 1 (1-2) | (1-2-3-4)'],
  ] as const)('%s, %s', (school, rests, expected) => expect(say(text, { school, rests })).toBe(expected));
});

describe('house words and word sets', () => {
  it('puts the teacher’s words in the place of the school’s', () => {
    expect(say('4/4 q e e h', { school: 'numbers', houseWords: { half: 'and', beat3: 'three' } })).toBe('1 2 and three-4');
    expect(say('4/4 q. e h', { school: 'ta', houseWords: { dottedQuarter: 'tam' } })).toBe('tam ti ta-a');
  });
  it('says a cell by its word, one syllable a note, a label before all', () => {
    expect(say("2/4 e e q | s s s s e'boat' e", { school: 'words' })).toBe('ot ter crab | pe ri win kle boat gull');
    expect(say('4/4 3{e e e} e (e) h~ | w', { school: 'words' })).toBe('jel ly fish gull (gull) seal | -');
    expect(say('3/4 q (q) (e.) s | (M1) | h.', { school: 'words' })).toBe('crab (crab) (eel) shrimp | (shark) | shark');
  });
});

describe('laws', () => {
  it('one token an event, in every school and style, and never an exception', () => {
    fc.assert(
      fc.property(anyPattern, fc.constantFrom<CountOptions['school']>('numbers', 'pulses', 'numbers-te', 'takadimi', 'ta', 'note-names', 'within-note', 'words'), fc.constantFrom('parens', 'rest', 'sh', 'silent', undefined), (pattern, school, rests) => {
        const counted = countPattern(pattern, { school, rests });
        if (!counted.ok) throw new Error(counted.reason);
        expect(counted.measures.map(({ tokens }) => tokens.length)).toEqual(placePattern(pattern).map(({ events }) => events.length));
        for (const { text } of counted.measures.flatMap(({ tokens }) => tokens)) expect(text).toMatch(/^[^\s]+$/);
      }),
    );
  });
});
