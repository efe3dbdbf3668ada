import type { RestStyle } from '../counting/countingSystem.ts';

/** How a teacher would say the ways to give a rest. */
export const REST_NAMES: Readonly<Record<RestStyle, string>> = {
  parens: 'in parentheses',
  whisper: 'whispered',
  rest: '“rest”',
  sh: '“sh”',
  silent: 'silent',
};
