import Papa from 'papaparse';

/** What was found in a list: the names, and what was left out and why. */
export interface ReadNames {
  readonly names: readonly string[];
  /** In the list twice, or in the class already. */
  readonly twice: readonly string[];
  /** Longer than a name can be. */
  readonly tooLong: readonly string[];
  /** The heading of the column that was taken, where the list has headings. */
  readonly heading: string | undefined;
}

const LONGEST = 60;

/** Headings by which a column of first names is known, the surer first; lower case. */
const FIRST_NAME = [
  'first name',
  'firstname',
  'given name',
  'forename',
  'vorname',
  'prénom',
  'nombre',
  'nome',
  'voornaam',
];
const ANY_NAME = ['name', 'child', 'pupil', 'student', 'code', 'kind', 'schüler', 'élève', 'alumno'];
const HEADINGS = [
  ...FIRST_NAME,
  ...ANY_NAME,
  'last name',
  'surname',
  'nachname',
  'class',
  'klasse',
  'number',
  'no',
  'id',
];

/**
 * Text of a file as spreadsheets write it: UTF-8 with or without its mark, UTF-16 either way round, or else the usual
 * one of old Windows.
 */
export function textOf(bytes: Uint8Array): string {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (a === 0xfe && b === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/**
 * Names of children from what was pasted, typed or read from a file: a line each, or a table with any separator; of a
 * table the column of first names is taken.
 * @param known  names that are in the class already
 */
export function readClassList(text: string, known: readonly string[]): ReadNames {
  // Some spreadsheets say first which separator they use.
  const said = /^\uFEFF?sep=(.)\r?\n/i.exec(text);
  const body = text.slice(said?.[0].length ?? 0);
  const { data } = Papa.parse<string[]>(body.trim(), {
    skipEmptyLines: 'greedy',
    ...(said ? { delimiter: said[1] } : {}),
  });
  const rows = data.map((row) => row.map((cell) => cell.replace(/^\uFEFF/, '').trim()));
  const inOneLine = rows.length === 1 && rows[0]!.length > 1 ? rows[0]!.map((name) => [name]) : rows;
  const headed = inOneLine[0]?.some((cell) => HEADINGS.includes(cell.toLowerCase())) ?? false;
  const column = headed ? nameColumn(inOneLine[0]!) : fullestColumn(inOneLine);
  const found = inOneLine.slice(headed ? 1 : 0).map((row) => row[column] ?? '');
  const seen = new Set(known.map((name) => name.toLowerCase()));
  const [names, twice, tooLong]: [string[], string[], string[]] = [[], [], []];
  for (const name of found) {
    if (name === '') continue;
    if (name.length > LONGEST) tooLong.push(name);
    else if (seen.has(name.toLowerCase())) twice.push(name);
    else names.push(name);
    seen.add(name.toLowerCase());
  }
  return { names, twice, tooLong, heading: headed ? inOneLine[0]![column] : undefined };
}

function nameColumn(head: readonly string[]): number {
  const at = (words: readonly string[]) => head.findIndex((cell) => words.includes(cell.toLowerCase()));
  const first = at(FIRST_NAME);
  return first >= 0 ? first : Math.max(0, at(ANY_NAME));
}

/** Without headings: the first column with letters in most of its cells. */
function fullestColumn(rows: readonly (readonly string[])[]): number {
  const width = Math.max(1, ...rows.map((row) => row.length));
  const letters = (column: number) => rows.filter((row) => /\p{L}/u.test(row[column] ?? '')).length;
  const most = Array.from({ length: width }, (_, column) => column).find((column) => letters(column) > rows.length / 2);
  return most ?? 0;
}
