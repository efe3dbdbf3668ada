import { describe, expect, it } from 'vitest';
import { childInName } from './childInName.ts';

const children = [
  { id: 'a', name: 'Ada' },
  { id: 'b', name: 'Adam' },
  { id: 'c', name: 'J7' },
  { id: 'd', name: 'Zoë' },
];

describe('the child in the name of a file', () => {
  it.each([
    ['Ada.wav', 'a'],
    ['adam_week 3.mp3', 'b'],
    ['2026-11-20 j7.m4a', 'c'],
    ['ZOË-at-home.webm', 'd'],
    ['take7.wav', ''],
    ['Adamant.wav', ''],
    ['.wav', ''],
  ])('%s: “%s”', (file, id) => expect(childInName(file, children)).toBe(id));
});
