import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v4 as uuid } from 'uuid';
import type { ClassRecords, PaperColumnEdit } from '../../../contract/records.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { remove } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';
import { BothVersions } from '../../ui/BothVersions.tsx';
import { namesIn } from '../../ui/namesIn.ts';
import { flat } from '../../ui/settled.ts';
import { useEditing } from '../../ui/useEditing.ts';
import { useSave } from '../../ui/useSave.ts';
import { PaperPoints } from './PaperPoints.tsx';
import { pointsOf } from './paperKeys.ts';

const USUAL_OUT_OF = 10;

/** A new column that is known already, as a sheet has it. */
export interface NewColumn {
  readonly title: string;
  readonly outOf: number;
}

interface PaperFormProps {
  readonly schoolClass: ClassDetail;
  readonly column: ClassRecords['paper'][number] | undefined;
  readonly begin?: NewColumn | undefined;
  readonly records: ClassRecords;
  readonly onClose: () => void;
}

/** Marks made on paper, entered down the list, mostly with one key a child. */
export function PaperForm({ schoolClass, column, begin, records, onClose }: PaperFormProps) {
  const [id] = useState(() => column?.id ?? uuid());
  const [title, setTitle] = useState(column?.title ?? begin?.title ?? '');
  const [outOf, setOutOf] = useState(column?.outOf ?? begin?.outOf ?? USUAL_OUT_OF);
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>(() =>
    Object.fromEntries((column?.points ?? []).map((one) => [records.children[one.child]!, String(one.points)])),
  );
  const path = `/classes/${schoolClass.id}/paper/${id}`;
  const [was] = useState(() => asEdit({ title, outOf, takenAt: column?.takenAt ?? Date.now() }, schoolClass, typed));
  const saving = useEditing<PaperColumnEdit>(path, column && was, ['/classes']);
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
          clash={{ ...saving.clash, mine: flat({ ...saving.clash.mine }) }}
          names={{ ...HEADS, ...namesIn(schoolClass) }}
          onChosen={(theirs) => void closeWhen(saving.settle(theirs))}
        />
      )}
      <PaperHead title={title} outOf={outOf} onTitle={setTitle} onOutOf={setOutOf} />
      <PaperPoints
        schoolClass={schoolClass}
        outOf={outOf}
        typed={typed}
        wrong={wrong}
        atOnce={begin !== undefined}
        onTyped={setTyped}
      />
      {wrong.length > 0 && (
        <Notice problem={{ message: `${wrong[0]!.name}: a number from 0 to ${outOf}, or nothing.` }} />
      )}
      {problem && <Notice problem={problem} />}
      <PaperActions saves={wrong.length === 0} onClose={onClose} onDelete={column && (() => void dropColumn())} />
    </Form>
  );
}

interface ActionsProps {
  readonly saves: boolean;
  readonly onClose: () => void;
  readonly onDelete: (() => void) | undefined;
}

function PaperActions({ saves, onClose, onDelete }: ActionsProps) {
  return (
    <div className="class-form-actions">
      <Button type="submit" disabled={!saves}>
        Save the marks
      </Button>
      <Button variant="outline-dark" onClick={onClose}>
        Cancel
      </Button>
      {onDelete && (
        <Button variant="outline-dark" onClick={onDelete}>
          Delete this column
        </Button>
      )}
    </div>
  );
}

const HEADS: Readonly<Record<string, string>> = { title: 'What was it?' };

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
