import { t } from '../core/words/say.ts';
import { readFileSync, statSync, writeFileSync } from 'node:fs';
import { basename, extname } from 'node:path';
import { ConvertRequest } from '../contract/commandLine.ts';
import { validator } from '../contract/validate.ts';
import {
  type FoundPart,
  findPart,
  findVoice,
  partsOf,
  patternOfVoice,
  soundsIn,
  usualPart,
  usualVoice,
} from '../core/formats/choosing.ts';
import { FORMATS, type Format, type NamedPattern } from '../core/formats/formats.ts';
import { BadFile, LARGEST_FILES, type Piece, type RawVoice, megabytes } from '../core/formats/piece.ts';
import { readFile } from '../core/formats/readFile.ts';
import { type BuiltScore, mayBeScore, scoreOfPiece } from '../core/formats/scoreOfPiece.ts';
import { leftOutList } from '../core/wording/leftOutWords.ts';
import { checked } from './checked.ts';
import { DRAWN } from './drawing.ts';
import { UserError } from './readPattern.ts';

const convertRequest = validator(ConvertRequest);

export interface Converted {
  readonly in: string;
  readonly out: string;
  readonly patterns: number;
  /** What was left out, in words, and what is wrong in single measures. */
  readonly leftOut: readonly string[];
  readonly troubles: readonly string[];
}

/** Converts one file by the endings of both names. */
export async function convert(request: unknown): Promise<Converted> {
  const { in: from, out, bpm, school, eachRest, ...choice } = checked(convertRequest(request));
  const all: readonly Format[] = [...Object.values(FORMATS()), ...Object.values(DRAWN)];
  const format = all.find(({ endings }) => endings.includes(extname(out).toLowerCase()));
  if (!format) {
    const endings = all.flatMap((one) => one.endings);
    throw new UserError(t`what should “${basename(out)}” be? Its ending can be ${endings.join(' ')}`);
  }
  const read = await readFile(basename(from), bytesOf(from));
  if (!read.ok) throw new UserError(`${basename(from)}: ${read.trouble}`);
  const taken = takenFrom(read.pieces, choice, format);
  try {
    const options = {
      ...(bpm === undefined ? {} : { bpm }),
      ...(school === undefined ? {} : { counts: { school } }),
      ...(eachRest === undefined ? {} : { eachRest }),
    };
    writeFileSync(out, await format.write(taken.patterns, options));
  } catch (error) {
    if (error instanceof BadFile) throw new UserError(error.message);
    throw error;
  }
  return { in: from, out, patterns: taken.patterns.length, leftOut: taken.leftOut, troubles: taken.troubles };
}

function bytesOf(path: string): Uint8Array {
  const largest = Math.max(...Object.values(LARGEST_FILES));
  const { size } = statSync(path);
  if (size > largest)
    throw new UserError(t`${basename(path)} has ${megabytes(size)}; files of up to ${megabytes(largest)} are read`);
  return readFileSync(path);
}

type Choice = Omit<ConvertRequest, 'id' | 'in' | 'out' | 'bpm' | 'school' | 'eachRest'>;

interface Taken {
  readonly patterns: readonly NamedPattern[];
  readonly leftOut: readonly string[];
  readonly troubles: readonly string[];
}

/** What is asked for to have every part. */
const ALL = 'all';

/**
 * The part that was asked for; else all tunes, and all parts with the same measures, where the format has room for
 * them; else the first that sounds.
 */
