import { describe, expect, it } from 'vitest';
import { behindText, blockLeftText, lateText, leftText, lessonTitle, stepText, unmetText } from './planWords.ts';

describe('the words of planning', () => {
  it('name steps as the class names its notes', () => {
    expect(stepText({ element: 'half', step: 'meet' }, 'quarters')).toBe('half: new');
    expect(stepText({ element: 'half', step: 'hear' }, 'crotchets')).toBe('minim: for a mark');
  });
  it('call a lesson after what is new in it, else after what is done', () => {
    const read = { element: 'tie', step: 'read' } as const;
    const meet = { element: 'half-rest', step: 'meet' } as const;
    expect(lessonTitle([read, meet], 'Practice', 'quarters')).toBe('Half rest: new');
    expect(lessonTitle([read], 'Practice', 'quarters')).toBe('Tie: read');
    expect(lessonTitle([], 'Practice', 'quarters')).toBe('Practice');
  });
  it('say what was not met, and what to do', () => {
    expect(unmetText({ block: 0, element: 'tie', introducedIn: undefined }, 'quarters')).toBe(
      'Tie is not met yet: say under “New” where the class meets it.',
    );
    expect(unmetText({ block: 0, element: 'half', introducedIn: 3 }, 'quarters')).toBe(
      'Half is not met yet. Block 4 introduces it: put that before this one.',
    );
  });
  it.each([
    [0, 'fits', 'on time', '0:00 left'],
    [29, 'fits', 'on time', '0:29 left'],
    [-29, 'fits', 'on time', '0:29 over'],
    [190, '3 min left', '3 min late', '3:10 left'],
    [-90, '2 min too long', '2 min early', '1:30 over'],
  ])('%i s: %s, %s, %s', (seconds, left, behind, block) =>
    expect([leftText(seconds), behindText(seconds), blockLeftText(seconds)]).toEqual([left, behind, block]),
  );
  it('say what comes back too late', () =>
    expect(lateText({ element: 'tie', from: '2026-09-01', days: 25 }, 'quarters')).toBe('tie (25 days)'));
});
