import Papa from 'papaparse';

/** A class of a roster, with the first names of its children. */
export interface RosterClass {
  readonly id: string;
  /** As the roster calls it; its id where nothing says that. */
  readonly title: string;
  readonly names: readonly string[];
}

type Row = Readonly<Record<string, string>>;
type Kind = 'users' | 'enrollments' | 'classes';

/** Columns by which a file of OneRoster (1.1 and 1.2, CSV) is known, whatever it is called. */
const COLUMNS: Readonly<Record<Kind, readonly string[]>> = {
  users: ['sourcedId', 'givenName', 'familyName'],
  enrollments: ['classSourcedId', 'userSourcedId', 'role'],
  classes: ['sourcedId', 'title', 'courseSourcedId'],
};

interface Table {
  readonly kind: Kind;
  readonly rows: readonly Row[];
}

/** One file; undefined where it is none of a roster. */
function tableIn(text: string): Table | undefined {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (heading) => heading.trim(),
    transform: (cell) => cell.trim(),
  });
  const has = (columns: readonly string[]) => columns.every((one) => meta.fields?.includes(one));
  const kind = (Object.keys(COLUMNS) as Kind[]).find((one) => has(COLUMNS[one]));
  // What is to be deleted is still in the file for a while.
  return kind && { kind, rows: data.filter(({ status = '' }) => status.toLowerCase() !== 'tobedeleted') };
}

/** Whether a text is a file of a roster. */
export const isRoster = (text: string): boolean => tableIn(text) !== undefined;

/** In 1.2 roles stand in a file of their own: who has none in the list of users may be a child. */
const mayBeChild = ({ role = '' }: Row) => /^(student)?$/i.test(role);

/** The name a child goes by, where the roster has it; a surname is never taken. */
const nameOf = ({ preferredGivenName = '', preferredFirstName = '', givenName = '' }: Row) =>
  preferredGivenName || preferredFirstName || givenName;

/**
 * The classes of a roster from the texts of its files, in whatever order: users and enrollments, and classes for their
 * titles. Without enrollments all children are one class.
 */
export function readRoster(texts: readonly string[]): RosterClass[] {
  const tables = texts.flatMap((text) => tableIn(text) ?? []);
  const rows = (kind: Kind) => tables.filter((table) => table.kind === kind).flatMap((table) => table.rows);
  const users = new Map(rows('users').map((row) => [row['sourcedId']!, row]));
  const children = [...users.values()].filter((row) => mayBeChild(row) && nameOf(row) !== '');
  const enrolled = rows('enrollments').filter(({ role = '' }) => /^student$/i.test(role));
  if (!tables.some(({ kind }) => kind === 'enrollments'))
    return children.length === 0 ? [] : [{ id: '', title: '', names: children.map(nameOf) }];
  const titles = new Map(rows('classes').map(({ sourcedId = '', title = '' }) => [sourcedId, title]));
  const ids = [...new Set(enrolled.map(({ classSourcedId = '' }) => classSourcedId))];
  const all = ids.map((id) => {
    const members = new Set(enrolled.filter((row) => row['classSourcedId'] === id).map((row) => row['userSourcedId']!));
    const names = children.filter((row) => members.has(row['sourcedId']!)).map(nameOf);
    return { id, title: titles.get(id) || id, names };
  });
  return all.filter(({ names }) => names.length > 0).sort((a, b) => a.title.localeCompare(b.title));
}
