import { t } from '../../../../core/words/say.ts';
import type { ClassRecords } from '../../../../contract/records.ts';
import type { ClassDetail, CountedTake } from '../../../../contract/schoolClass.ts';
import { type Scale, USUAL_SCALE, markLabel, numberOf } from '../../../../core/judging/scale.ts';
import type { MasteryState } from '../../../../core/records/mastery.ts';
import { ELEMENT_IDS, ELEMENTS, type ElementId, elementsOf } from '../../../../core/rhythm/elements.ts';
import { parseScore } from '../../../../core/rhythm/scoreText.ts';
import { type NamingId, inNaming } from '../../../../core/wording/valueNames.ts';

/** What the grid shows beside the children. */
export type GridView = 'patterns' | 'elements';

export type Cell =
  | { readonly kind: 'mark'; readonly value: number; readonly scale: Scale; readonly takes: number }
  /** Points, or where there is a scale a mark by hand. */
  | { readonly kind: 'paper'; readonly value: number; readonly outOf: number; readonly scale: Scale | null }
  | { readonly kind: 'state'; readonly value: number; readonly state: MasteryState; readonly heard: number };

export interface Column {
  readonly id: string;
  readonly title: string;
  /** What the column is about: a pattern's key, a paper column's id, an element. */
  readonly kind: 'pattern' | 'paper' | 'element';
}

export interface GridRow {
  readonly childId: string;
  readonly name: string;
  /** By column id. */
  readonly cells: Readonly<Record<string, Cell>>;
}

/** For sorting: what needs the teacher first comes first. */
const STATE_ORDER: readonly MasteryState[] = ['shaky', 'due', 'new', 'growing', 'firm'];

const countedMark = (mark: ClassRecords['marks'][number], counts: CountedTake): number => mark[counts];

export function columnsOf(records: ClassRecords, view: GridView, naming: NamingId): Column[] {
  if (view === 'elements') {
    const heard = new Set(records.elements.map(({ element }) => element));
    return ELEMENT_IDS.filter((id) => heard.has(id)).map((id) => ({
      id,
      title: inNaming(ELEMENTS()[id].title, naming),
      kind: 'element',
    }));
  }
  // The newest first: it is what the lesson was about.
  const patterns = records.patterns.map(({ key, title, lastAt }) => ({
    id: key,
    title,
    kind: 'pattern' as const,
    lastAt,
  }));
  const paper = records.paper.map(({ id, title, takenAt }) => ({ id, title, kind: 'paper' as const, lastAt: takenAt }));
  return [...patterns, ...paper].sort((a, b) => b.lastAt - a.lastAt);
}

export function rowsOf(
  { children, counts = 'best', scale }: Pick<ClassDetail, 'children' | 'counts' | 'scale'>,
  records: ClassRecords,
  view: GridView,
): GridRow[] {
  const cells = new Map<string, Record<string, Cell>>();
  const at = (child: number) => {
    const id = records.children[child]!;
    const own = cells.get(id) ?? {};
    cells.set(id, own);
    return own;
  };
  if (view === 'elements')
    for (const { child, element, state, heard } of records.elements)
      at(child)[element] = { kind: 'state', value: STATE_ORDER.indexOf(state), state, heard };
  else {
    for (const mark of records.marks)
      at(mark.child)[records.patterns[mark.pattern]!.key] = {
        kind: 'mark',
        value: countedMark(mark, counts),
        scale: scale ?? USUAL_SCALE,
        takes: mark.takes,
      };
    for (const { id, outOf, scale: own = null, points } of records.paper)
      for (const one of points) at(one.child)[id] = { kind: 'paper', value: one.points, outOf, scale: own };
  }
  return children.map(({ id, name }) => ({ childId: id, name, cells: cells.get(id) ?? {} }));
}

/** What a cell says, in words: for a file, and for who cannot see the shapes. */
export function cellText(cell: Cell | undefined): string {
  if (!cell) return '';
  if (cell.kind === 'state') return cell.state === 'new' ? t`hardly heard` : cell.state;
  return cell.scale ? plainMark(cell.value, cell.scale) : String(cell.value);
}

/** A mark as a spreadsheet has it: a number where the scale has numbers. */
export function plainMark(mark: number, scale: Scale): string {
  const number = numberOf(mark, scale);
  return number === undefined ? markLabel(Math.round(mark), scale) : String(Number(number.toFixed(2)));
}

/** The mean of a child's marks in patterns; undefined where there are none. */
export function meanMark(row: GridRow): number | undefined {
  const marks = Object.values(row.cells).flatMap((cell) => (cell.kind === 'mark' ? [cell.value] : []));
  return marks.length > 0 ? marks.reduce((a, b) => a + b) / marks.length : undefined;
}

export const isElement = (word: string | undefined): word is ElementId => ELEMENT_IDS.some((id) => id === word);

/** Does an element stand in the pattern of this text? */
export function practises(text: string, element: ElementId): boolean {
  const read = parseScore(text);
  return read.ok && read.score.parts.some(({ pattern }) => elementsOf(pattern).has(element));
}
