import type { CountOptions, CountedToken } from '../counting/count.ts';
import type { RestStyle } from '../counting/school.ts';
import { SCHOOLS } from '../counting/schools.ts';
import { NO_SYLLABLE } from '../counting/beatPlace.ts';

/** How a class gives its rests. */
export function restStyleOf({ school, rests }: CountOptions): RestStyle {
  return rests ?? SCHOOLS[school].rests;
}

const SMALL_DIGITS = '₀₁₂₃₄₅₆₇₈₉';

/** Without what only the eye needs: parentheses, small digits, hyphens between numbers and repeated words. */
function aloud(text: string): string {
  const plain = text
    .replace(/^\(|\)$/g, '')
    .replace(/[₀-₉]/g, (digit) => String(SMALL_DIGITS.indexOf(digit)))
    .replace(/^-/, '');
  // The arrows of the feet are drawn, not said.
  if (/[↓↑]/.test(plain)) return plain.replaceAll('↓', 'down').replaceAll('↑', 'up').replaceAll('-', ' ');
  const parts = plain.split('-');
  return /\d/.test(plain) || parts.every((part) => part === parts[0]) ? parts.join(' ') : plain;
}

/**
 * What is said where an event begins, in quotes: of a held count only its first part. Where a school has no syllable,
 * the place.
 */
export function spokenCount({ text, beat, kind }: CountedToken): string {
  const said = kind === 'rest' ? aloud(text) : aloud(text).split(/[ -]/)[0]!;
  return said === '' || said === '_' || said.includes(NO_SYLLABLE) ? `beat ${beat}` : `“${said}”`;
}

/** What to do in a rest: "whisper “3”"; where rests are silent, "keep still". */
export function restsKept(token: CountedToken | undefined, counts: CountOptions): string {
  if (!token || token.kind !== 'rest' || restStyleOf(counts) === 'silent' || token.text.includes(NO_SYLLABLE))
    return 'keep still';
  return `whisper “${aloud(token.text)}”`;
}

/** The same for rests wherever they stand. */
export function anyRestKept(counts: CountOptions): string {
  const style = restStyleOf(counts);
  if (style === 'silent') return 'keep still';
  if (style === 'rest') return 'whisper “rest”';
  return style === 'sh' ? 'whisper the word of the rest' : 'whisper the count';
}
