import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Keyed, keyIn, pointsOf } from './paperKeys.ts';

const column = (rows: number, at = 0): Keyed => ({
  rows: Array.from({ length: rows }, () => ''),
  at,
  marked: true,
  arrived: false,
});

/** What stands in the rows, and where the next key goes, after keys with blanks between. */
function after(keys: string, outOf: number, from = column(4)): string {
  let now = from;
  for (const key of keys.split(' ')) now = keyIn(now, key, outOf) ?? now;
  return `${now.rows.join('|')} ${now.at}`;
}

describe('marks that are keyed in', () => {
  it.each([
    // Out of 9 and less every figure is all; Enter after it does nothing more.
    ['7 6', 8, '7|6|| 2'],
    ['5 Enter 6 Enter 3 Enter 7 Enter', 8, '5|6|3|7 3'],
    ['5 Enter 6 Enter 3 Enter', 10, '5|6|3| 3'],
    // A second figure may follow: 1 may become 17, or 10, or 100.
    ['1 7 3', 24, '17|3|| 2'],
    ['1 Enter 3', 24, '1|3|| 2'],
    ['1 0 1 0', 10, '10|10|| 2'],
    ['1 0 0 1 7', 100, '100|17|| 2'],
    ['1 0 Enter 1 7', 100, '10|17|| 2'],
    ['0 1 2 Enter', 24, '0|12|| 2'],
    // A second Enter leaves one out; so does Enter where nothing went on by itself.
    ['5 Enter Enter 6', 8, '5||6| 3'],
    ['Enter Enter 6', 8, '||6| 3'],
    // Halves, with a point or a comma, also after what seemed to be all.
    ['1 2 . 5 Enter 3', 24, '12.5|3|| 2'],
    ['1 2 , 5 Enter 3', 24, '12,5|3|| 2'],
    ['7 . 5 Enter 3', 8, '7.5|3|| 2'],
    ['0 . 5 Enter 3', 8, '0.5|3|| 2'],
    ['. 5', 8, '5||| 1'],
    // What is taken back, before it went on and after.
    ['1 Backspace 2 Enter', 24, '2||| 1'],
    ['1 7 Backspace 8', 24, '18||| 1'],
    ['7 Backspace 8', 8, '8||| 1'],
    ['7 Enter Backspace 8', 8, '7|8|| 2'],
    // More than there is stays, to be said.
    ['1 2', 10, '12||| 0'],
    // Letters are one key for what has two figures.
    ['a O', 24, '10|24|| 2'],
    ['z Enter 7', 60, '35|7|| 2'],
    ['d', 11, '13||| 0'],
    // Arrows go where they point, and a figure takes the place of what stands there.
    ['5 6 ArrowUp ArrowUp 7', 8, '7|6|| 1'],
    ['ArrowUp 1 ArrowDown ArrowDown ArrowDown ArrowDown 2', 8, '1|||2 3'],
  ])('%s out of %i: %s', (keys, outOf, stands) => expect(after(keys, outOf)).toBe(stands));

  it('the last Enter sends the form, unless it came after what went on by itself', () => {
    const last = column(2, 1);
    expect(keyIn(last, 'Enter', 8)).toBeUndefined();
    expect(keyIn({ ...last, arrived: true }, 'Enter', 8)).toEqual({ ...last, arrived: false });
    expect(keyIn(last, 'Tab', 8)).toBeUndefined();
  });

  /** Marks as they are meant: nothing, whole ones and halves. */
  const meant = (outOf: number) =>
    fc.array(
      fc.oneof(
        { weight: 1, arbitrary: fc.constant(null) },
        { weight: 5, arbitrary: fc.integer({ min: 0, max: outOf }) },
        { weight: 2, arbitrary: fc.integer({ min: 0, max: outOf - 1 }).map((whole) => whole + 0.5) },
      ),
      { minLength: 1, maxLength: 26 },
    );
  interface Whim {
    readonly slips: boolean;
    readonly figure: number;
    readonly comma: boolean;
  }
  const typist = fc.constantFrom('always' as const, 'after two' as const);

  it('fill every row as it was meant, however they are typed and taken back', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 120 }).chain((outOf) => fc.tuple(fc.constant(outOf), meant(outOf))),
        typist,
        fc.infiniteStream(
          fc.record({ slips: fc.boolean(), figure: fc.integer({ min: 0, max: 9 }), comma: fc.boolean() }),
        ),
        ([outOf, marks], enters, whims) => {
          let now = column(marks.length);
          const press = (key: string) => (now = keyIn(now, key, outOf) ?? now);
          marks.forEach((mark, row) => {
            const whim = whims.next().value as Whim;
            // A wrong figure, seen at once and taken back.
            if (whim.slips && mark !== null) {
              press(String(whim.figure));
              press('Backspace');
            }
            const text = mark === null ? '' : String(mark).replace('.', whim.comma ? ',' : '.');
            for (const key of text) press(key);
            const wentOn = now.at !== row;
            // One always presses Enter, another where the eye sees that it is needed, a second time as well.
            if (enters === 'always' || text.length >= 2 || !wentOn) press('Enter');
            if (enters !== 'always' && now.at === row) press('Enter');
          });
          expect(now.rows.map((text) => pointsOf(text, outOf))).toEqual(marks);
        },
      ),
      { numRuns: 400 },
    );
  });
});
