import { format } from 'date-fns';
import { COUNTING_SYSTEM_CHOICES } from '../../core/counting/countingSystems.ts';
import { WHO_NAMES } from '../../core/wording/leadWords.ts';
import { counted } from '../../core/wording/plurals.ts';
import { NAMINGS, NAMING_IDS, type NamingId } from '../../core/wording/valueNames.ts';

type Names = Readonly<Record<string, string>>;

/** What the parts of what is kept are called where two versions stand side by side. */
const NAMES: Readonly<Record<string, string>> = {
  // Of several kinds.
  title: 'Title',
  name: 'Name',
  bpm: 'Tempo',
  // Classes and children.
  ages: 'Ages',
  school: 'Counts as',
  rests: 'Rests',
  naming: 'Values are called',
  houseWords: 'Own words',
  wordSet: 'Word set',
  onTimeMs: 'On time within, milliseconds',
  borders: 'What each mark needs',
  scale: 'Marks are',
  reportLine: 'Line in the report',
  mark: 'Mark',
  reason: 'Reason',
  clickCounts: 'Keeping the click counts',
  counts: 'Which take counts',
  recordingDays: 'Recordings are kept for, days',
  adaptations: 'Made easier',
  outOf: 'Out of',
  takenAt: 'When',
  // Patterns.
  text: 'Rhythm',
  brackets: 'Words over it',
  folder: 'Folder',
  // Lessons, terms, practice weeks.
  minutes: 'Minutes',
  day: 'Day',
  starts: 'Begins',
  blocks: 'Blocks',
  held: 'How it went',
  from: 'From',
  until: 'Until',
  slots: 'Weekly lessons',
  holidays: 'Holidays',
  order: 'New elements',
  contents: 'What is done in each lesson',
  left: 'What has no place',
  plan: 'What is practised',
  children: 'Who',
  items: 'Rhythms',
  times: 'times',
  days: 'on days',
  // Plans.
  passes: 'Passes',
  chunks: 'Measures',
  ladder: 'Tempos',
  restBeats: 'Rest between passes, beats',
  countIn: 'Count-in',
  countInWords: 'Words of the count-in',
  countInEach: 'Count in every pass',
  divided: 'Click between the beats too',
  twoLines: 'Two lines: rhythm above, beat below',
  fades: 'The counts fade',
  study: 'Seconds to look first',
  who: 'by',
  factor: 'times',
  by: 'in parts of',
  to: 'to measure',
  // Sheets.
  parts: 'Questions',
  paper: 'Paper',
  large: 'Large print',
  versions: 'Two versions',
  classId: 'Class',
  names: 'Names on it',
  seed: 'Number of the draw',
  count: 'how many',
  level: 'level',
  elements: 'about',
  meter: 'meter',
  beat: 'beat',
  patterns: 'rhythms',
  cards: 'size',
};

/** Of a sheet some parts are called otherwise than of a class. */
export const SHEET_NAMES: Readonly<Record<string, string>> = { counts: 'Counting', bpm: 'Tempo of what is clapped' };

/** What it means where nothing is said. */
const LEFT_OPEN: Names = {
  children: 'the whole class',
  classId: 'no class',
  onTimeMs: 'as usual for the ages',
  borders: 'as usual',
  scale: 'from 0 to 4',
  wordSet: 'the usual one',
  rests: 'as usual',
  recordingDays: 'not kept',
};

/** What sizes of paper are called. */
export const PAPER_NAMES = { a4: 'A4', letter: 'Letter' } as const;

const spaced = (id: string) => id.replaceAll('-', ' ');

/** What is kept as a short word is said as it is where it is chosen. */
const VALUE_WORDS: Readonly<Record<string, (value: string) => string | undefined>> = {
  school: (id) => COUNTING_SYSTEM_CHOICES.find(([one]) => one === id)?.[1],
  naming: (id) => ((NAMING_IDS as readonly string[]).includes(id) ? NAMINGS[id as NamingId].title : undefined),
  paper: (id) => (PAPER_NAMES as Names)[id],
  elements: spaced,
  order: spaced,
  who: (id) => (WHO_NAMES as Names)[id],
};

