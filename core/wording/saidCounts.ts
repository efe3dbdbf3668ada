import { t } from '../words/say.ts';
import type { CountOptions, CountedToken } from '../counting/count.ts';
import type { RestStyle } from '../counting/countingSystem.ts';
import { COUNTING_SYSTEMS } from '../counting/countingSystems.ts';
import { NO_SYLLABLE } from '../counting/beatPlace.ts';

/** How a class gives its rests. */
export function restStyleOf({ school, rests }: CountOptions): RestStyle {
  return rests ?? COUNTING_SYSTEMS()[school].rests;
}

/** Nobody whispers more counts in a row than so many from one sentence. */
const FEW_COUNTS = 4;

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
  return said === '' || said === '_' || said.includes(NO_SYLLABLE) ? t`beat ${beat}` : `“${said}”`;
}

/** What is said in a row, in quotes: “1 &”; undefined where a school has no syllable for some of it. */
export function spokenCounts(tokens: readonly CountedToken[]): string | undefined {
  const said = tokens.filter(({ kind }) => kind === 'note').map(({ text }) => aloud(text).split(/[ -]/)[0]!);
  return said.length === 0 || said.some((one) => one === '' || one.includes(NO_SYLLABLE))
    ? undefined
    : `“${said.join(' ')}”`;
}

/** What to do in a rest: "whisper “3”"; where rests are silent, "keep still". */
export function restsKept(token: CountedToken | undefined, counts: CountOptions): string {
  if (!token || token.kind !== 'rest' || restStyleOf(counts) === 'silent' || token.text.includes(NO_SYLLABLE))
    return t`keep still`;
  return t`whisper “${aloud(token.text)}”`;
}

/** The same for rests in a row, a few of them. */
export function allRestsKept(tokens: readonly CountedToken[], counts: CountOptions): string {
  const kept = tokens.map((token) => restsKept(token, counts));
  const words = kept.map((one) => /“(.*)”/.exec(one)?.[1]);
  const said = words.join(' ');
  const few = said.split(' ').length <= FEW_COUNTS;
  return few && !words.includes(undefined) ? t`whisper “${said}”` : (kept[0] ?? t`keep still`);
}

/** The same for rests wherever they stand. */
export function anyRestKept(counts: CountOptions): string {
  const style = restStyleOf(counts);
  if (style === 'silent') return t`keep still`;
  if (style === 'rest') return t`whisper “rest”`;
  return style === 'sh' ? t`whisper the word of the rest` : t`whisper the count`;
}
