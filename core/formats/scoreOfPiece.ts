import { t } from '../words/say.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { MOST_PARTS, type Part, type Score } from '../rhythm/score.ts';
import { fillingsOf, frameDifference, framesOf, inFrame } from '../rhythm/scoreParts.ts';
import { LONGEST_LABEL } from '../rhythm/text.ts';
import type { MeasureTrouble, PatternChoice } from './buildPattern.ts';
import { patternOfVoice, soundsIn, usualVoice } from './choosing.ts';
import { Leavings, type LeftOut, type LeftOutKind, type Piece, type RawVoice } from './piece.ts';

export type BuiltScore =
  | {
      readonly ok: true;
      readonly score: Score;
      readonly leftOut: LeftOut;
      readonly troubles: readonly (MeasureTrouble & { readonly part: string })[];
    }
  | { readonly ok: false; readonly trouble: string };

/** A voice that becomes a part, and what it is called. */
interface Row {
  readonly name: string;
  readonly voice: RawVoice;
}

/** What sounds in a piece: of each part its first voice, or each voice where those are the parts. */
function rowsOf({ parts, voicesAreParts }: Piece): Row[] {
  const rows = voicesAreParts
    ? parts.flatMap(({ voices }) => voices.map((voice) => ({ name: voice.name ?? '', voice })))
    : parts.flatMap((part) => {
        const voice = usualVoice(part);
        return voice ? [{ name: part.name, voice }] : [];
      });
  return rows.filter(({ voice }) => voice.literal === true || soundsIn(voice) > 0);
}

/** Names that rhythm text can have, each once. */
function names(rows: readonly Row[]): string[] {
  const taken = new Set<string>();
  return rows.map(({ name }, i) => {
    const plain = name
      .replaceAll(/[[\]'"\p{Cc}\p{Cs}]+/gu, ' ')
      .replaceAll(/\s+/g, ' ')
      .trim();
    const wanted = plain.slice(0, LONGEST_LABEL - 3).trim() || t`part ${i + 1}`;
    let [free, k] = [wanted, 2];
    while (taken.has(free.toLowerCase())) free = `${wanted} ${k++}`;
    taken.add(free.toLowerCase());
    return free;
  });
}

/** Why two patterns are no parts of one score, in words; undefined where they are. */
function apart(lead: Pattern, other: Pattern): string | undefined {
  const difference = frameDifference(lead, other);
  switch (difference?.code) {
    case 'measures':
      return t`${difference.of[0]} measures, and the first has ${difference.of[1]}`;
    case 'pickup':
      return t`another pickup`;
    case 'frame':
      return t`another meter or repeat in measure ${difference.measure}`;
    case undefined:
      return undefined;
  }
}

/** So many parts can be one score. */
export function mayBeScore(piece: Piece): boolean {
  const { length } = rowsOf(piece);
  return length >= 2 && length <= MOST_PARTS;
}

/** All parts of a piece as one score, where it has two to four that have the same measures. */
export function scoreOfPiece(piece: Piece, choice: PatternChoice = {}): BuiltScore {
  const rows = rowsOf(piece);
  if (!mayBeScore(piece))
    return { ok: false, trouble: t`it has ${rows.length} parts that sound; two to ${MOST_PARTS} make a score` };
  const called = names(rows);
  const leavings = new Leavings();
  const troubles: (MeasureTrouble & { part: string })[] = [];
  const patterns: Pattern[] = [];
  for (const [i, { voice }] of rows.entries()) {
    const built = patternOfVoice({ ...piece, leftOut: i === 0 ? piece.leftOut : {} }, voice, choice);
    if (!built.ok) return { ok: false, trouble: t`part “${called[i]}”: ${built.trouble}` };
    for (const [kind, count] of Object.entries(built.leftOut)) leavings.add(kind as LeftOutKind, count);
    troubles.push(...built.troubles.map((one) => ({ ...one, part: called[i]! })));
    const trouble = patterns[0] && apart(patterns[0], built.pattern);
    if (trouble !== undefined) return { ok: false, trouble: t`part “${called[i]}” has ${trouble}` };
    patterns.push(built.pattern);
  }
  const frames = framesOf(patterns[0]!);
  const parts = rows.map(({ voice }, i): Part => {
    const [name, { ostinato }] = [called[i]!, voice];
    const pattern = i === 0 ? patterns[0]! : inFrame(patterns[0]!.pickup, frames, fillingsOf(patterns[i]!));
    return { name, pattern, ...(ostinato === undefined || choice.from !== undefined ? {} : { ostinato }) };
  });
  return { ok: true, score: { parts }, leftOut: leavings.counts, troubles };
}
