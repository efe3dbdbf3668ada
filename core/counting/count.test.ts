import { describe, expect, it } from 'vitest';
import { parseRhythm } from '../rhythm/text.ts';
import { type CountOptions, countPattern, plainCounts } from './count.ts';

function say(text: string, options: CountOptions): string {
  const parsed = parseRhythm(text);
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.at));
  const counted = countPattern(parsed.pattern, options);
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
