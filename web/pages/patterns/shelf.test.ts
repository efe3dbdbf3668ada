import { describe, expect, it } from 'vitest';
import type { SavedPattern } from '../../../contract/pattern.ts';
import { NO_FOLDER, PUT_AWAY, foldersOf, found, inFolder, movedTo, putAway, shelved } from './shelf.ts';
import { NOTHING_WANTED, type Wanted } from './wanted.ts';

const PATTERNS: readonly SavedPattern[] = [
  { id: 'a', title: 'Two gulls', text: '4/4 q q e e q' },
  { id: 'b', title: 'Fog horn', text: '4/4 h (h)', folder: 'Rests' },
  { id: 'c', title: 'Long rope', text: '4/4 h h~ | h h', folder: 'Ropes' },
  { id: 'd', title: 'Horn again', text: '4/4 q (q) (h)', folder: 'Rests' },
  { id: 'e', title: 'Old crab', text: '2/4 e s s e e', archived: true },
  { id: 'f', title: 'Waltz', text: '3/4 q q q' },
  { id: 'g', title: 'Half a line', text: '4/4 q x' },
];

describe('looking for patterns', () => {
  it.each<[string, Partial<Wanted>, string]>([
    ['all that are not put away', {}, 'abcdfg'],
    ['words of title, text and folder, in any order', { words: 'HORN fog' }, 'b'],
    ['words of the text', { words: '(h)' }, 'bd'],
    ['words of the folder', { words: 'ropes' }, 'c'],
    ['a meter', { meter: '3/4' }, 'f'],
    ['an element', { element: 'half-rest' }, 'bd'],
    ['a tie', { element: 'tie' }, 'c'],
    ['a level', { level: '1' }, 'cf'],
    ['a folder', { folder: 'Rests' }, 'bd'],
    ['in no folder', { folder: NO_FOLDER }, 'afg'],
    ['put away', { folder: PUT_AWAY }, 'e'],
    ['what the class has met', { met: new Set(['quarter', 'eighth-pair', 'half'] as const) }, 'af'],
    ['all at once', { element: 'half-rest', folder: 'Rests', words: 'again' }, 'd'],
  ])('%s', (_name, wanted, ids) => {
    const all = shelved(PATTERNS);
    expect(
      found(all, { ...NOTHING_WANTED, ...wanted })
        .map(({ saved }) => saved.id)
        .join(''),
    ).toBe(ids);
  });

  it('reads all parts of one: elements and level are those of all, and it sounds like another in all', () => {
    const texts = [
      '4/4 [A] q q h [B] h (h)',
      '4/4 [x] q q h [y] h (q) (q)',
      '4/4 [l] q q q~ q [r] q~ q (h)',
      '4/4 q q h',
    ];
    const all = shelved(texts.map((text, i) => ({ id: String(i), title: `Crab ${i}`, text })));
    expect(all.map(({ parts }) => parts.map(({ name }) => name).join())).toEqual(['A,B', 'x,y', 'l,r', '']);
    expect([...all[0]!.elements]).toContain('half-rest');
    expect(all[0]!.level! >= all[3]!.level!).toBe(true);
    expect(all.map(({ soundsLike }) => soundsLike)).toEqual([undefined, 'Crab 0', 'Crab 0', undefined]);
  });

  it('says what sounds like another one, but not of what is put away', () => {
    const like = (patterns: readonly SavedPattern[]) => shelved(patterns).map(({ soundsLike }) => soundsLike);
    expect(like(PATTERNS).filter(Boolean)).toEqual(['Fog horn']);
    expect(like([{ ...PATTERNS[1]!, archived: true }, PATTERNS[3]!])).toEqual([undefined, undefined]);
    expect(
      like([
        { id: 'x', title: 'X', text: '2/4 q q' },
        { id: 'y', title: 'Y', text: '4/4 q q (h)' },
      ]),
    ).toEqual([undefined, undefined]);
  });

  it('knows the folders, but not those in which everything is put away', () =>
    expect(foldersOf([...PATTERNS, { id: 'h', title: 'x', text: 'w', folder: 'Old', archived: true }])).toEqual([
      'Rests',
      'Ropes',
    ]));
});

describe('arranging patterns', () => {
  const order = (places: readonly { readonly id: string }[]) => places.map(({ id }) => id).join('');
  it('puts one where another one stands, forwards and back, and keeps folders', () => {
    expect(order(movedTo(PATTERNS, 'a', 'c'))).toBe('bcadefg');
    expect(order(movedTo(PATTERNS, 'f', 'b'))).toBe('afbcdeg');
    expect(order(movedTo(PATTERNS, 'a', 'z'))).toBe('abcdefg');
    expect(movedTo(PATTERNS, 'b', 'a')[0]).toEqual({ id: 'b', folder: 'Rests' });
    expect(movedTo(PATTERNS, 'b', 'a')[4]).toEqual({ id: 'e', archived: true });
  });
  it('puts some into a folder, and out of it', () => {
    const places = inFolder(PATTERNS, new Set(['a', 'b']), ' New ');
    expect(places.slice(0, 3)).toEqual([
      { id: 'a', folder: 'New' },
      { id: 'b', folder: 'New' },
      { id: 'c', folder: 'Ropes' },
    ]);
    expect(inFolder(PATTERNS, new Set(['b']), '')[1]).toEqual({ id: 'b' });
  });
  it('puts some away, and brings them back', () => {
    expect(putAway(PATTERNS, new Set(['b']), true)[1]).toEqual({ id: 'b', folder: 'Rests', archived: true });
    expect(putAway(PATTERNS, new Set(['e']), false)[4]).toEqual({ id: 'e' });
    expect(putAway(PATTERNS, new Set(['e']), false)[1]).toEqual({ id: 'b', folder: 'Rests' });
  });
});
