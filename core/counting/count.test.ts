import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyPattern, everydayPattern, fullPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { div, isWhole, toNumber } from '../rhythm/fraction.ts';
import { beatOf, meterKind } from '../rhythm/meter.ts';
import { placePattern } from '../rhythm/place.ts';
import { type CountOptions, countPattern, plainCounts } from './count.ts';
import { COUNTING_SYSTEMS } from './countingSystems.ts';

function say(text: string, options: CountOptions): string {
  const counted = countPattern(patternOf(text), options);
  return counted.ok ? plainCounts(counted.measures) : counted.reason;
}

const COLUMNS = ['numbers', 'ta', 'takadimi', 'numbers-te', 'feet'] as const;

/** Rows of rules §4; an empty cell is one they leave open. */
const RULES: readonly (readonly string[])[] = [
  ['4/4 q q e e q', '1 2 3 & 4', 'ta ta ti ti ta', 'ta ta ta di ta', '1 2 3 te 4', '↓-↑ ↓-↑ ↓ ↑ ↓-↑'],
  ['4/4 q. e q q', '1-₂ & 3 4', 'tom ti ta ta', 'ta-a di ta ta', '1-₂ te 3 4', '↓-↑-↓ ↑ ↓-↑ ↓-↑'],
  ['4/4 e q e q (q)', '1 &-₂ & 3 (4)', 'ti ta ti ta sh', 'ta di-i di ta (ta)', '1 te-₂ te 3 (4)', '↓ ↑-↓ ↑ ↓-↑ (↓-↑)'],
  [
    '4/4 h. q~ | q e e~ e e q',
    '1-2-3 4 | -1 2 & -₃ & 4',
    'ta-a-a ta | -a ti ti -i ti ta',
    'ta-a-a ta | -a ta di -i di ta',
    '1-2-3 4 | -1 2 te -₃ te 4',
    '↓-↑-↓-↑-↓-↑ ↓-↑ | -↓-↑ ↓ ↑ -↓ ↑ ↓-↑',
  ],
  [
    '4/4 e (e) (e) e s s s s e s s',
    '1 (&) (2) & 3 e & a 4 & a',
    'ti s s ti ti ka ti ka ti ti ka',
    'ta (di) (ta) di ta ka di mi ta di mi',
    '1 (te) (2) te 3 ta te ta 4 te ta',
    '↓ (↑) (↓) ↑ ↓ · ↑ · ↓ ↑ ·',
  ],
  [
    '4/4 3{e e e} q e. s q',
    '1 la li 2 3 a 4',
    'tri o la ta tim ka ta',
    'ta ki da ta ta mi ta',
    '1 la li 2 3 ta 4',
    '↓ · · ↓-↑ ↓-↑ · ↓-↑',
  ],
  ['6/8 q e q (e)', '1 li 2 (li)', 'ta ti ta s', 'ta da ta (da)', '1 li 2 (li)'],
  ['2/2 h q q | w', '1 2 & | 1-2', 'ta-a ta ta | ta-a-a-a', 'ta ta di | ta-a', '1 2 te | 1-2', '↓-↑ ↓ ↑ | ↓-↑-↓-↑'],
  [
    '4/4 ^ q | (M3) h (h)',
    '4 | (1-2-3-4) | (2-2-3-4) | (3-2-3-4) | 1-2 (3-4)',
    'ta | sh-sh-sh-sh | sh-sh-sh-sh | sh-sh-sh-sh | ta-a sh-sh',
  ],
];

