import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { everydayPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { brailleOf, writeBraille } from './writeBraille.ts';

const file = (text: string, title = '') => writeBraille([{ title, pattern: patternOf(text) }], { school: 'numbers' });

describe('braille', () => {
  it.each([
    ['1 & 2 &', '#A @& #B @&'],
    ['10', '#AJ'],
    ['1a', '#A;A'],
    ['1k', '#AK'],
    ['1-₂', '#A-5#B'],
    ['(3) 4', '"<#C"> #D'],
    ['Ta-a ti', ',TA-A TI'],
    ['Fähre', ',FAHRE'],
    ['↓↑', '\\%\\+'],
    ['🎵', ''],
  ])('%s is %s', (text, cells) => expect(brailleOf(text)).toBe(cells));

  it('has a line a measure, with its number, after the title', () =>
    expect(file('4/4 q e e h | (q) q. e q', 'Low tide')).toBe(
      ',LOW TIDE\r\n\r\n#A  #A #B @& #C-#D\r\n#B  "<#A"> #B-5#C @& #D\r\n',
    ));
  it('numbers measures as they are numbered, a pickup as 0', () => {
    expect(file('4/4 ^ q | w').split('\r\n')[0]).toBe('#J  #D');
    expect(file('4/4 #5 w | w')).toMatch(/^#E .*\r\n#F /);
  });
  it('keeps to 40 cells and 25 lines, and to the cells an embosser has', () => {
    fc.assert(
      fc.property(
        fc.array(everydayPattern, { minLength: 1, maxLength: 12 }),
        fc.string({ maxLength: 80 }),
        (patterns, title) => {
          const named = patterns.map((pattern) => ({ title, pattern }));
          for (const page of writeBraille(named, { school: 'ta' }).split('\f')) {
            const lines = page.split('\r\n').slice(0, -1);
            expect(lines.length).toBeLessThanOrEqual(25);
            for (const line of lines) {
              expect(line.length).toBeLessThanOrEqual(40);
              expect(line).toMatch(/^[ -_]*$/);
            }
          }
        },
      ),
      { numRuns: 30 },
    );
  });
  it('says where a school has no counts', () =>
    expect(() => writeBraille([{ title: 'Kelp', pattern: patternOf('6/8 q. q.') }], { school: 'feet' })).toThrow(
      /^“Kelp”: ./,
    ));
});
