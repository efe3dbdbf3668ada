import { LANGUAGES, type Language, counted, perLanguage, t } from '../../core/words/say.ts';
import { format } from '../words/dates.ts';
import { COUNTING_SYSTEM_CHOICES } from '../../core/counting/countingSystems.ts';
import { WHO_NAMES } from '../../core/wording/leadWords.ts';
import { NAMINGS, NAMING_IDS, type NamingId } from '../../core/wording/valueNames.ts';

type Names = Readonly<Record<string, string>>;

/** What the parts of what is kept are called where two versions stand side by side. */
const NAMES = perLanguage((): Readonly<Record<string, string>> => ({
  // Of several kinds.
  title: t`Title`,
  name: t`Name`,
  bpm: t`Tempo`,
  // Classes and children.
  ages: t`Ages`,
  school: t`Counts as`,
  rests: t`Rests`,
  naming: t`Values are called`,
  language: t`What children see and hear`,
  houseWords: t`Own words`,
  wordSet: t`Word set`,
  onTimeMs: t`On time within, milliseconds`,
  borders: t`What each mark needs`,
  scale: t`Marks are`,
  reportLine: t`Line in the report`,
  mark: t`Mark`,
  reason: t`Reason`,
  clickCounts: t`Keeping the click counts`,
  counts: t`Which take counts`,
  recordingDays: t`Recordings are kept for, days`,
  adaptations: t`Made easier`,
  outOf: t`Out of`,
  takenAt: t`When`,
  // Patterns.
  text: t`Rhythm`,
  brackets: t`Words over it`,
  folder: t`Folder`,
  // Lessons, terms, practice weeks.
  minutes: t`Minutes`,
  day: t`Day`,
  starts: t`Begins`,
  blocks: t`Blocks`,
  held: t`How it went`,
  from: t`From`,
  until: t`Until`,
  slots: t`Weekly lessons`,
  holidays: t`Holidays`,
  order: t`New elements`,
  contents: t`What is done in each lesson`,
  left: t`What has no place`,
  plan: t`What is practised`,
  children: t`Who`,
  items: t`Rhythms`,
  times: t`times`,
  days: t`on days`,
  // Plans.
  passes: t`Passes`,
  chunks: t`Measures`,
  ladder: t`Tempos`,
  restBeats: t`Rest between passes, beats`,
  countIn: t`Count-in`,
  countInWords: t`Words of the count-in`,
  countInEach: t`Count in every pass`,
  divided: t`Click between the beats too`,
  twoLines: t`Two lines: rhythm above, beat below`,
  fades: t`The counts fade`,
  study: t`Seconds to look first`,
  who: t`by`,
  factor: t`times`,
  by: t`in parts of`,
  to: t`to measure`,
  // Sheets.
  parts: t`Questions`,
  paper: t`Paper`,
  large: t`Large print`,
  versions: t`Two versions`,
  classId: t`Class`,
  names: t`Names on it`,
  seed: t`Number of the draw`,
  count: t`how many`,
  level: t`level`,
  elements: t`about`,
  meter: t`meter`,
  beat: t`beat`,
  patterns: t`rhythms`,
  cards: t`size`,
}));

/** Of a sheet some parts are called otherwise than of a class. */
export const SHEET_NAMES = perLanguage((): Readonly<Record<string, string>> => ({
  counts: t`Counting`,
  bpm: t`Tempo of what is clapped`,
}));

/** What it means where nothing is said. */
const LEFT_OPEN = perLanguage((): Names => ({
  children: t`the whole class`,
  classId: t`no class`,
  onTimeMs: t`as usual for the ages`,
  borders: t`as usual`,
  scale: t`from 0 to 4`,
  wordSet: t`the usual one`,
  rests: t`as usual`,
  recordingDays: t`not kept`,
}));

/** What sizes of paper are called. */
export const PAPER_NAMES = perLanguage(() => ({ a4: 'A4', letter: t`Letter` }) as const);

const spaced = (id: string) => id.replaceAll('-', ' ');

/** What is kept as a short word is said as it is where it is chosen. */
const VALUE_WORDS: Readonly<Record<string, (value: string) => string | undefined>> = {
  school: (id) => COUNTING_SYSTEM_CHOICES().find(([one]) => one === id)?.[1],
  language: (id) => (Object.hasOwn(LANGUAGES, id) ? LANGUAGES[id as Language].own : undefined),
  naming: (id) => ((NAMING_IDS as readonly string[]).includes(id) ? NAMINGS()[id as NamingId].title : undefined),
  paper: (id) => (PAPER_NAMES() as Names)[id],
  elements: spaced,
  order: spaced,
  who: (id) => (WHO_NAMES() as Names)[id],
};

/** @param own  what is called otherwise there */
export function partName(part: string, own: Names = {}): string {
  return own[part] ?? NAMES()[part] ?? part;
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
  if (Array.isArray(one)) return one.map((each) => entryWords(each, own, part)).join(', ') || t`nothing`;
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
    return [words(there) || t`without it`, words(here) || t`without it`];
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
    keys.map((key) => `${partName(key)}: ${bothWords(key, there[key], here[key], own)[at]}`).join(', ') || t`nothing`;
  return [say(0), say(1)];
}

/** A value in a few words; of a list what is in it, or how much. @param own  what things are called by their ids */
export function partWords(part: string, value: unknown, own: Names = {}): string {
  if (value === null || value === undefined || value === '') return LEFT_OPEN()[part] ?? t`nothing`;
  if (typeof value === 'boolean') return value ? t`yes` : t`no`;
  if (part === 'takenAt' && typeof value === 'number') return format(value, 'd MMM yyyy');
  if (Array.isArray(value)) {
    if (value.length === 0) return t`nothing`;
    const kinds = value.map((one) => (typeof one === 'string' ? partWords(part, one, own) : kindOf(one)));
    if (kinds.every((kind) => kind !== undefined)) return kinds.join(', ');
    return counted(value.length, 'entry', 'entries');
  }
  if (typeof value === 'object') {
    const entries = Object.entries(value);
    if (entries.length === 0) return t`nothing`;
    return entries.map(([key, one]) => `${partName(key)}: ${partWords(key, one, own)}`).join(', ');
  }
  if (typeof value !== 'string') return JSON.stringify(value);
  return VALUE_WORDS[part]?.(value) ?? own[value] ?? value;
}
