import { describe, expect, it } from 'vitest';
import type { ClassRecords } from '../contract/records.ts';
import { withHeard } from './repository/lateTakes.ts';

const RECORDS: ClassRecords = {
  children: ['ada', 'bo'],
  patterns: [{ key: 'p', title: 'Gulls', lastAt: 50 }],
  marks: [
    { child: 0, pattern: 0, takes: 1, best: 3, last: 3, average: 3 },
    { child: 1, pattern: 0, takes: 2, best: 4, last: 2, average: 3 },
  ],
  elements: [],
  paper: [],
};

describe('a take that comes after its term was closed', () => {
  it('changes the marks of its child in its pattern, and no other', () => {
    const late = withHeard(RECORDS, { childId: 'ada', key: 'p', title: 'Gulls', lastAt: 40, marks: [1, 3, 3] });
    expect(late.patterns).toEqual(RECORDS.patterns);
    expect(late.marks).toEqual([RECORDS.marks[1], { child: 0, pattern: 0, takes: 3, best: 3, last: 3, average: 2.33 }]);
  });
  it('is a column of its own where the pattern was not heard, and renames it where it is the newest', () => {
    const late = withHeard(RECORDS, { childId: 'bo', key: 'q', title: 'Tide', lastAt: 60, marks: [2] });
    expect(late.patterns).toEqual([...RECORDS.patterns, { key: 'q', title: 'Tide', lastAt: 60 }]);
    expect(late.marks.at(-1)).toEqual({ child: 1, pattern: 1, takes: 1, best: 2, last: 2, average: 2 });
    const newer = withHeard(RECORDS, { childId: 'bo', key: 'p', title: 'Two gulls', lastAt: 70, marks: [4, 2, 1] });
    expect(newer.patterns).toEqual([{ key: 'p', title: 'Two gulls', lastAt: 70 }]);
  });
  it('of a child who was not in it leaves it as it was', () =>
    expect(withHeard(RECORDS, { childId: 'cy', key: 'p', title: 'Gulls', lastAt: 70, marks: [4] })).toBe(RECORDS));
});
