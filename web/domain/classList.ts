import Papa from 'papaparse';

/** What was found in a list: the names, and what was left out and why. */
export interface ReadNames {
  readonly names: readonly string[];
  /** In the list more than once: all of them are among the names. */
  readonly alike: readonly string[];
  /** In the class already: left out. */
  readonly twice: readonly string[];
  /** Longer than a name can be. */
  readonly tooLong: readonly string[];
  /** Lines that are no names: headings, numbers, sums. */
  readonly dropped: readonly string[];
  /** The heading of the column that was taken, where the list has headings. */
  readonly heading: string | undefined;
}

const LONGEST = 60;

/** Headings by which a column of first names is known, the surer first; lower case. */
const FIRST_NAME = [
  'first name',
  'first names',
  'first',
  'given names',
  'firstname',
  'given name',
  'forename',
  'vorname',
  'prénom',
  'nombre',
  'nome',
  'voornaam',
];
const ANY_NAME = [
  'name',
  'names',
  'full name',
  'student name',
  'pupil name',
  'children',
  'pupils',
  'students',
  'child',
  'pupil',
  'student',
  'code',
  'kind',
  'schüler',
  'élève',
  'alumno',
];
const HEADINGS = [
  ...FIRST_NAME,
  ...ANY_NAME,
  'last name',
  'last',
  'family name',
  'surname',
  'nachname',
  'class',
  'klasse',
  'number',
  'no',
  'nr',
  '#',
  'id',
  'email',
  'form',
  'group',
];
/** What stands above or below a list. */
const TITLE = /^(class|klasse|clase|grade|year|form|group|room|class list|register|total|sum|teacher)\b.*[\d:]/i;
/** Bullets, boxes and numbers before a name. */
const BEFORE = /^(?:[-*•–—·◦▪‣►✓✔☐☑□]+\s*|\(?\d{1,3}(?:[.):]|\s*[-–])\s*|\d{1,3}\s+(?=\p{L}))+/u;
/** Marks behind one; the point of an initial stays. */
const BEHIND = /(?:[\s,;:*†✓✔☑•–—-]+|(?<=\p{L}{2})\.)+$/u;
/** “Quay, Robin”: a comma and a blank, once. */
const SURNAME_FIRST = /^([^,;\t"]+),\s+([^,;\t"]+)$/;

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

/** A name without what stands around it on paper. */
const bare = (cell: string) =>
  cell
    .replace(/^\uFEFF/, '')
    .trim()
    .replace(BEFORE, '')
    .replace(BEHIND, '')
    .trim();
const isHeading = (cell: string) => HEADINGS.includes(bare(cell).toLowerCase());
const most = (count: number, all: number) => count > all / 2;

/** Lines as people write them: who is written surname first is turned round. */
function turned(lines: readonly string[]): readonly string[] {
  const names = lines.filter((line) => bare(line) !== '' && !isHeading(line) && !TITLE.test(bare(line)));
  const behind = names.filter((line) => SURNAME_FIRST.test(bare(line)));
  if (names.length < 2 || !most(behind.length, names.length)) return lines;
  return lines.map((line) => SURNAME_FIRST.exec(bare(line))?.[2] ?? line);
}

/** Rows of cells, and whether the first says what is in them. */
function rowsOf(text: string): readonly (readonly string[])[] {
  // Some spreadsheets say first which separator they use.
  const said = /^\uFEFF?sep=(.)\r?\n/i.exec(text);
  const body = turned(text.slice(said?.[0].length ?? 0).split(/\r\n|\n|\r/)).join('\n');
  const { data } = Papa.parse<string[]>(body.trim(), {
    skipEmptyLines: 'greedy',
    ...(said ? { delimiter: said[1] } : {}),
  });
  return data.length === 1 && data[0]!.length > 1 ? data[0]!.map((name) => [name]) : data;
}

/**
 * Names of children from what was pasted, typed or read from a file: a line each, with numbers or bullets or without,
 * or a table with any separator; of a table the column of first names is taken, and of “surname, first name” the first
 * name. Two children of one name are two.
 * @param known  names that are in the class already
 */
export function readClassList(text: string, known: readonly string[]): ReadNames {
  const rows = rowsOf(text);
  const titles = rows.filter((row) => row.filter((cell) => cell.trim() !== '').every((cell) => TITLE.test(bare(cell))));
  const table = rows.filter((row) => !titles.includes(row));
  const headed = table[0]?.some(isHeading) ?? false;
  const column = headed ? nameColumn(table[0]!.map(bare)) : fullestColumn(table);
  const cells = table.slice(headed ? 1 : 0).map((row) => bare(row[column] ?? ''));
  const behind = cells.filter((cell) => SURNAME_FIRST.test(cell));
  const found = most(behind.length, cells.length) ? cells.map((cell) => SURNAME_FIRST.exec(cell)?.[2] ?? cell) : cells;
  const left = known.map((name) => name.toLowerCase());
  const [names, twice, tooLong, dropped]: [string[], string[], string[], string[]] = [[], [], [], []];
  for (const [i, name] of found.entries()) {
    const there = left.indexOf(name.toLowerCase());
    if (!/\p{L}/u.test(name)) dropped.push(table[i + (headed ? 1 : 0)]!.join(' ').trim());
    else if (name.length > LONGEST) tooLong.push(name);
    else if (there >= 0) twice.push(...left.splice(there, 1).map(() => name));
    else names.push(name);
  }
  const lower = names.map((name) => name.toLowerCase());
  return {
    names,
    alike: names.filter((name, i) => lower.indexOf(name.toLowerCase()) < i),
    twice,
    tooLong,
    dropped: [...titles.map((row) => row.join(' ').trim()), ...dropped.filter((line) => line !== '')],
    heading: headed ? bare(table[0]![column]!) : undefined,
  };
}

/** What tells the children of a list apart: two of one name are two. */
export function keysOf(names: readonly string[]): string[] {
  return names.map((name, i) => `${names.slice(0, i).filter((one) => one === name).length} ${name}`);
}

function nameColumn(head: readonly string[]): number {
  const at = (words: readonly string[]) => head.findIndex((cell) => words.includes(cell.toLowerCase()));
  const first = at(FIRST_NAME);
  return first >= 0 ? first : Math.max(0, at(ANY_NAME));
}

/** Without headings: the first column with letters in most of its cells, and no addresses. */
function fullestColumn(rows: readonly (readonly string[])[]): number {
  const width = Math.max(1, ...rows.map((row) => row.length));
  const letters = (column: number) =>
    rows.filter((row) => /\p{L}/u.test(row[column] ?? '') && !row[column]!.includes('@')).length;
  return Array.from({ length: width }, (_, column) => column).find((column) => most(letters(column), rows.length)) ?? 0;
}
