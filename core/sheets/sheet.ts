import type { CountOptions } from '../counting/count.ts';
import type { Level } from '../making/level.ts';
import { elementsAt, withMeter } from '../making/makePattern.ts';
import type { ElementId } from '../rhythm/elements.ts';
import { type Meter, COMMON_TIME } from '../rhythm/meter.ts';
import { parseMeter, parseRhythm } from '../rhythm/text.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import type { ValueLetter } from '../rhythm/value.ts';
import { type Version, hasVersions, pointsOf, sheetQuestions } from './sheetKinds.ts';
import type { SheetKind, SheetQuestion, SheetSettings } from './sheetQuestion.ts';

export const PAPERS = ['a4', 'letter'] as const;
export type PaperId = (typeof PAPERS)[number];

export const CARD_SIZES = ['measures', 'cells'] as const;
export const USUAL_BPM = 72;
/** Of one sheet. */
export const MOST_PARTS = 12;
/** The teacher’s own, of one part. */
export const MOST_PATTERNS = 60;
/** Of one part. */
export const MOST_QUESTIONS = 60;
/** Letters of a title. */
export const LONGEST_TITLE = 60;
/** Seeds that are made up: short enough to be typed again from paper. */
export const SEEDS = 10_000;

/** One kind of question on a sheet. */
export interface SheetPart {
  /** Its own number on the sheet: moved to another place it keeps its questions. */
  readonly key: number;
  readonly kind: SheetKind;
  readonly count: number;
  readonly level: Level;
  /** Left out: what has usually been met at the level. */
  readonly elements?: readonly ElementId[] | undefined;
  /** Rhythm text of a meter; 4/4 when left out, 6/8 where only compound meter is asked for. */
  readonly meter?: string | undefined;
  readonly beat?: ValueLetter | undefined;
  readonly cards?: 'cells' | 'measures' | undefined;
  /** Texts of patterns that are used instead of made ones. */
  readonly patterns?: readonly string[] | undefined;
}

/** A sheet as it is kept: with its seed it can be printed again. */
export interface Sheet {
  readonly title: string;
  readonly seed: number;
  readonly paper: PaperId;
  /** Large print. */
  readonly large: boolean;
  /** Two versions for neighbours. */
  readonly versions: boolean;
  /** Two copies beside each other on a page, smaller. */
  readonly twoToAPage?: boolean | undefined;
  /** Counted beats a minute of what the teacher claps. */
  readonly bpm: number;
  readonly parts: readonly SheetPart[];
}

/** A part with its questions, numbered through the sheet. */
export interface MadePart {
  readonly part: SheetPart;
  readonly settings: SheetSettings;
  readonly questions: readonly SheetQuestion[];
  /** Number of the first question. */
  readonly from: number;
}

export interface MadeSheet {
  readonly version: Version | undefined;
  readonly parts: readonly MadePart[];
  /** Of the whole sheet; 0 where nothing is marked. */
  readonly points: number;
}

/** Part 0 has the seed itself; the others are far from it. */
function seedOf(seed: number, key: number): number {
  return (seed + Math.imul(key, 0x9e3779b1)) >>> 0;
}

function meterOf({ meter, elements }: SheetPart): Meter {
  const only = elements?.includes('compound') === true;
  const read = parseMeter(meter ?? (only ? '6/8' : '4/4'));
  return read.ok ? read.meter : COMMON_TIME;
}

function patternsOf({ patterns = [] }: SheetPart): Pattern[] {
  return patterns.flatMap((text) => {
    const parsed = parseRhythm(text);
    return parsed.ok ? [parsed.pattern] : [];
  });
}

/** What the questions of a part are made of. */
export function settingsOf(part: SheetPart, counts: CountOptions): SheetSettings {
  const meter = meterOf(part);
  const { level, beat, cards = 'measures' } = part;
  const elements = part.elements && part.elements.length > 0 ? part.elements : elementsAt(level);
  return { elements: withMeter(elements, meter), level, meter, counts, beat, cards, patterns: patternsOf(part) };
}

/** All questions of a sheet; without versions there is only one. */
export function makeSheet(sheet: Sheet, counts: CountOptions, version?: Version): MadeSheet {
  let from = 1;
  const parts = sheet.parts.map((part): MadePart => {
    const settings = settingsOf(part, counts);
    const questions = sheetQuestions(part.kind, settings, seedOf(sheet.seed, part.key), part.count, version);
    const made = { part, settings, questions, from };
    from += questions.length;
    return made;
  });
  const points = parts.flatMap(({ questions }) => questions).reduce((all, question) => all + pointsOf(question), 0);
  return { version, parts, points };
}

/** The versions to print: one without a letter, or A and B where any part has two. */
export function versionsOf({ versions, parts }: Sheet): readonly (Version | undefined)[] {
  return versions && parts.some(({ kind }) => hasVersions(kind)) ? ['A', 'B'] : [undefined];
}
