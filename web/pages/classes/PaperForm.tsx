import { type FormEvent, type KeyboardEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v4 as uuid } from 'uuid';
import type { Child } from '../../../contract/child.ts';
import type { ClassRecords, PaperColumnEdit } from '../../../contract/records.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { remove } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';
import { BothVersions, plainWords } from '../../ui/BothVersions.tsx';
import { useEditing } from '../../ui/useEditing.ts';
import { useSave } from '../../ui/useSave.ts';

const USUAL_OUT_OF = 10;

interface PaperFormProps {
  readonly schoolClass: ClassDetail;
  readonly column: ClassRecords['paper'][number] | undefined;
  readonly records: ClassRecords;
  readonly onClose: () => void;
}

/** Marks made on paper, entered down the list: Enter goes to the next child. */
export function PaperForm({ schoolClass, column, records, onClose }: PaperFormProps) {
  const [id] = useState(() => column?.id ?? uuid());
  const [title, setTitle] = useState(column?.title ?? '');
  const [outOf, setOutOf] = useState(column?.outOf ?? USUAL_OUT_OF);
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>(() =>
    Object.fromEntries((column?.points ?? []).map((one) => [records.children[one.child]!, String(one.points)])),
  );
  const path = `/classes/${schoolClass.id}/paper/${id}`;
  const [was] = useState(() => asEdit({ title, outOf, takenAt: column?.takenAt ?? Date.now() }, schoolClass, typed));
  const saving = useEditing<PaperColumnEdit>(path, column && was, ['/classes'], unflattened);
  const removal = useSave(() => remove(path), '/classes');
  const closeWhen = async (done: Promise<boolean>) => {
    if (await done) onClose();
  };
  const wrong = schoolClass.children.filter((child) => pointsOf(typed[child.id], outOf) === undefined);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (wrong.length > 0) return;
    const head = { title: title.trim(), outOf, takenAt: was.takenAt };
    await closeWhen(saving.save(asEdit(head, schoolClass, typed)));
  };
  const dropColumn = async () => {
    if (confirm(`Delete the column ${title} with its marks?`) && (await removal.save())) onClose();
  };
  const problem = saving.problem ?? removal.problem;
  return (
    <Form className="card-paper paper-form" onSubmit={(event) => void submit(event)}>
      {saving.clash && (
        <BothVersions
          clash={{ ...saving.clash, mine: { ...saving.clash.mine, ...saving.clash.mine.points } }}
          nameOf={(part) => schoolClass.children.find((child) => child.id === part)?.name ?? HEADS[part] ?? part}
          wordsOf={(_part, value) => plainWords(value)}
          onMine={() => void closeWhen(saving.keepMine())}
          onTheirs={onClose}
        />
      )}
      <PaperHead title={title} outOf={outOf} onTitle={setTitle} onOutOf={setOutOf} />
      <PointFields schoolClass={schoolClass} typed={typed} wrong={wrong} onTyped={setTyped} />
      {wrong.length > 0 && (
        <Notice problem={{ message: `${wrong[0]!.name}: a number from 0 to ${outOf}, or nothing.` }} />
      )}
      {problem && <Notice problem={problem} />}
      <div className="class-form-actions">
        <Button type="submit" disabled={wrong.length > 0}>
          Save the marks
        </Button>
        <Button variant="outline-dark" onClick={onClose}>
          Cancel
        </Button>
        {column && (
          <Button variant="outline-dark" onClick={() => void dropColumn()}>
            Delete this column
          </Button>
        )}
      </div>
    </Form>
  );
}

const HEADS: Readonly<Record<string, string>> = { title: 'What was it?', outOf: 'Out of' };

function asEdit(
  head: Omit<PaperColumnEdit, 'points'>,
  { children }: ClassDetail,
  typed: Readonly<Record<string, string>>,
): PaperColumnEdit {
  return {
    ...head,
    points: Object.fromEntries(children.map(({ id }) => [id, pointsOf(typed[id], head.outOf) ?? null])),
  };
}

/** What the server has now, head and marks side by side, as a column. */
function unflattened({ title, outOf, takenAt, ...points }: Readonly<Record<string, unknown>>): object {
  return { title, outOf, takenAt, points };
}

interface PointFieldsProps {
  readonly schoolClass: ClassDetail;
  readonly typed: Readonly<Record<string, string>>;
  readonly wrong: readonly Child[];
  readonly onTyped: (typed: Readonly<Record<string, string>>) => void;
}

function PointFields({ schoolClass, typed, wrong, onTyped }: PointFieldsProps) {
  return (
    <div className="paper-children">
      {schoolClass.children.map(({ id: childId, name }) => (
        <Form.Group key={childId} controlId={`paper-${childId}`}>
          <Form.Label>{name}</Form.Label>
          <Form.Control
            inputMode="decimal"
            value={typed[childId] ?? ''}
            onKeyDown={toNext}
            isInvalid={wrong.some((child) => child.id === childId)}
            onChange={(event) => onTyped({ ...typed, [childId]: event.target.value })}
          />
        </Form.Group>
      ))}
    </div>
  );
}

interface PaperHeadProps {
  readonly title: string;
  readonly outOf: number;
  readonly onTitle: (title: string) => void;
  readonly onOutOf: (outOf: number) => void;
}

function PaperHead({ title, outOf, onTitle, onOutOf }: PaperHeadProps) {
  return (
    <div className="paper-head">
      <Form.Group controlId="paper-title">
        <Form.Label>What was it? For example a quiz, a sheet</Form.Label>
        <Form.Control value={title} required maxLength={60} onChange={(event) => onTitle(event.target.value)} />
      </Form.Group>
      <Form.Group controlId="paper-out-of">
        <Form.Label>Out of</Form.Label>
        <Form.Control
          type="number"
          min={1}
          max={1000}
          value={outOf}
          onChange={(event) => onOutOf(Number(event.target.value))}
        />
      </Form.Group>
    </div>
  );
}

/** null for nothing typed, undefined for what is no mark here; a comma is a point. */
export function pointsOf(typed: string | undefined, outOf: number): number | null | undefined {
  const word = (typed ?? '').trim().replace(',', '.');
  if (word === '') return null;
  const points = Number(word);
  return Number.isFinite(points) && points >= 0 && points <= outOf ? points : undefined;
}

function toNext(event: KeyboardEvent<HTMLElement>): void {
  if (event.key !== 'Enter') return;
  const fields = [...(event.currentTarget.closest('.paper-children')?.querySelectorAll('input') ?? [])];
  const next = fields[fields.indexOf(event.currentTarget as HTMLInputElement) + 1];
  // The last one sends the form.
  if (!next) return;
  event.preventDefault();
  next.focus();
}
