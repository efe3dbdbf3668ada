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
