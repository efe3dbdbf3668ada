import { Pencil, Trash2 } from 'lucide-react';
import { Fragment, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Table from 'react-bootstrap/Table';
import type { Child } from '../../../contract/child.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import type { TakeSummary } from '../../../contract/take.ts';
import { namingOf } from '../../../core/wording/voice.ts';
import { put, remove } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';
import { markOfTake } from '../../ui/markOfTake.ts';
import { useSave } from '../../ui/useSave.ts';
import { MasteryTable } from './MasteryTable.tsx';
import { TakeRows } from './TakeRows.tsx';

/** How many takes a row of the list shows. */
const SHOWN = 8;
const COLUMNS = ['Child', 'Last mark', 'Average', 'Latest takes, newest first'] as const;

interface TableProps {
  readonly schoolClass: ClassDetail;
  /** For each take on its way whose it is. */
  readonly waiting: readonly string[];
}

/** The children with their marks; one opened shows what it knows and all its takes. */
export function ChildrenTable({ schoolClass, waiting }: TableProps) {
  const [open, setOpen] = useState<string>();
  const { id, children, takes } = schoolClass;
  const path = (childId: string) => `/classes/${id}/children/${childId}`;
  const rename = useSave((child: Child) => put(path(child.id), { name: child.name }), '/classes', '/takes');
  const removal = useSave((childId: string) => remove(path(childId)), '/classes', '/takes');
  const problem = rename.problem ?? removal.problem;
  const askRemoval = (child: Child) => {
    if (confirm(`Remove ${child.name} and all their takes?`)) void removal.save(child.id);
  };
  return (
    <>
      {problem && <Notice problem={problem} />}
      <Table className="marks" responsive="sm">
        <thead>
          <tr>
            {COLUMNS.map((name) => (
              <th key={name} scope="col">
                {name}
              </th>
            ))}
            <th scope="col">
              <span className="visually-hidden">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {children.map((child) => {
            const own = takes.filter(({ childId }) => childId === child.id);
            return (
              <Fragment key={child.id}>
                <ChildRow
                  child={child}
                  takes={own}
                  waiting={waiting.filter((childId) => childId === child.id).length}
                  open={open === child.id}
                  onToggle={() => setOpen(open === child.id ? undefined : child.id)}
                  onRename={(name) => void rename.save({ id: child.id, name })}
                  onRemove={() => askRemoval(child)}
                />
                {open === child.id && <OpenedChild schoolClass={schoolClass} childId={child.id} takes={own} />}
              </Fragment>
            );
          })}
        </tbody>
      </Table>
    </>
  );
}

interface OpenedProps {
  readonly schoolClass: ClassDetail;
  readonly childId: string;
  readonly takes: readonly TakeSummary[];
}

function OpenedChild({ schoolClass, childId, takes }: OpenedProps) {
  return (
    <tr>
      <td colSpan={COLUMNS.length + 1} className="takes-cell">
        <MasteryTable classId={schoolClass.id} childId={childId} naming={namingOf(schoolClass)} />
        <TakeRows classId={schoolClass.id} takes={takes} />
      </td>
    </tr>
  );
}

interface RowProps {
  readonly child: Child;
  readonly takes: readonly TakeSummary[];
  readonly waiting: number;
  readonly open: boolean;
  readonly onToggle: () => void;
  readonly onRename: (name: string) => void;
  readonly onRemove: () => void;
}

function ChildRow({ child, takes, waiting, open, onToggle, onRename, onRemove }: RowProps) {
  const marks = takes.map(markOfTake);
  const average = marks.length > 0 ? (marks.reduce((a, b) => a + b, 0) / marks.length).toFixed(1) : '–';
  const rename = () => {
    const name = prompt('First name or code', child.name)?.trim();
    if (name && name !== child.name) onRename(name);
  };
  return (
    <tr className={open ? 'open' : ''}>
      <th scope="row">
        <button type="button" className="child-name" aria-expanded={open} onClick={onToggle}>
          {child.name}
        </button>
        {waiting > 0 && <span className="waiting">{waiting} on the way</span>}
      </th>
      <td className="last-mark">{marks[0] ?? '–'}</td>
      <td>{average}</td>
      <td>
        <span className="mark-chips">
          {takes.slice(0, SHOWN).map((take) => (
            <MarkChip key={take.id} take={take} />
          ))}
        </span>
      </td>
      <td className="row-actions">
        <Button variant="link" size="sm" aria-label={`Rename ${child.name}`} onClick={rename}>
          <Pencil size={15} aria-hidden />
        </Button>
        <Button variant="link" size="sm" aria-label={`Remove ${child.name}`} onClick={onRemove}>
          <Trash2 size={15} aria-hidden />
        </Button>
      </td>
    </tr>
  );
}

function MarkChip({ take }: { take: TakeSummary }) {
  const mark = markOfTake(take);
  return (
    <span className={`mark-chip mark-${mark}`} title={`${take.title}, ${new Date(take.takenAt).toLocaleDateString()}`}>
      {mark}
      {take.override !== null && <sup aria-label="set by the teacher">*</sup>}
    </span>
  );
}
