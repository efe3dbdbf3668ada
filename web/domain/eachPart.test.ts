import { expect, it } from 'vitest';
import { eachPart } from './eachPart.ts';

it.each([
  ['4/4 q  q h', ['a Quay: 4/4 q  q h']],
  ['4/4 [clap] q q h [stamp]* h h', ['a 0 Quay · clap: 4/4 q q h', 'a 1 Quay · stamp: 4/4 h h']],
  ['4/4 [clap] q', []],
])('the lines of %s', (text, lines) =>
  expect(eachPart({ id: 'a', title: 'Quay', text }).map((line) => `${line.id} ${line.title}: ${line.text}`)).toEqual(
    lines,
  ),
);
