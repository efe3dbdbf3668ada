import { describe, expect, it } from 'vitest';
import { patternOf } from './arbitrary.test-helper.ts';
import { barCheck } from './barCheck.ts';

describe('the complement of a pickup', () => {
  it.each([
    ['ends the piece', '4/4 ^ q | w | h.', ['pickup', 'full', 'full']],
    ['ends a repeated part too', '4/4 ^ q | w | h. :| w | h.', ['pickup', 'full', 'full', 'full', 'full']],
    ['stands nowhere else', '4/4 ^ q | w | h. | w | h.', ['pickup', 'full', 'short', 'full', 'full']],
    ['is short by just the pickup', '4/4 ^ q | w | h :| w | h.', ['pickup', 'full', 'short', 'full', 'full']],
    ['needs a pickup', '4/4 w | h. :| w', ['full', 'short', 'full']],
  ])('%s: %s', (_where, text, verdicts) =>
    expect(barCheck(patternOf(text)).map(({ verdict }) => verdict)).toEqual(verdicts),
  );
});
