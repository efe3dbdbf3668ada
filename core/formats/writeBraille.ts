import { type CountOptions, countPattern } from '../counting/count.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { BadFile } from './piece.ts';

/** Cells of a line and lines of a page of paper as embossers are set to. */
const CELLS = 40;
const LINES = 25;
/** A line that goes on begins so far in. */
const GOES_ON = '  ';

/** Signs in Unified English Braille, as the keys of braille ASCII: letters and figures stand beside. */
const SIGNS: Readonly<Record<string, string>> = {
  '(': '"<',
  ')': '">',
  '-': '-',
  '&': '@&',
  '.': '4',
  ',': '1',
  ':': '3',
  ';': '2',
  '!': '6',
  '?': '8',
  "'": "'",
  '’': "'",
  '/': '_/',
  '+': '"6',
  // The mark of a note without a syllable.
  '·': '_4',
  '↓': '\\%',
  '↑': '\\+',
};
const FIGURES = '1234567890';
const SUBSCRIPTS = '₁₂₃₄₅₆₇₈₉₀';
const ACCENTS = /\p{M}/gu;

/**
 * A line of text in uncontracted Unified English Braille, as a file for embossers has it (one character a cell).
 * A sign that braille has no cell for is left out.
 * @example brailleOf('1 & 2') → "#A @& #B"; brailleOf('Ta') → ",TA"
 */
export function brailleOf(text: string): string {
  let cells = '';
  let inNumber = false;
  for (const sign of text.normalize('NFD').replace(ACCENTS, '')) {
    const low = SUBSCRIPTS.indexOf(sign);
    const figure = low >= 0 ? low : FIGURES.indexOf(sign);
    if (figure >= 0) {
      // A number sign holds to the end of the number; one that stands low has its own.
      cells += `${low >= 0 ? '5' : ''}${inNumber && low < 0 ? '' : '#'}${'ABCDEFGHIJ'[figure]}`;
      inNumber = true;
      continue;
    }
    const letter = /[a-z]/i.test(sign);
    // After figures the letters a to j would be read as more of them.
    if (letter && inNumber && /[a-j]/.test(sign)) cells += ';';
    if (letter) cells += `${/[A-Z]/.test(sign) ? ',' : ''}${sign.toUpperCase()}`;
    else cells += sign === ' ' ? ' ' : (SIGNS[sign] ?? '');
    inNumber = false;
  }
  return cells;
}

/** Breaks between words where a line is full; a word that is longer than a line is broken anywhere. */
function lines(text: string): string[] {
  const all: string[] = [];
  let line = '';
  for (const word of text.split(' ').flatMap(pieces)) {
    const longer = line === '' ? word : `${line} ${word}`;
    if (longer.length <= CELLS) line = longer;
    else {
      all.push(line);
      line = GOES_ON + word;
    }
  }
  return [...all, line];
}

function pieces(word: string): string[] {
  const most = CELLS - GOES_ON.length;
  return Array.from({ length: Math.max(1, Math.ceil(word.length / most)) }, (_, i) =>
    word.slice(i * most, (i + 1) * most),
  );
}

/**
 * Counts of patterns for an embosser: the title, then one line a measure with its number. Lines of 40 cells, pages of
 * 25 lines. Throws a BadFile where the school has no counts for a pattern.
 */
export function writeBraille(
  patterns: readonly { readonly title: string; readonly pattern: Pattern }[],
  counts: CountOptions,
): string {
  const all = patterns.flatMap(({ title, pattern }, i) => {
    const counted = countPattern(pattern, counts);
    if (!counted.ok) throw new BadFile(`${title ? `“${title}”: ` : ''}${counted.reason}`);
    const measures = counted.measures.flatMap(({ number, tokens }) =>
      lines(`${brailleOf(String(number))}  ${tokens.map(({ text }) => brailleOf(text)).join(' ')}`),
    );
    return [...(i > 0 ? [''] : []), ...(title ? [...lines(brailleOf(title)), ''] : []), ...measures];
  });
  const pages = Array.from({ length: Math.ceil(all.length / LINES) }, (_, i) =>
    all.slice(i * LINES, (i + 1) * LINES).join('\r\n'),
  );
  return `${pages.join('\r\n\f')}\r\n`;
}
