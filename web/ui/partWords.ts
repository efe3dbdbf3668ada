import { format } from 'date-fns';
import { counted } from '../../core/wording/plurals.ts';

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
  // Plans and sheets.
  passes: 'Passes',
  chunks: 'Measures',
  ladder: 'Tempos',
  restBeats: 'Rest between passes, beats',
  countIn: 'Count-in',
  parts: 'Questions',
  paper: 'Paper',
  large: 'Large print',
  versions: 'Two versions',
  names: 'Names on it',
  seed: 'Number of the draw',
};

/** @param own  what is called otherwise there */
export function partName(part: string, own: Readonly<Record<string, string>> = {}): string {
  return own[part] ?? NAMES[part] ?? part;
}

/** What an entry of a list is, where it says so itself. */
function kindOf(one: unknown): string | undefined {
  if (typeof one === 'string') return one;
  const { kind, activity } = (one ?? {}) as { readonly kind?: unknown; readonly activity?: unknown };
  const word = kind ?? activity;
  return typeof word === 'string' ? word.replaceAll('-', ' ') : undefined;
}

/** Names that no person reads. */
const SILENT: ReadonlySet<string> = new Set(['key', 'id']);

/** An entry of a list, in all it says. */
function entryWords(one: unknown): string {
  if (typeof one !== 'object' || one === null) return partWords('', one);
  if (Array.isArray(one)) return one.map(entryWords).join(', ') || 'nothing';
  const said = Object.entries(one).filter(([key]) => !SILENT.has(key) && key !== 'kind' && key !== 'activity');
  const words = said.map(([key, value]) => `${partName(key)} ${entryWords(value)}`);
  return [kindOf(one), ...words].filter((word) => word !== undefined).join(', ');
}

/**
 * Two values in words, so far as they differ: of a list what only one has, of a table what stands otherwise in it.
 * @returns what theirs is, and mine
 */
export function bothWords(part: string, theirs: unknown, mine: unknown): readonly [string, string] {
  const text = (value: unknown) => JSON.stringify(value);
  if (Array.isArray(theirs) && Array.isArray(mine)) {
    const only = (a: readonly unknown[], b: readonly unknown[]) => {
      const others = b.map(text);
      return a.filter((one) => !others.includes(text(one)));
    };
    const [there, here] = [only(theirs, mine), only(mine, theirs)];
    if (there.length === 0 && here.length === 0)
      return [theirs, mine].map((list) => list.map(entryWords).join('; ')) as unknown as [string, string];
    const say = (list: readonly unknown[]) => list.map(entryWords).join('; ') || 'without it';
    return [say(there), say(here)];
  }
  const tables = [theirs, mine].every((one) => typeof one === 'object' && one !== null && !Array.isArray(one));
  if (!tables) return [partWords(part, theirs), partWords(part, mine)];
  const [there, here] = [theirs, mine] as [Record<string, unknown>, Record<string, unknown>];
  const keys = [...new Set([...Object.keys(there), ...Object.keys(here)])].filter(
    (key) => text(there[key]) !== text(here[key]),
  );
  const say = (at: 0 | 1) =>
    keys.map((key) => `${partName(key)}: ${bothWords(key, there[key], here[key])[at]}`).join(', ') || 'nothing';
  return [say(0), say(1)];
}

/** A value in a few words; of a list what is in it, or how much. */
export function partWords(part: string, value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (part === 'takenAt' && typeof value === 'number') return format(value, 'd MMM yyyy');
  if (Array.isArray(value)) {
    if (value.length === 0) return 'nothing';
    const kinds = value.map(kindOf);
    if (kinds.every((kind) => kind !== undefined)) return kinds.join(', ');
    return counted(value.length, 'entry', 'entries');
  }
  if (typeof value === 'object') {
    const entries = Object.entries(value);
    if (entries.length === 0) return 'nothing';
    return entries.map(([key, one]) => `${partName(key)}: ${partWords(key, one)}`).join(', ');
  }
  return typeof value === 'string' ? value : JSON.stringify(value);
}
