import { expect, it } from 'vitest';
import { patternOf } from '../../../core/rhythm/arbitrary.test-helper.ts';
import { scoreOfText } from '../../../core/rhythm/arbitraryScore.test-helper.ts';
import { printScore } from '../../../core/rhythm/scoreText.ts';
import { shownAmong, soundsAmong } from './amongParts.ts';

const { parts } = scoreOfText('4/4 [clap] q q h [stamp] h h [snap] (q) q (h)');

it('a candidate for one part stands among the others as they are', () => {
  const { pattern, parts: shown } = shownAmong(patternOf('4/4 w'), { parts, index: 1 });
  expect(printScore({ parts: shown! })).toBe('4/4 [clap] q q h [stamp] w [snap] (q) q (h)');
  expect(pattern).toBe(parts[0]!.pattern);
  expect(shownAmong(patternOf('4/4 w'), undefined)).toEqual({ pattern: patternOf('4/4 w') });
});

it('each part is heard with its own sound', () => {
  const { own, others } = soundsAmong({ parts, index: 1 });
  expect([own, ...others.map(({ struck }) => struck)]).toEqual(['stamp', 'clap', 'snap']);
});
