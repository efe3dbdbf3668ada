import { perLanguage, t } from '../../../../core/words/say.ts';
import { type FormEvent, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v4 as uuid } from 'uuid';
import type { ClassRecords, PaperColumnEdit } from '../../../../contract/records.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { type Scale, highestOf, scaleOf, scaleTitle } from '../../../../core/judging/scale.ts';
import { remove } from '../../../api/client.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { BothVersions } from '../../../domain/BothVersions.tsx';
import { marksInWords } from '../../../domain/marksInWords.ts';
import { namesIn } from '../../../domain/namesIn.ts';
import { Select } from '../../../ui/Select.tsx';
import { flat } from '../../../store/settled.ts';
import { useEditing } from '../../../api/useEditing.ts';
import { useSave } from '../../../api/useSave.ts';
import { PaperPoints } from './PaperPoints.tsx';
import { pointsOf, typedOf } from './paperKeys.ts';

const USUAL_OUT_OF = 10;

/** A new column that is known already, as a sheet has it. */
export interface NewColumn {
  readonly title: string;
  readonly outOf: number;
}

/** Points out of so many, or marks of a scale. */
interface Measured {
  readonly outOf: number;
  readonly scale: Scale | null;
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
  const [scale, setScale] = useState<Scale | null>(column?.scale ?? null);
  const of = useMemo((): Measured => ({ outOf: scale ? highestOf(scale) : outOf, scale }), [outOf, scale]);
  const [typed, setTyped] = useState(() => typedIn(column, records));
  const path = `/classes/${schoolClass.id}/paper/${id}`;
  const [was] = useState(() => asEdit(title, of, column?.takenAt ?? Date.now(), schoolClass, typed));
  const saving = useEditing<PaperColumnEdit>(path, column && was, ['/classes']);
  const removal = useSave(() => remove(path), '/classes', '/bin');
  const closeWhen = async (done: Promise<boolean>) => {
    if (await done) onClose();
  };
  const wrong = schoolClass.children.filter((child) => pointsOf(typed[child.id], of.outOf, scale) === undefined);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (wrong.length > 0) return;
    await closeWhen(saving.save(asEdit(title.trim(), of, was.takenAt, schoolClass, typed)));
  };
  const dropColumn = async () => {
    if (confirm(BIN_ASKED()) && (await removal.save())) onClose();
  };
  const problem = saving.problem ?? removal.problem;
  return (
    <Form className="card-paper paper-form" onSubmit={(event) => void submit(event)}>
      {saving.clash && (
        <BothVersions
          clash={inWords({ ...saving.clash, mine: flat({ ...saving.clash.mine }) }, scale)}
          names={{ ...HEADS(), ...namesIn(schoolClass) }}
          onChosen={(theirs) => void closeWhen(saving.settle(theirs))}
        />
      )}
      <PaperHead
        title={title}
        outOf={outOf}
        scale={scale}
        own={column?.scale ?? scaleOf(schoolClass)}
        onTitle={setTitle}
        onOutOf={setOutOf}
        onScale={setScale}
      />
      <PaperPoints
        schoolClass={schoolClass}
        outOf={of.outOf}
        scale={scale}
        typed={typed}
        wrong={wrong}
        atOnce={begin !== undefined}
        onTyped={setTyped}
      />
      {wrong.length > 0 && <Notice problem={{ message: t`${wrong[0]!.name}: ${expected(of)}, or nothing.` }} />}
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
      <Button type="submit" disabled={!saves}>{t`Save the marks`}</Button>
      <Button variant="outline-dark" onClick={onClose}>{t`Cancel`}</Button>
      {onDelete && <Button variant="outline-dark" onClick={onDelete}>{t`Delete this column`}</Button>}
    </div>
  );
}

/** What stands in the fields when the form is opened, by child. */
function typedIn(column: PaperFormProps['column'], records: ClassRecords): Readonly<Record<string, string>> {
  const { points = [], scale = null } = column ?? {};
  return Object.fromEntries(points.map((one) => [records.children[one.child]!, typedOf(one.points, scale)]));
}

const BIN_ASKED = perLanguage(
  () => t`Put this column into the bin, with its marks? It can be taken out again for 30 days.`,
);
const HEADS = perLanguage((): Readonly<Record<string, string>> => ({ title: t`What was it?` }));

/** What is to be typed for a child. */
const expected = ({ outOf, scale }: Measured) =>
  scale ? t`a mark of ${scaleTitle(scale)}` : t`a number from 0 to ${outOf}`;

type ClashInForm = Parameters<typeof marksInWords>[0];
/** Of marks side by side the children have theirs, under their ids. */
const inWords = (clash: ClashInForm, scale: Scale | null) =>
  scale ? marksInWords(clash, scale, (part) => !['title', 'outOf', 'takenAt', 'scale'].includes(part)) : clash;

function asEdit(
  title: string,
  { outOf, scale }: Measured,
  takenAt: number,
  { children }: ClassDetail,
  typed: Readonly<Record<string, string>>,
): PaperColumnEdit {
  return {
    title,
    outOf,
    takenAt,
    scale: scale === null || typeof scale === 'string' ? scale : [...scale],
    points: Object.fromEntries(children.map(({ id }) => [id, pointsOf(typed[id], outOf, scale) ?? null])),
  };
}

interface PaperHeadProps {
  readonly title: string;
  readonly outOf: number;
  /** Marks of this one; null for points. */
  readonly scale: Scale | null;
  /** What marks would be of. */
  readonly own: Scale;
  readonly onTitle: (title: string) => void;
  readonly onOutOf: (outOf: number) => void;
  readonly onScale: (scale: Scale | null) => void;
}

function PaperHead({ title, outOf, scale, own, onTitle, onOutOf, onScale }: PaperHeadProps) {
  return (
    <div className="paper-head">
      <Form.Group controlId="paper-title">
        <Form.Label>{t`What was it? For example a quiz, a sheet`}</Form.Label>
        <Form.Control value={title} required maxLength={60} onChange={(event) => onTitle(event.target.value)} />
      </Form.Group>
      <Form.Group controlId="paper-as">
        <Form.Label>{t`Given as`}</Form.Label>
        <Select
          id="paper-as"
          value={scale ? 'marks' : 'points'}
          options={[
            ['points', t`points`],
            ['marks', t`marks: ${scaleTitle(own)}`],
          ]}
          onChoose={(chosen) => onScale(chosen === 'marks' ? own : null)}
        />
      </Form.Group>
      {!scale && (
        <Form.Group controlId="paper-out-of">
          <Form.Label>{t`Out of`}</Form.Label>
          <Form.Control
            type="number"
            min={1}
            max={1000}
            value={outOf}
            onChange={(event) => onOutOf(Number(event.target.value))}
          />
        </Form.Group>
      )}
    </div>
  );
}
