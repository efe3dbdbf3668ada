import { Download, Pencil, Scale, Speech, Trash2 } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link, useNavigate, useParams } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { ClassRecords } from '../../../contract/records.ts';
import {
  type ClassDetail,
  type ClassSettings,
  COUNTED_TAKES,
  type CountedTake,
} from '../../../contract/schoolClass.ts';
import type { Teacher } from '../../../contract/session.ts';
import { namingOf } from '../../../core/wording/voice.ts';
import { put, remove } from '../../api/client.ts';
import { useClass, useRecords } from '../../api/hooks.ts';
import { useWaitingTakes } from '../../take/useOutbox.ts';
import { Notice } from '../../ui/Notice.tsx';
import { Select } from '../../ui/Select.tsx';
import { useChooseClass } from '../../ui/currentClass.ts';
import { saveFile } from '../../ui/saveFile.ts';
import { useSave } from '../../ui/useSave.ts';
import { AddChild } from './AddChild.tsx';
import { ClassForm } from './ClassForm.tsx';
import { ImportChildren } from './ImportChildren.tsx';
import { JudgingForm } from './JudgingForm.tsx';
import { NeedsList } from './NeedsList.tsx';
import { PaperForm } from './PaperForm.tsx';
import { RecordsGrid } from './RecordsGrid.tsx';
import { RejudgingLine } from './RejudgingLine.tsx';
import { WordsForm } from './WordsForm.tsx';
import { agesText } from './agesText.ts';
import { type GridView, columnsOf, rowsOf } from './gridCells.ts';
import { type Separator, marksCsv } from './marksCsv.ts';
import './classes.scss';

export default function ClassPage({ teacher }: { teacher: Teacher }) {
  const { classId = '' } = useParams();
  const room = useClass(classId);
  const records = useRecords(classId);
  const waiting = useWaitingTakes(teacher.id);
  const problem = room.error ?? records.error;
  const again = () => void Promise.all([room.mutate(), records.mutate()]);
  if (!room.data || !records.data) return problem ? <Notice problem={problem} again={again} /> : null;
  return (
    <ClassView schoolClass={room.data} records={records.data} waiting={waiting.map(({ upload }) => upload.childId)} />
  );
}

type Form = 'class' | 'words' | 'judging' | 'import' | 'paper';

interface ViewProps {
  readonly schoolClass: ClassDetail;
  readonly records: ClassRecords;
}

/** @param waiting  for each take on its way whose it is */
function ClassView({ schoolClass, records, waiting }: ViewProps & { waiting: readonly string[] }) {
  const [form, setForm] = useState<Form>();
  const [paper, setPaper] = useState<string>();
  const { id, children } = schoolClass;
  const add = useSave((name: string) => put(`/classes/${id}/children/${uuid()}`, { name }), '/classes');
  const close = () => setForm(undefined);
  const toggle = (next: Form) => {
    setPaper(undefined);
    setForm(form === next ? undefined : next);
  };
  const openPaper = (columnId: string) => {
    setPaper(columnId);
    setForm('paper');
    scrollTo({ top: 0 });
  };
  return (
    <>
      <ClassHead schoolClass={schoolClass} onForm={toggle} />
      <RejudgingLine classId={id} />
      {add.problem && <Notice problem={add.problem} />}
      {form === 'import' && <ImportChildren schoolClass={schoolClass} onClose={close} />}
      {form === 'paper' && (
        <PaperForm
          key={paper}
          schoolClass={schoolClass}
          records={records}
          column={records.paper.find((column) => column.id === paper)}
          onClose={close}
        />
      )}
      {(form === 'class' || form === 'words' || form === 'judging') && (
        <SettingsForm schoolClass={schoolClass} records={records} form={form} onClose={close} />
      )}
      {children.length === 0 ? (
        <div className="empty">
          Add the children below, by first name or by a code. Nothing else about them is kept.
        </div>
      ) : (
        <Records schoolClass={schoolClass} records={records} waiting={waiting} onPaper={openPaper} onForm={toggle} />
      )}
      <div className="add-children">
        <AddChild onAdd={add.save} />
        <Button variant="outline-dark" onClick={() => toggle('import')}>
          Many at once
        </Button>
      </div>
    </>
  );
}