function takenFrom(pieces: readonly Piece[], choice: Choice, format: Format): Taken {
  const { many } = format;
  const parts = partsOf(pieces);
  const free = pieces.flatMap(({ played = [] }) => played.filter((one) => one.free));
  if (parts.length === 0)
    throw new UserError(
      free.length > 0
        ? t`“${free[0]!.part}” was played freely, no grid explains it: it is a take to be
          scored, not a pattern`
        : t`there are no notes in it`,
    );
  if (choice.part === undefined && pieces.length > 1) {
    if (!many) throw new UserError(t`it has ${pieces.length} tunes: choose one with --part`);
    const each = pieces.map((piece) => takenFrom([piece], choice, format));
    return {
      patterns: each.flatMap(({ patterns }) => patterns),
      leftOut: each.flatMap(({ patterns, leftOut }) => leftOut.map((what) => t`${what} of “${patterns[0]!.title}”`)),
      troubles: each.flatMap(({ troubles }) => troubles),
    };
  }
  const all = allParts(pieces, choice, format);
  if (all) return all;
  const found = choice.part === undefined ? usualPart(parts)! : findPart(parts, choice.part);
  if (!found) throw new UserError(t`there is no part “${choice.part}”; it has ${parts.map(nameOf).join(', ')}`);
  const others = pieces.length > 1 ? 0 : parts.filter(({ piece }) => piece === found.piece).length - 1;
  return ofVoice(found, choice, others + free.length);
}

/** All parts as one score; undefined where that is neither asked for nor possible. */
function allParts(
  pieces: readonly Piece[],
  { part, voice, measures, letters }: Choice,
  format: Format,
): Taken | undefined {
  const asked = part?.trim().toLowerCase() === ALL;
  if (!asked && (part !== undefined || voice !== undefined)) return undefined;
  const [piece] = pieces;
  if (asked && pieces.length > 1) throw new UserError(t`it has ${pieces.length} tunes: choose one with --part`);
  if (asked && !format.parts) throw new UserError(t`a file “${format.title}” holds one part: choose it with --part`);
  if (!piece || !format.parts || !(asked || mayBeScore(piece))) return undefined;
  const built: BuiltScore = scoreOfPiece(piece, {
    labels: letters ? 'letters' : 'own',
    ...(measures === undefined ? {} : rangeOf(measures)),
  });
  if (!built.ok) {
    if (asked) throw new UserError(t`not all parts together: ${built.trouble}`);
    return undefined;
  }
  const { score, leftOut, troubles } = built;
  return {
    patterns: [{ title: piece.title || t`Rhythm`, pattern: score.parts[0]!.pattern, score }],
    leftOut: leftOutList(leftOut, { parts: 0, voices: 0 }),
    troubles: troubles.map((one) => t`measure ${one.number} of [${one.part}]: ${one.trouble}`),
  };
}

const nameOf = ({ part }: FoundPart, i: number) => `${i + 1} (${part.name})`;

function ofVoice({ piece, part }: FoundPart, choice: Choice, otherParts: number): Taken {
  const voice = choice.voice === undefined ? usualVoice(part)! : findVoice(part, choice.voice);
  if (!voice)
    throw new UserError(
      t`there is no voice “${choice.voice}”; the part has
        ${part.voices.map(({ id }) => id).join(', ')}`,
    );
  const built = patternOfVoice(piece, voice, {
    labels: choice.letters ? 'letters' : 'own',
    ...(choice.measures === undefined ? {} : rangeOf(choice.measures)),
  });
  if (!built.ok) throw new UserError(built.trouble);
  const title = piece.title || part.name;
  return {
    patterns: [{ title, pattern: built.pattern }],
    leftOut: leftOutList(built.leftOut, { parts: otherParts, voices: otherVoices(part.voices, voice) }),
    troubles: built.troubles.map(({ number, trouble }) => t`measure ${number}: ${trouble}`),
  };
}

function otherVoices(voices: readonly RawVoice[], chosen: RawVoice): number {
  return voices.filter((voice) => voice !== chosen && soundsIn(voice) > 0).length;
}

function rangeOf(measures: string): { from: number; to: number } {
  const [from, to] = measures.split('-').map(Number) as [number, number?];
  return { from, to: to ?? from };
}

/** One line for what a file had that its rhythm does not; undefined where that is nothing. */
export function leavingsLine({ leftOut, troubles }: Converted): string | undefined {
  const parts = [...(leftOut.length > 0 ? [t`left out: ${leftOut.join(', ')}`] : []), ...troubles];
  return parts.length === 0 ? undefined : parts.join('; ');
}
