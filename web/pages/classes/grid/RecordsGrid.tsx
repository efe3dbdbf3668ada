import { t } from '../../../../core/words/say.ts';
import {
  type ColumnDef,
  createSortedRowModel,
  rowSortingFeature,
  sortFn_basic,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { ArrowDownWideNarrow, ArrowUpNarrowWide } from 'lucide-react';
import { useMemo } from 'react';
import { Link, useNavigate } from 'react-router';
import type { ClassRecords } from '../../../../contract/records.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { type Scale, meanLabel, scaleOf, shortLabel } from '../../../../core/judging/scale.ts';
import { namingOf } from '../../../../core/wording/voice.ts';
import { newestTake } from '../../../api/takes.ts';
import { CellSign } from './CellSign.tsx';
import {
  type Cell,
  type Column,
  type GridRow,
  type GridView,
  cellText,
  columnsOf,
  meanMark,
  plainMark,
  rowsOf,
} from './gridCells.ts';
import { useCellWalk } from './useCellWalk.ts';

const features = tableFeatures({ rowSortingFeature, sortedRowModel: createSortedRowModel() });

/** A child's name, and the mean of its marks. */
const FIXED = 2;

function definitions(columns: readonly Column[]): ColumnDef<typeof features, GridRow>[] {
  return [
    { id: 'name', accessorFn: ({ name }) => name.toLowerCase(), sortFn: sortFn_basic },
    { id: 'mean', accessorFn: meanMark, sortUndefined: 'last', sortFn: sortFn_basic },
    ...columns.map(({ id }): ColumnDef<typeof features, GridRow> => ({
      id,
      accessorFn: ({ cells }) => cells[id]?.value,
      sortUndefined: 'last',
      sortFn: sortFn_basic,
    })),
  ];
}

interface GridProps {
  readonly schoolClass: ClassDetail;
  readonly records: ClassRecords;
  readonly view: GridView;
  /** Only children with this in their name. */
  readonly wanted: string;
  /** For each take on its way whose it is. */
  readonly waiting: readonly string[];
  readonly onPaper: (columnId: string) => void;
}

/** Children by patterns or by elements: sorted by a click on a heading, walked through by the arrow keys. */
export function RecordsGrid({ schoolClass, records, view, wanted, waiting, onPaper }: GridProps) {
  const naming = namingOf(schoolClass);
  const columns = useMemo(() => columnsOf(records, view, naming), [records, view, naming]);
  const data = useMemo(() => {
    const word = wanted.trim().toLowerCase();
    return rowsOf(schoolClass, records, view).filter(({ name }) => name.toLowerCase().includes(word));
  }, [schoolClass, records, view, wanted]);
  const defs = useMemo(() => definitions(columns), [columns]);
  const table = useTable({ features, columns: defs, data });
  const rows = table.getRowModel().rows;
  const walk = useCellWalk(rows.length, columns.length + 1);
  const fixed = view === 'patterns' ? FIXED : 1;
  const heads = table.getHeaderGroups()[0]!.headers.filter(({ id }) => id !== 'mean' || fixed === FIXED);
  return (
    <div className="grid-scroll">
      {fixed === FIXED && <ScaleWords scale={scaleOf(schoolClass)} />}
      <table className="records-grid" role="grid" aria-label={view === 'patterns' ? t`Marks` : t`Elements`}>
        <thead>
          <tr>
            {heads.map(({ id, column }) => (
              <Heading
                key={id}
                column={columns.find((one) => one.id === id)}
                classId={schoolClass.id}
                name={id === 'name' ? t`Child` : t`Mean`}
                sorted={column.getIsSorted()}
                onSort={() => column.toggleSorting()}
                onPaper={onPaper}
              />
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ original }, row) => (
            <GridLine
              key={original.childId}
              classId={schoolClass.id}
              line={original}
              scale={scaleOf(schoolClass)}
              columns={columns}
              mean={fixed === FIXED}
              waiting={waiting.filter((childId) => childId === original.childId).length}
              walk={(column) => walk(row, column)}
              onPaper={onPaper}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** What the short words in the grid stand for. */
function ScaleWords({ scale }: { scale: Scale }) {
  if (typeof scale === 'string') return null;
  return (
    <p className="scale-words-line">
      {scale.map((word, mark) => (
        <span key={word}>
          <b>{shortLabel(mark, scale)}</b> {word}
        </span>
      ))}
    </p>
  );
}

interface HeadingProps {
  readonly column: Column | undefined;
  readonly classId: string;
  readonly name: string;
  readonly sorted: false | 'asc' | 'desc';
  readonly onSort: () => void;
  readonly onPaper: (columnId: string) => void;
}

const SORTED = { asc: 'ascending', desc: 'descending' } as const;

function Heading({ column, classId, name, sorted, onSort, onPaper }: HeadingProps) {
  const title = column?.title ?? name;
  return (
    <th scope="col" className={column ? 'turned' : ''} aria-sort={sorted ? SORTED[sorted] : 'none'}>
      <span className="heading">
        <button type="button" onClick={onSort} title={t`Sort by ${title}`}>
          {title}
          {sorted === 'asc' && <ArrowUpNarrowWide size={15} aria-hidden />}
          {sorted === 'desc' && <ArrowDownWideNarrow size={15} aria-hidden />}
        </button>
        {column?.kind === 'element' && (
          <Link to={`/classes/${classId}/elements/${column.id}`} aria-label={t`Who has ${title}`}>{t`who?`}</Link>
        )}
        {column?.kind === 'paper' && (
          <button type="button" className="on-paper" onClick={() => onPaper(column.id)} aria-label={t`Change ${title}`}>
            {t`by hand`}
          </button>
        )}
      </span>
    </th>
  );
}

interface LineProps {
  readonly classId: string;
  readonly line: GridRow;
  readonly scale: Scale;
  readonly columns: readonly Column[];
  readonly mean: boolean;
  readonly waiting: number;
  readonly walk: (column: number) => object;
  readonly onPaper: (columnId: string) => void;
}

function GridLine({ classId, line, scale, columns, mean, waiting, walk, onPaper }: LineProps) {
  const navigate = useNavigate();
  const child = `/classes/${classId}/children/${line.childId}`;
  const average = meanMark(line);
  const open = async ({ kind, id }: Column) => {
    if (kind === 'paper') return onPaper(id);
    const take = kind === 'pattern' ? await newestTake(classId, line.childId, id).catch(() => undefined) : undefined;
    await navigate(take ? `/classes/${classId}/takes/${take}` : child);
  };
  return (
    <tr>
      <th scope="row">
        <Link className="child-name" to={child} {...walk(0)}>
          {line.name}
        </Link>
        {waiting > 0 && <span className="waiting">{t`${waiting} on the way`}</span>}
      </th>
      {mean && <td className="mean">{average === undefined ? '–' : meanLabel(average, scale, 1)}</td>}
      {columns.map((column, i) => {
        const cell = line.cells[column.id];
        return (
          <td key={column.id}>
            <button
              type="button"
              className="grid-cell"
              {...walk(i + 1)}
              aria-label={`${line.name}, ${column.title}: ${cellWords(cell)}`}
              onClick={() => void open(column)}
            >
              <CellSign cell={cell} />
            </button>
          </td>
        );
      })}
    </tr>
  );
}

function cellWords(cell: Cell | undefined): string {
  switch (cell?.kind) {
    case undefined:
      return t`not heard`;
    case 'mark':
      return t`mark ${plainMark(cell.value, cell.scale)},
        ${cell.takes === 1 ? t`one take` : t`${cell.takes} takes`}`;
    case 'paper':
      return cell.scale ? t`mark ${plainMark(cell.value, cell.scale)}` : t`${cell.value} of ${cell.outOf}`;
    case 'state':
      return t`${cellText(cell)}, ${cell.heard === 1 ? t`one measure` : t`${cell.heard} measures`} heard`;
  }
}
