import type { SavedPattern, ShelfEdit } from '../../../contract/pattern.ts';
import type { Level } from '../../../core/making/level.ts';
import { scoreDifficulty } from '../../../core/making/scoreLevel.ts';
import { type ElementId, elementsOf } from '../../../core/rhythm/elements.ts';
import { meterText } from '../../../core/rhythm/meter.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { soundKey } from '../../../core/rhythm/soundings.ts';
import { type Part, leadingPart } from '../../../core/rhythm/score.ts';
import { parseScore } from '../../../core/rhythm/scoreText.ts';
import { moved } from '../../ui/lists.ts';
import { type Wanted, hasWords } from './wanted.ts';

/** A pattern of the list with what it is looked for by. */
export interface Shelved {
  readonly saved: SavedPattern;
  /** Of several parts the first; undefined where its text cannot be read. */
  readonly pattern: Pattern | undefined;
  /** All parts there are; none where it cannot be read. */
  readonly parts: readonly Part[];
  readonly meter: string;
  readonly elements: ReadonlySet<ElementId>;
  readonly level: Level | undefined;
  /** The title of the first pattern in the list that sounds the same, if it is not this one. */
  readonly soundsLike: string | undefined;
}

/** Folders that are none: in no folder, and put away. No folder of a teacher begins with a blank. */
export const NO_FOLDER = ' none';
export const PUT_AWAY = ' away';

const UNREADABLE = {
  pattern: undefined,
  parts: [],
  meter: '',
  elements: new Set<ElementId>(),
  level: undefined,
  soundsLike: undefined,
} as const;

/** The patterns of the list, each read once. */
export function shelved(patterns: readonly SavedPattern[]): Shelved[] {
  const first = new Map<string, SavedPattern>();
  return patterns.map((saved) => {
    const parsed = parseScore(saved.text);
    if (!parsed.ok) return { ...UNREADABLE, saved };
    const { parts } = parsed.score;
    const { pattern } = leadingPart(parsed.score);
    const { meter } = pattern.measures[0]!;
    // Other meters may sound the same, and are counted otherwise.
    const key = `${meterText(meter)} ${parts.map((part) => soundKey(part.pattern)).join(' + ')}`;
    const like = first.get(key);
    if (!like && !saved.archived) first.set(key, saved);
    return {
      saved,
      pattern,
      parts,
      meter: meterText(meter),
      elements: new Set(parts.flatMap((part) => [...elementsOf(part.pattern).keys()])),
      level: scoreDifficulty(parsed.score).level,
      soundsLike: like?.title,
    };
  });
}

function isIn(folder: string, { folder: own, archived }: SavedPattern): boolean {
  if (folder === PUT_AWAY) return archived === true;
  if (archived) return false;
  return folder === '' || (folder === NO_FOLDER ? own === undefined : own === folder);
}

/** Those that are looked for, in the order of the list. */
export function found(all: readonly Shelved[], { words, meter, element, level, folder, met }: Wanted): Shelved[] {
  return all.filter(
    ({ saved, ...facts }) =>
      isIn(folder, saved) &&
      hasWords(saved, words) &&
      (meter === '' || facts.meter === meter) &&
      (element === '' || facts.elements.has(element)) &&
      (level === '' || String(facts.level) === level) &&
      (met === undefined || (facts.pattern !== undefined && [...facts.elements].every((id) => met.has(id)))),
  );
}

/** The folders there are, in the order in which they first stand in the list. */
export function foldersOf(patterns: readonly SavedPattern[]): string[] {
  return [...new Set(patterns.flatMap(({ folder, archived }) => (folder === undefined || archived ? [] : [folder])))];
}

type Places = ShelfEdit['patterns'];

/** Where a pattern lies. */
export function placeOf({ id, folder, archived }: SavedPattern): Places[number] {
  return { id, ...(folder === undefined ? {} : { folder }), ...(archived ? { archived } : {}) };
}

/** The places of all, with a pattern put where another one stands. */
export function movedTo(patterns: readonly SavedPattern[], id: string, to: string): Places {
  const [from, at] = [id, to].map((one) => patterns.findIndex((pattern) => pattern.id === one)) as [number, number];
  return (from < 0 || at < 0 ? patterns : moved(patterns, from, at)).map(placeOf);
}

/** The places of all, with some of them in another folder; empty: in none. */
export function inFolder(patterns: readonly SavedPattern[], ids: ReadonlySet<string>, folder: string): Places {
  return patterns.map((pattern) => {
    const { folder: _folder, ...bare } = placeOf(pattern);
    if (!ids.has(pattern.id)) return placeOf(pattern);
    return folder.trim() === '' ? bare : { ...bare, folder: folder.trim() };
  });
}

/** The places of all, with some of them put away, or brought back. */
export function putAway(patterns: readonly SavedPattern[], ids: ReadonlySet<string>, away: boolean): Places {
  return patterns.map((pattern) => {
    const { archived: _archived, ...bare } = placeOf(pattern);
    if (!ids.has(pattern.id)) return placeOf(pattern);
    return away ? { ...bare, archived: true } : bare;
  });
}
