import { t } from '../../../core/words/say.ts';
import type { SavedSheet, SheetEdit, SheetPartEdit } from '../../../contract/sheet.ts';
import { LEVELS } from '../../../core/making/level.ts';
import type { ElementId } from '../../../core/rhythm/elements.ts';
import { MOST_PARTS, SEEDS, type Sheet, USUAL_BPM } from '../../../core/sheets/sheet.ts';
import { usualCount } from '../../../core/sheets/sheetKinds.ts';
import type { SheetKind } from '../../../core/sheets/sheetQuestion.ts';
import { sheetTitle } from '../../../core/wording/sheetWords.ts';
import type { Voice } from '../../../core/wording/voice.ts';
import { moved } from '../../ui/lists.ts';

export function anySeed(): number {
  return Math.floor(Math.random() * SEEDS);
}

/** What is kept of a way of speaking; what is not set is left out. */
export function spoken({ counts, naming }: Voice): Pick<SheetEdit, 'counts' | 'naming'> {
  const { school, rests, houseWords, wordSet } = counts;
  return {
    counts: {
      school,
      ...(rests ? { rests } : {}),
      ...(houseWords ? { houseWords: { ...houseWords } } : {}),
      ...(wordSet ? { wordSet: { title: wordSet.title, cells: { ...wordSet.cells } } } : {}),
    },
    naming,
  };
}

/** A sheet to begin with. */
export function newSheet(voice: Voice, classId: string | null, kinds: readonly SheetKind[] = ['counts']): SheetEdit {
  return {
    title: sheetTitle(kinds),
    seed: anySeed(),
    paper: 'a4',
    large: false,
    versions: false,
    bpm: USUAL_BPM,
    parts: kinds.map((kind, key) => partOf(kind, key)),
    classId,
    names: false,
    ...spoken(voice),
  };
}

function partOf(kind: SheetKind, key: number): SheetPartEdit {
  return { key, kind, count: usualCount(kind), level: 2 };
}

/** Keeps a title that the teacher gave; one that only names the kinds goes with them. */
function withParts(sheet: SheetEdit, parts: readonly SheetPartEdit[]): SheetEdit {
  const kinds = (list: readonly SheetPartEdit[]) => list.map(({ kind }) => kind);
  const own = sheet.title !== sheetTitle(kinds(sheet.parts));
  return { ...sheet, title: own ? sheet.title : sheetTitle(kinds(parts)), parts: [...parts] };
}

/** One more part at the end, with the level, elements and meter of the one before it. */
export function addPart(sheet: SheetEdit, kind: SheetKind): SheetEdit {
  if (sheet.parts.length >= MOST_PARTS) return sheet;
  const key = 1 + Math.max(-1, ...sheet.parts.map((part) => part.key));
  const { level = 2, elements, meter, patterns } = sheet.parts.at(-1) ?? {};
  const like = {
    level,
    ...(elements ? { elements } : {}),
    ...(meter ? { meter } : {}),
    ...(patterns ? { patterns } : {}),
  };
  return withParts(sheet, [...sheet.parts, { ...partOf(kind, key), ...like }]);
}

/** Fields of a part that are another now; undefined: left out. */
export type PartChange = { readonly [Field in keyof SheetPartEdit]?: SheetPartEdit[Field] | undefined };

export function changePart(sheet: SheetEdit, key: number, change: PartChange): SheetEdit {
  const parts = sheet.parts.map((part) => (part.key === key ? without({ ...part, ...change }) : part));
  return { ...sheet, parts };
}

/** A field that is undefined is not sent. */
function without(part: object): SheetPartEdit {
  return Object.fromEntries(Object.entries(part).filter(([, value]) => value !== undefined)) as SheetPartEdit;
}

/** A sheet has one part at least. */
export function removePart(sheet: SheetEdit, key: number): SheetEdit {
  if (sheet.parts.length === 1) return sheet;
  return withParts(
    sheet,
    sheet.parts.filter((part) => part.key !== key),
  );
}

/** Puts a part where another stands. */
export function movePart(sheet: SheetEdit, key: number, to: number): SheetEdit {
  const from = sheet.parts.findIndex((part) => part.key === key);
  if (from < 0 || to < 0 || to >= sheet.parts.length) return sheet;
  return withParts(sheet, moved(sheet.parts, from, to));
}

/** All parts are about what is hard, with quarters between: nothing else would make a rhythm. */
export function aboutHard(sheet: SheetEdit, hard: readonly ElementId[]): SheetEdit {
  const elements = [...new Set<ElementId>(['quarter', ...hard])];
  return { ...sheet, parts: sheet.parts.map((part) => ({ ...part, elements })) };
}

/** So many rhythms of each level are in a test. */
const IN_TEST = 2;

/** A test for four levels: the same kind of question, a level harder from part to part. */
export function levelTest(sheet: SheetEdit, elements: readonly ElementId[], meter: string): SheetEdit {
  const own = elements.length > 0 ? { elements: [...new Set<ElementId>(['quarter', ...elements])] } : {};
  const parts = LEVELS.slice(0, 4).map((level, key) => ({
    ...partOf('counts', key),
    count: IN_TEST,
    level,
    meter,
    ...own,
  }));
  return { ...sheet, title: t`Test`, versions: true, parts };
}

/** What is drawn and made of it. */
export function drawnSheet({ title, seed, paper, large, versions, twoToAPage, bpm, parts }: SheetEdit): Sheet {
  return { title: title.trim() || t`Sheet`, seed, paper, large, versions, twoToAPage, bpm, parts };
}

export function editOf({ id: _id, ...edit }: SavedSheet): SheetEdit {
  return edit;
}