describe('the rows of the rules', () => {
  for (const [text, ...cells] of RULES) {
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
  ['takadimi', '7/8[2+2+3] e e e e e e e', 'ta di ta di ta ki da'],
  ['takadimi', '7/8[3+2+2] e q s s e e (e) | q. q (q)', 'ta ki ta ka di ta (di) | ta ta (ta)'],
  ['takadimi', '5/8 q. q | e e e q~ | e q (q)', 'ta ta | ta ki da ta | -a ki (ta)'],
  ['takadimi', '7/8 h q. | (M1) | 3{e e e} q q.', 'ta-a ta | (ta-ta-ta) | ta ki da ta ta'],
  ['takadimi', '8/8[3+3+2] e e e q e e e', 'ta ki da ta da ta di'],
  ['takadimi', '5/4 q q q e e q', 'ta ta ta ta di ta'],
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
  [
    'note-names',
    '4/4 h. q | q. e e s s q | w',
    'half-note-dot quarter | quarter-dot eighth eighth sixteenth sixteenth quarter | whole-note-hold-on',
  ],
  ['note-names', '4/4 (h) (e) e q', 'rest-rest rest eighth quarter'],
  ['within-note', "4/4 h'G' q (q) | q. e h", 'G-2 1 rest | 1-2 1 1-2'],
  ['within-note', '4/4 h h~ | q q q. e~ | e q. h', '1-2 1-2 | -3 1 1-2 1 | - 1-2 1-2'],
  ['feet', '4/4 s s e (h)', '↓ · ↑ (↓-↑-↓-↑)'],
  ['feet', '4/4 3{q q q} h', '↓ ·-↓ · ↓-↑-↓-↑'],
  [
    'feet',
    '6/8 q. q.',
    'the feet go down and up in simple meters; a beat of 6/8 divides in three (count a value that divides in two)',
  ],
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
    expect(say('4/4 q e e h', { school: 'numbers', houseWords: { half: 'and', beat3: 'three' } })).toBe(
      '1 2 and three-4',
    );
    expect(say('4/4 q. e h', { school: 'ta', houseWords: { dottedQuarter: 'tam' } })).toBe('tam ti ta-a');
  });
  it('says a cell by its word, one syllable a note, a label before all', () => {
    expect(say("2/4 e e q | s s s s e'boat' e", { school: 'words' })).toBe('ot ter crab | pe ri win kle boat gull');
    expect(say("4/4 q'low tide' q h", { school: 'words' })).toMatch(/^low-tide /);
    expect(say('4/4 3{e e e} e (e) h~ | w', { school: 'words' })).toBe('jel ly fish gull (gull) seal | -');
    expect(say('3/4 q (q) (e.) s | (M1) | h.', { school: 'words' })).toBe('crab (crab) (eel) shrimp | (shark) | shark');
  });
});

describe('a cell stands from one beat to another', () => {
  it.each([
    ['4/4 q e e e e q', 'crab ot ter ot ter crab'],
    ['6/8 q e e e e', 'puf fin oc to pus'],
    ['4/4 e e e (e) q. e', 'ot ter gull (gull) dol phin'],
    ['4/4 e q e h', 'gull crab gull seal'],
    ['3/8 e e e | e s s e', 'oc to pus | cor mo rant gull'],
    ['2/4 s s e e. s', 'pel i can lob ster'],
    ['2/2 q q e e e e', 'crab crab gull gull gull gull'],
    ['3/4 3{e e e} 3{q e} q', 'jel ly fish · · crab'],
  ])('%s: %s', (text, expected) => expect(say(text, { school: 'words' })).toBe(expected));
});

