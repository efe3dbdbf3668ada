import { barCheck, barsAddUp } from '../rhythm/barCheck.ts';
import { type ParsedScore, parseScore } from '../rhythm/scoreText.ts';
import { errorSentence } from '../rhythm/text.ts';
import { BadFile, Budget, type Piece, type RawPart, type ReadFile, reading } from './piece.ts';
import { rawPattern } from './rawItems.ts';

/** A line that names the pattern after it. */
const TITLE = /^\s*%\s*(.*)$/;

interface Block {
  readonly title: string;
  readonly lines: { readonly number: number; readonly text: string }[];
}

/** Lines up to an empty one or a title. */
function blocksOf(text: string): Block[] {
  const blocks: Block[] = [{ title: '', lines: [] }];
  text.split(/\r\n|\r|\n/).forEach((line, i) => {
    const title = TITLE.exec(line)?.[1];
    if (title !== undefined) blocks.push({ title: title.trim(), lines: [] });
    else if (line.trim() === '') blocks.push({ title: '', lines: [] });
    else blocks.at(-1)!.lines.push({ number: i + 1, text: line });
  });
  // A title may stand over an empty line.
  return blocks.flatMap((block, i) => {
    if (block.lines.length === 0) return [];
    const before = blocks[i - 1];
    const title = block.title || (before?.lines.length === 0 ? before.title : '');
    return [{ ...block, title }];
  });
}

const addsUp = (parsed: ParsedScore) =>
  parsed.ok && parsed.score.parts.every(({ pattern }) => barsAddUp(barCheck(pattern)));

/** A block is one pattern, or one a line where the lines add up and the whole does not. */
function patternsOf({ title, lines }: Block): { title: string; parsed: ParsedScore; line: number }[] {
  const whole = parseScore(lines.map(({ text }) => text).join('\n'));
  const single = { title, parsed: whole, line: lines[0]!.number };
  if (lines.length === 1 || addsUp(whole)) return [single];
  const each = lines.map(({ number, text }) => ({ title, parsed: parseScore(text), line: number }));
  const better = each.every(({ parsed }) => (whole.ok ? addsUp(parsed) : parsed.ok));
  return better ? each : [single];
}

/** Reads rhythm text: one pattern, or several with an empty line between them, or one a line; `% …` names the next. */
export function readText(text: string): ReadFile {
  return reading('text', text.length, () => piecesOf(text));
}

function piecesOf(text: string): Piece[] {
  const read = blocksOf(text.replace(/^\uFEFF/, '')).flatMap(patternsOf);
  if (read.length === 0) throw new BadFile('the file is empty');
  const pieces: Piece[] = [];
  const budget = new Budget();
  for (const { title, parsed, line } of read) {
    budget.use('pieces');
    if (!parsed.ok) throw new BadFile(errorSentence({ ...parsed.at, line: parsed.at.line + line - 1 }));
    const parts = parsed.score.parts.map(({ name, pattern, ostinato }, i): RawPart => {
      const again = ostinato === undefined ? {} : { ostinato };
      const voice = { id: '1', literal: true, leftOut: {}, measures: rawPattern(pattern), ...again };
      return { id: `${i + 1}`, name: name || title || 'Rhythm', voices: [voice] };
    });
    pieces.push({ title, leftOut: {}, parts });
  }
  return pieces;
}
