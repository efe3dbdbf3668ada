import { perLanguage, t } from '../words/say.ts';
import type { RestStyle } from '../counting/countingSystem.ts';

/** How a teacher would say the ways to give a rest. */
export const REST_NAMES = perLanguage((): Readonly<Record<RestStyle, string>> => ({
  parens: t`in parentheses`,
  whisper: t`whispered`,
  rest: t`“rest”`,
  sh: t`“sh”`,
  silent: t`silent`,
}));