describe('laws', () => {
  it('one token an event, in every school and style, and never an exception', () => {
    fc.assert(
      fc.property(
        anyPattern,
        fc.constantFrom<CountOptions['school']>(
          'numbers',
          'pulses',
          'numbers-te',
          'takadimi',
          'ta',
          'note-names',
          'within-note',
          'words',
        ),
        fc.constantFrom('parens', 'rest', 'sh', 'silent', undefined),
        (pattern, school, rests) => {
          const counted = countPattern(pattern, { school, rests });
          if (!counted.ok) throw new Error(counted.reason);
          expect(counted.measures.map(({ tokens }) => tokens.length)).toEqual(
            placePattern(pattern).map(({ events }) => events.length),
          );
          for (const { text } of counted.measures.flatMap(({ tokens }) => tokens)) expect(text).toMatch(/^[^\s]+$/);
        },
      ),
    );
  });

  /** The rules once more, in plain decimals of a beat: slow and simple, to hold the systems against. */
  const SYLLABLES = {
    numbers: { 0.25: 'e', 0.5: '&', 0.75: 'a', 0.333: 'la', 0.667: 'li', 0.167: 'ta', 0.833: 'ta' },
    'numbers-te': { 0.25: 'ta', 0.5: 'te', 0.75: 'ta', 0.333: 'la', 0.667: 'li', 0.167: 'ta', 0.833: 'ta' },
    takadimi: { 0: 'ta', 0.25: 'ka', 0.5: 'di', 0.75: 'mi', 0.333: 'ki', 0.667: 'da', 0.167: 'va', 0.833: 'ma' },
  } as const;
  const inParts = (beats: number) => Math.round(beats * 1000) / 1000;
  const SMALL = '₀₁₂₃₄₅₆₇₈₉';

  function plainToken(
    school: keyof typeof SYLLABLES,
    kind: string,
    onset: number,
    length: number,
    compound: boolean,
  ): string {
    const [beat, part] = [Math.floor(inParts(onset)) + 1, inParts(inParts(onset) % 1)];
    const syllable: Readonly<Record<number, string>> =
      compound && part === 0.5 ? { 0.5: school === 'takadimi' ? 'di' : 'ta' } : SYLLABLES[school];
    const head = part === 0 && school !== 'takadimi' ? String(beat) : (syllable[part] ?? '·');
    const inside = Array.from({ length: 20 }, (_, k) => k).filter(
      (k) => (kind === 'tied' ? k >= inParts(onset) : k > inParts(onset)) && k < inParts(onset + length),
    );
    if (school === 'takadimi')
      return head + inside.map(() => (kind === 'rest' ? '-ta' : `-${/[aeiou]/.exec(head)![0]}`)).join('');
    const holds = inside.map((k) => (k + 1 <= inParts(onset + length) ? `-${k + 1}` : `-${SMALL[k + 1]}`)).join('');
    return kind === 'tied' ? holds || '-' : head + holds;
  }

  it('numbers, numbers-te and takadimi are as the rules have them, worked out another way', () => {
    fc.assert(
      fc.property(
        everydayPattern,
        fc.constantFrom('numbers' as const, 'numbers-te' as const, 'takadimi' as const),
        (pattern, school) => {
          const { meter } = pattern.measures[0]!;
          const beat = toNumber(beatOf(meter).length);
          const expected = placePattern(pattern).map(({ events }) =>
            events.map(({ kind, onset, length }) => {
              const token = plainToken(
                school,
                kind,
                toNumber(onset) / beat,
                toNumber(length) / beat,
                meterKind(meter) === 'compound',
              );
              return kind === 'rest' ? `(${token})` : token;
            }),
          );
          const counted = countPattern(pattern, { school });
          expect(counted.ok && counted.measures.map(({ tokens }) => tokens.map(({ text }) => text))).toEqual(expected);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('the counted value moves every number: twice as many beats of half the length', () => {
    fc.assert(
      fc.property(everydayPattern, (pattern) => {
        const places = (beat: 'q' | 'e') => {
          const counted = countPattern(pattern, { school: 'numbers', beat });
          return counted.ok
            ? counted.measures.map(({ tokens }) => tokens.map((token) => readMixed(token.beat) - 1))
            : [];
        };
        const halved = places('q').map((measure) => measure.map((at) => inParts(at * 2)));
        expect(places('e').map((measure) => measure.map(inParts))).toEqual(halved);
      }),
    );
  });

  it('in every meter, a note that starts on a beat is said with the number of that beat', () => {
    fc.assert(
      fc.property(fullPattern, fc.constantFrom('numbers' as const, 'numbers-te' as const), (pattern, school) => {
        const counted = countPattern(pattern, { school });
        if (!counted.ok) throw new Error(counted.reason);
        placePattern(pattern).forEach(({ events, meter }, m) =>
          events.forEach(({ kind, onset, tuplet }, i) => {
            const beat = div(onset, beatOf(meter).length);
            if (kind !== 'note' || !isWhole(beat) || tuplet) return;
            const { text } = counted.measures[m]!.tokens[i]!;
            expect(text.split('-')[0]).toBe(String(toNumber(beat) + 1));
          }),
        );
      }),
    );
  });

  it('house words change nothing but the word', () => {
    fc.assert(
      fc.property(
        everydayPattern,
        fc.constantFrom('half', 'quarter1', 'quarter3', 'third1', 'third2'),
        (pattern, key) => {
          const [usual, own] = [
            countPattern(pattern, { school: 'numbers' }),
            countPattern(pattern, { school: 'numbers', houseWords: { [key]: 'zap' } }),
          ];
          if (!usual.ok || !own.ok) throw new Error();
          const word = COUNTING_SYSTEMS().numbers.words[key]!;
          const swapped = usual.measures.map(({ tokens }) =>
            tokens.map(({ text }) =>
              text
                .split('-')
                .map((part) => part.replace(new RegExp(`^(\\(?)${word}(\\)?)$`), '$1zap$2'))
                .join('-'),
            ),
          );
          expect(own.measures.map(({ tokens }) => tokens.map(({ text }) => text))).toEqual(swapped);
        },
      ),
    );
  });
});

/** "1 1/2" as a number. */
function readMixed(text: string): number {
  return text.split(' ').reduce((sum, part) => {
    const [n, d = '1'] = part.split('/');
    return sum + Number(n) / Number(d);
  }, 0);
}
