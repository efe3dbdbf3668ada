import fc from 'fast-check';
import { expect, it } from 'vitest';
import { partKey } from './partKey.ts';

const ID = '0190a5c2-1c11-7b11-8e11-5a0c7d6e4f21';

it('takes of a whole pattern stand under its id, those of a part under a key of their own', () => {
  expect(partKey(ID, undefined)).toBe(ID);
  const keys = ['clap', 'stamp', 'pat', 'snap', 'left', 'right', 'A', 'B', 'C', 'D'].map((name) => partKey(ID, name));
  expect(new Set(keys).size).toBe(10);
  expect(partKey(ID, ' Clap')).toBe(keys[0]);
  expect(partKey(ID.replace('0190', '0191'), 'clap')).not.toBe(keys[0]);
});

it('is never longer than an id', () =>
  fc.assert(fc.property(fc.uuid(), fc.string(), (id, part) => void expect(partKey(id, part)).toHaveLength(36))));
