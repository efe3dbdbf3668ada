import type { Speech } from './say.ts';

const ACCENTED: Readonly<Record<string, string>> = {
  a: 'á',
  c: 'ç',
  e: 'ë',
  i: 'í',
  n: 'ñ',
  o: 'ö',
  s: 'š',
  u: 'ü',
  y: 'ý',
  z: 'ž',
  A: 'Å',
  E: 'É',
  O: 'Ø',
  U: 'Ú',
};

/** Sentences that become words of counts: longer ones would be other rhythms. */
const COUNTED = /^(e|&|a|rest|[a-z]+(-[a-z]+)+)$/;

/**
 * A language nobody speaks, for looking at the pages: every sentence in brackets, with other letters and longer by a
 * third. What stands outside of brackets is said by no catalogue.
 */
export const PSEUDO: Speech = {
  language: 'en',
  say: (key, values) => {
    if (COUNTED.test(key)) return undefined;
    const [one, many] = key.startsWith('# ') ? key.split('|') : [key, key];
    const english = (values[0] === 1 ? one : many)!.replace(/^#/, '{0}');
    const letters = english.replace(/\{[^}]*\}|[a-zA-Z]/g, (found) => ACCENTED[found] ?? found);
    const longer = '·'.repeat(Math.ceil(english.length / 3));
    return `⟦${letters.replace(/\{(\d+)\}/g, (_all, place: string) => String(values[Number(place)] ?? ''))}${longer}⟧`;
  },
};