/** @param own  what is called otherwise there */
export function partName(part: string, own: Names = {}): string {
  return own[part] ?? NAMES[part] ?? part;
}

/** What an entry of a list is, where it says so itself. */
function kindOf(one: unknown): string | undefined {
  if (typeof one === 'string') return one;
  const { kind, activity } = (one ?? {}) as { readonly kind?: unknown; readonly activity?: unknown };
  const word = kind ?? activity;
  return typeof word === 'string' ? spaced(word) : undefined;
}

/** Names that no person reads. */
const SILENT: ReadonlySet<string> = new Set(['key', 'id']);

/** An entry of a list, in all it says. */
function entryWords(one: unknown, own: Names, part = ''): string {
  if (typeof one !== 'object' || one === null) return partWords(part, one, own);
  if (Array.isArray(one)) return one.map((each) => entryWords(each, own, part)).join(', ') || 'nothing';
  const said = Object.entries(one).filter(([key]) => !SILENT.has(key) && key !== 'kind' && key !== 'activity');
  const words = said.map(([key, value]) => `${partName(key)} ${entryWords(value, own, key)}`);
  return [kindOf(one), ...words].filter((word) => word !== undefined).join(', ');
}

/**
 * Two values in words, so far as they differ: of a list what only one has, of a table what stands otherwise in it.
 * @param own  what is called otherwise there, and what things are called by their ids
 * @returns what theirs is, and mine
 */
export function bothWords(part: string, theirs: unknown, mine: unknown, own: Names = {}): readonly [string, string] {
  const text = (value: unknown) => JSON.stringify(value);
  if (Array.isArray(theirs) && Array.isArray(mine)) {
    const only = (a: readonly unknown[], b: readonly unknown[]) => {
      const others = b.map(text);
      return a.filter((one) => !others.includes(text(one)));
    };
    const [there, here] = [only(theirs, mine), only(mine, theirs)];
    const words = (list: readonly unknown[]) => list.map((one) => entryWords(one, own, part)).join('; ');
    if (there.length === 0 && here.length === 0) return [words(theirs), words(mine)];
    return [words(there) || 'without it', words(here) || 'without it'];
  }
  const tables = [theirs, mine].every((one) => typeof one === 'object' && one !== null && !Array.isArray(one));
  if (!tables) return [partWords(part, theirs, own), partWords(part, mine, own)];
  if (kindOf(theirs) !== undefined || kindOf(mine) !== undefined)
    return [entryWords(theirs, own), entryWords(mine, own)];
  const [there, here] = [theirs, mine] as [Record<string, unknown>, Record<string, unknown>];
  const keys = [...new Set([...Object.keys(there), ...Object.keys(here)])].filter(
    (key) => text(there[key]) !== text(here[key]),
  );
  const say = (at: 0 | 1) =>
    keys.map((key) => `${partName(key)}: ${bothWords(key, there[key], here[key], own)[at]}`).join(', ') || 'nothing';
  return [say(0), say(1)];
}

/** A value in a few words; of a list what is in it, or how much. @param own  what things are called by their ids */
export function partWords(part: string, value: unknown, own: Names = {}): string {
  if (value === null || value === undefined || value === '') return LEFT_OPEN[part] ?? 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (part === 'takenAt' && typeof value === 'number') return format(value, 'd MMM yyyy');
  if (Array.isArray(value)) {
    if (value.length === 0) return 'nothing';
    const kinds = value.map((one) => (typeof one === 'string' ? partWords(part, one, own) : kindOf(one)));
    if (kinds.every((kind) => kind !== undefined)) return kinds.join(', ');
    return counted(value.length, 'entry', 'entries');
  }
  if (typeof value === 'object') {
    const entries = Object.entries(value);
    if (entries.length === 0) return 'nothing';
    return entries.map(([key, one]) => `${partName(key)}: ${partWords(key, one, own)}`).join(', ');
  }
  if (typeof value !== 'string') return JSON.stringify(value);
  return VALUE_WORDS[part]?.(value) ?? own[value] ?? value;
}
