import { Pencil, Scale, Speech, Trash2 } from 'lucide-react';
import { type FormEvent, Fragment, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Table from 'react-bootstrap/Table';
import { useNavigate, useParams } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { Child, ClassDetail, ClassSettings, Teacher } from '../../../contract/school.ts';
import type { TakeSummary } from '../../../contract/take.ts';
import { namingOf } from '../../../core/wording/voice.ts';
import { put, remove } from '../../api/client.ts';
import { useClass, useRefresh } from '../../api/hooks.ts';
import type { Waiting } from '../../take/outbox.ts';
import { useWaitingTakes } from '../../take/useOutbox.ts';
import { Notice } from '../../ui/Notice.tsx';
import { ClassForm } from './ClassForm.tsx';
import { JudgingForm } from './JudgingForm.tsx';
import { WordsForm } from './WordsForm.tsx';
import { MasteryTable } from './MasteryTable.tsx';
import { TakeRows } from './TakeRows.tsx';
import './classes.scss';

export default function ClassPage({ teacher }: { teacher: Teacher }) {
  const { classId = '' } = useParams();
  const { data, error, mutate } = useClass(classId);
  const waiting = useWaitingTakes(teacher.id);
  if (!data) return error ? <Notice problem={error} again={() => void mutate()} /> : null;
  return <ClassView room={data} waiting={waiting} />;
}

/** How many takes a row of the list shows. */
const SHOWN = 8;

/** The mark that counts: the teacher's, where she gave one. */
export function markOfTake({ mark, override }: TakeSummary): number {
  return override ?? mark;
}

function ClassView({ room, waiting }: { room: ClassDetail; waiting: readonly Waiting[] }) {
  const [editing, setEditing] = useState<'class' | 'words' | 'judging'>();
  const [open, setOpen] = useState<string>();
  const [problem, setProblem] = useState<Error>();
  const refresh = useRefresh();
  const navigate = useNavigate();
  const changed = () => refresh('/classes', '/takes');
  const attempt = async (action: () => Promise<unknown>) => {
    try {
      setProblem(undefined);
      await action();
      await changed();
    } catch (error) {
      setProblem(error as Error);
    }
  };
  const save = async (settings: ClassSettings) => {
    await put(`/classes/${room.id}`, settings);
    await changed();
    setEditing(undefined);
  };
  const removeClass = () =>
    attempt(async () => {
      if (!confirm(`Remove ${room.name} with all its children and takes?`)) return;
      await remove(`/classes/${room.id}`);
      await navigate('/classes');
    });
  const { name, ages } = room;
  const { id: _id, children: _children, takes: _takes, ...settings } = room;
  return (
    <>
      <div className="page-head">
        <h1>{name}</h1>
        <span>
          {room.children.length} children, {ages === 'musician' ? 'judged as musicians' : `ages ${ages}`}
        </span>
        <span className="flex-grow-1" />
        {room.children.length > 0 && (
          <Button onClick={() => void navigate(`/take?class=${room.id}`)}>Hear the class</Button>
        )}
        <Button variant="outline-dark" onClick={() => setEditing(editing === 'class' ? undefined : 'class')}>
          <Pencil size={16} aria-hidden /> Change
        </Button>
        <Button variant="outline-dark" onClick={() => setEditing(editing === 'words' ? undefined : 'words')}>
          <Speech size={16} aria-hidden /> Words
        </Button>
        <Button variant="outline-dark" onClick={() => setEditing(editing === 'judging' ? undefined : 'judging')}>
          <Scale size={16} aria-hidden /> Marks
        </Button>
        <Button variant="outline-dark" onClick={() => void removeClass()}>
          <Trash2 size={16} aria-hidden /> Remove
        </Button>
      </div>
      {problem && <Notice problem={problem} />}
      {editing === 'class' && (
        <ClassForm settings={settings} action="Save" onSave={save} onCancel={() => setEditing(undefined)} />
      )}
      {editing === 'judging' && (
        <JudgingForm classId={room.id} settings={settings} onSave={save} onCancel={() => setEditing(undefined)} />
      )}
      {editing === 'words' && <WordsForm settings={settings} onSave={save} onCancel={() => setEditing(undefined)} />}
      {room.children.length === 0 && (
        <div className="empty">
          Add the children below, by first name or by a code. Nothing else about them is kept.
        </div>
      )}
      {room.children.length > 0 && (
        <Table className="marks" responsive="sm">
          <thead>
            <tr>
              <th scope="col">Child</th>
              <th scope="col">Last mark</th>
              <th scope="col">Average</th>
              <th scope="col">Latest takes, newest first</th>
              <th scope="col">
                <span className="visually-hidden">Actions</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {room.children.map((child) => (
              <Fragment key={child.id}>
                <ChildRow
                  child={child}
                  takes={room.takes.filter(({ childId }) => childId === child.id)}
                  waiting={waiting.filter(({ upload }) => upload.childId === child.id).length}
                  open={open === child.id}
                  onToggle={() => setOpen(open === child.id ? undefined : child.id)}
                  onRename={(newName) =>
                    attempt(() => put(`/classes/${room.id}/children/${child.id}`, { name: newName }))
                  }
                  onRemove={() =>
                    attempt(
                      async () =>
                        confirm(`Remove ${child.name} and all their takes?`) &&
                        remove(`/classes/${room.id}/children/${child.id}`),
                    )
                  }
                />
                {open === child.id && (
                  <tr>
                    <td colSpan={5} className="takes-cell">
                      <MasteryTable classId={room.id} childId={child.id} naming={namingOf(room)} />
                      <TakeRows
                        classId={room.id}
                        takes={room.takes.filter(({ childId }) => childId === child.id)}
                        onChanged={changed}
                      />
                    </td>
                  </tr>
                )}
              </Fragment>
            ))}
          </tbody>
        </Table>
      )}
      <AddChild onAdd={(newName) => attempt(() => put(`/classes/${room.id}/children/${uuid()}`, { name: newName }))} />
    </>
  );
}

interface RowProps {
  readonly child: Child;
  readonly takes: readonly TakeSummary[];
  readonly waiting: number;
  readonly open: boolean;
  readonly onToggle: () => void;
  readonly onRename: (name: string) => Promise<void>;
  readonly onRemove: () => Promise<void>;
}

function ChildRow({ child, takes, waiting, open, onToggle, onRename, onRemove }: RowProps) {
  const marks = takes.map(markOfTake);
  const average = marks.length > 0 ? (marks.reduce((a, b) => a + b, 0) / marks.length).toFixed(1) : '–';
  const rename = () => {
    const name = prompt('First name or code', child.name)?.trim();
    if (name && name !== child.name) void onRename(name);
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
            <span
              key={take.id}
              className={`mark-chip mark-${markOfTake(take)}`}
              title={`${take.title}, ${new Date(take.takenAt).toLocaleDateString()}`}
            >
              {markOfTake(take)}
              {take.override !== null && <sup aria-label="set by the teacher">*</sup>}
            </span>
          ))}
        </span>
      </td>
      <td className="row-actions">
        <Button variant="link" size="sm" aria-label={`Rename ${child.name}`} onClick={rename}>
          <Pencil size={15} aria-hidden />
        </Button>
        <Button variant="link" size="sm" aria-label={`Remove ${child.name}`} onClick={() => void onRemove()}>
          <Trash2 size={15} aria-hidden />
        </Button>
      </td>
    </tr>
  );
}

function AddChild({ onAdd }: { onAdd: (name: string) => Promise<void> }) {
  const [name, setName] = useState('');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() === '') return;
    await onAdd(name.trim());
    setName('');
  };
  return (
    <Form className="add-child" onSubmit={(event) => void submit(event)}>
      <Form.Control
        value={name}
        placeholder="First name or code"
        aria-label="First name or code"
        maxLength={60}
        onChange={(event) => setName(event.target.value)}
      />
      <Button type="submit" variant="outline-dark">
        Add a child
      </Button>
    </Form>
  );
}
