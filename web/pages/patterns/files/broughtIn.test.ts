import { strToU8 } from 'fflate';
import { describe, expect, it } from 'vitest';
import { readFile } from '../../../../core/formats/readFile.ts';
import type { Piece } from '../../../../core/formats/piece.ts';
import { ALL_LINES, EACH_PART, firstChoice, hasParts, leftOutWords, linesOf, offersOf, voiceOf } from './broughtIn.ts';

const abc = (...voices: string[]) =>
  ['X:1', 'T:Two boats', 'M:4/4', 'L:1/4', 'K:C', ...voices.map((notes, i) => `V:${i + 1} name="${'AB'[i]}"\n${notes}`)]
    .map((line) => `${line}\n`)
    .join('');

async function pieceOf(text: string): Promise<Piece> {
  const read = await readFile('boats.abc', strToU8(text));
  if (!read.ok) throw new Error(read.trouble);
  return read.pieces[0]!;
}

const texts = (piece: Piece, line: string, more: object = {}) => {
  const choice = { ...firstChoice(piece, 'boats.abc'), line, ...more };
  return offersOf(piece, voiceOf(linesOf(piece), line)!, choice, 'quarters').map(
    ({ text, trouble }) => trouble ?? text,
  );
};

describe('what a file of several parts becomes', () => {
  it('is one pattern in parts, unless a line of it is chosen', async () => {
    const piece = await pieceOf(abc('C C C2 | C4 |]', 'C2 C2 | C C C2 |]'));
    expect(hasParts(piece)).toBe(true);
    const choice = firstChoice(piece, 'boats.abc');
    expect(choice.line).toBe(EACH_PART);
    expect(texts(piece, EACH_PART)).toEqual(['4/4 [A] q q h | w [B] h h | q q h']);
    expect(texts(piece, EACH_PART, { extent: 'measures', from: 2, to: 2 })).toEqual(['4/4 [A] #2 w [B] q q h']);
    expect(texts(piece, linesOf(piece)[1]!.key)).toEqual(['4/4 h h | q q h']);
    expect(texts(piece, ALL_LINES)).toEqual(['4/4 q q h | q q h']);
    const lines = linesOf(piece);
    const left = (line: string) => leftOutWords(piece, lines, voiceOf(lines, line)!, { labels: 'own', line });
    expect(left(EACH_PART).join()).not.toContain('part');
    expect(left(lines[0]!.key).join()).toContain('one other part');
  });

  it('of parts that do not go together the fullest is chosen', async () => {
    const piece = await pieceOf(abc('C C C2 | C4 |]', 'C2 C2 |]'));
    expect(hasParts(piece)).toBe(false);
    expect(firstChoice(piece, 'boats.abc').line).toBe(linesOf(piece)[0]!.key);
  });
});
