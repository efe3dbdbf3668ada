import { describe, expect, it } from 'vitest';
import { shelved } from './shelf.ts';
import { pageEdit, usualTitle } from './pageEdit.ts';

const words = (measure: number, beat: number, said = 'row') => ({
  from: { measure, beat },
  to: { measure, beat: beat + 1 },
  words: said,
});
const chosen = (...lines: [title: string, text: string, brackets?: ReturnType<typeof words>[]][]) =>
  shelved(
    lines.map(([title, text, brackets], i) => ({ id: String(i), title, text, ...(brackets ? { brackets } : {}) })),
  );

describe('a page of lines', () => {
  it('is a pattern with the words over its lines where they were', () =>
    expect(
      pageEdit(
        chosen(['Waves', '4/4 q q h | w', [words(2, 1)]], ['Bell', '4/4 ^ q | w | h.', [words(0, 4), words(1, 1)]]),
        ' Two ',
      ),
    ).toEqual({
      title: 'Two',
      text: '4/4 "1" q q h | w | "2" (h.) q | w | h. (q)',
      brackets: [words(2, 1), words(3, 4), words(4, 1)],
    }));
  it('leaves words away that stood over a repeat with a pickup', () =>
    expect(
      pageEdit(chosen(['Waves', '4/4 w'], ['Bell', '4/4 ^ q | q q q :|', [words(1, 1)]]), 'Two'),
    ).not.toHaveProperty('brackets'));
  it.each([
    ['without a name', chosen(['A', '4/4 w'], ['B', '4/4 w']), ' '],
    ['of too many measures', chosen(['A', '4/4 (M600)'], ['B', '4/4 (M600)']), 'Long'],
  ])('is none %s', (_why, lines, title) => expect(pageEdit(lines, title)).toBeUndefined());
  it.each([
    [[], 'Lines'],
    [['Waves', 'Bell'], 'Lines: Waves, Bell'],
    [['Waves', 'a'.repeat(40), 'b'.repeat(40)], 'Lines: Waves and 2 more'],
    [['w'.repeat(60), 'Bell'], `Lines: ${'w'.repeat(42)} and 1 more`],
  ])('of %j is called %s', (titles, called) => {
    const title = usualTitle(chosen(...titles.map((one) => [one, '4/4 w'] as [string, string])));
    expect(title).toBe(called);
    expect(title.length).toBeLessThanOrEqual(60);
  });
});