function ClassHead({ schoolClass, onForm }: { schoolClass: ClassDetail; onForm: (form: Form) => void }) {
  const { id, name, ages, children } = schoolClass;
  const navigate = useNavigate();
  const chooseClass = useChooseClass();
  const removal = useSave(() => remove(`/classes/${id}`), '/classes', '/takes', '/bin');
  const removeClass = async () => {
    if (!confirm(`Put ${name} into the bin, with all its children and takes? It can be taken out for 30 days.`)) return;
    if (await removal.save()) await navigate('/classes');
  };
  return (
    <>
      <div className="page-head">
        <h1>{name}</h1>
        <span>
          {children.length} children, {agesText(ages)}
        </span>
        <span className="flex-grow-1" />
        {children.length > 0 && (
          <Link className="btn btn-primary" to={`/take/line-up?class=${id}`} onClick={() => chooseClass(id)}>
            Hear the class
          </Link>
        )}
        <Button variant="outline-dark" onClick={() => onForm('class')}>
          <Pencil size={16} aria-hidden /> Change
        </Button>
        <Button variant="outline-dark" onClick={() => onForm('words')}>
          <Speech size={16} aria-hidden /> Words
        </Button>
        <Button variant="outline-dark" onClick={() => onForm('judging')}>
          <Scale size={16} aria-hidden /> Marks
        </Button>
        <Button variant="outline-dark" onClick={() => void removeClass()}>
          <Trash2 size={16} aria-hidden /> Remove
        </Button>
      </div>
      {removal.problem && <Notice problem={removal.problem} />}
    </>
  );
}

const COUNTS: readonly (readonly [CountedTake, string])[] = COUNTED_TAKES.map((one) => [one, `${one} take counts`]);
const VIEWS: readonly (readonly [GridView, string])[] = [
  ['patterns', 'Patterns'],
  ['elements', 'Elements'],
];

interface RecordsProps extends ViewProps {
  readonly waiting: readonly string[];
  readonly onPaper: (columnId: string) => void;
  readonly onForm: (form: Form) => void;
}

/** What the class has shown: what comes next, then the grid. */
function Records({ schoolClass, records, waiting, onPaper, onForm }: RecordsProps) {
  const [view, setView] = useState<GridView>('patterns');
  const [wanted, setWanted] = useState('');
  const { id, children: _children, ...settings } = schoolClass;
  const counting = useSave((counts: CountedTake) => put(`/classes/${id}`, { ...settings, counts }), '/classes');
  return (
    <>
      <NeedsList schoolClass={schoolClass} records={records} />
      {counting.problem && <Notice problem={counting.problem} />}
      <div className="grid-tools">
        <fieldset className="grid-views">
          <legend className="visually-hidden">Show</legend>
          {VIEWS.map(([one, title]) => (
            <label key={one} className={one === view ? 'chosen' : ''}>
              <input type="radio" name="grid-view" checked={one === view} onChange={() => setView(one)} />
              {title}
            </label>
          ))}
        </fieldset>
        <Form.Control
          type="search"
          size="sm"
          placeholder="Find a child"
          aria-label="Find a child"
          value={wanted}
          onChange={(event) => setWanted(event.target.value)}
        />
        <Select
          size="sm"
          label="Of several takes"
          value={schoolClass.counts ?? 'best'}
          options={COUNTS}
          onChoose={(counts) => void counting.save(counts)}
        />
        <span className="flex-grow-1" />
        <Button size="sm" variant="outline-dark" onClick={() => onForm('paper')}>
          Marks from paper
        </Button>
        <SaveMarks schoolClass={schoolClass} records={records} view={view} />
      </div>
      <RecordsGrid
        schoolClass={schoolClass}
        records={records}
        view={view}
        wanted={wanted}
        waiting={waiting}
        onPaper={onPaper}
      />
    </>
  );
}

/** As this device writes numbers, so its spreadsheet reads them. */
const USUAL_SEPARATOR: Separator = (1.5).toLocaleString().includes(',') ? ';' : ',';
const SEPARATORS: readonly (readonly [Separator, string])[] = [
  [',', 'commas'],
  [';', 'semicolons'],
];

function SaveMarks({ schoolClass, records, view }: ViewProps & { view: GridView }) {
  const [separator, setSeparator] = useState(USUAL_SEPARATOR);
  const save = () => {
    const columns = columnsOf(records, view, namingOf(schoolClass));
    const text = marksCsv(columns, rowsOf(schoolClass, records, view), separator);
    saveFile(`${schoolClass.name} ${view}.csv`, new Blob([text], { type: 'text/csv' }));
  };
  return (
    <span className="save-marks">
      <Button size="sm" variant="outline-dark" onClick={save}>
        <Download size={15} aria-hidden /> As a table with
      </Button>
      <Select size="sm" label="Separator" value={separator} options={SEPARATORS} onChoose={setSeparator} />
    </span>
  );
}

interface FormProps extends ViewProps {
  readonly form: Form;
  readonly onClose: () => void;
}

function SettingsForm({ schoolClass, records, form, onClose }: FormProps) {
  const { id, children: _children, ...settings } = schoolClass;
  const saving = useSave((values: ClassSettings) => put(`/classes/${id}`, values), '/classes', '/takes');
  const onSave = async (values: ClassSettings) => {
    if (await saving.save(values)) onClose();
  };
  const shared = { settings, problem: saving.problem, onSave, onCancel: onClose };
  if (form === 'class') return <ClassForm {...shared} action="Save" />;
  return form === 'judging' ? <JudgingForm {...shared} classId={id} records={records} /> : <WordsForm {...shared} />;
}
