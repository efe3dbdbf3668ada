import { perLanguage, t } from '../../../core/words/say.ts';
import { House, Pencil, Scale, Speech } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { ClassRecords } from '../../../contract/records.ts';
import {
  type ClassDetail,
  type ClassSettings,
  COUNTED_TAKES,
  type CountedTake,
} from '../../../contract/schoolClass.ts';
import type { Teacher } from '../../../contract/session.ts';
import { put, remove } from '../../api/client.ts';
import { useClass, useRecords } from '../../api/hooks.ts';
import { useWaitingTakes } from '../../api/useOutbox.ts';
import { ownDevicesPath } from '../../domain/OwnDevices.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { Loading } from '../../ui/Loading.tsx';
import { Select } from '../../ui/Select.tsx';
import { useChooseClass } from '../../domain/currentClass.ts';
import { BothVersions } from '../../domain/BothVersions.tsx';
import { settingsOf } from '../../store/settingsOf.ts';
import { useEditing } from '../../api/useEditing.ts';
import { useSave } from '../../api/useSave.ts';
import { AddChild } from './child/AddChild.tsx';
import { ClassForm } from './settings/ClassForm.tsx';
import { ImportChildren } from './manage/ImportChildren.tsx';
import { GridViews } from './grid/GridViews.tsx';
import { JudgingForm } from './settings/JudgingForm.tsx';
import { NeedsList } from './grid/NeedsList.tsx';
import { type NewColumn, PaperForm } from './paper/PaperForm.tsx';
import { RecordsGrid } from './grid/RecordsGrid.tsx';
import { RejudgingLine } from './grid/RejudgingLine.tsx';
import { SaveMarks } from './grid/SaveMarks.tsx';
import { TogetherSince } from './grid/TogetherSince.tsx';
import { WordsForm } from './settings/WordsForm.tsx';
import { ManageForm, ManageMenu, type Managing, isManaging } from './manage/ManageMenu.tsx';
import { agesText } from './settings/agesText.ts';
import type { GridView } from './grid/gridCells.ts';
import './classes.scss';

export default function ClassPage({ teacher }: { teacher: Teacher }) {
  const { classId = '' } = useParams();
  const room = useClass(classId);
  const records = useRecords(classId);
  const waiting = useWaitingTakes(teacher.id);
  const problem = room.error ?? records.error;
  const again = () => void Promise.all([room.mutate(), records.mutate()]);
  if (!room.data || !records.data) return <Loading title={t`Class`} problem={problem} again={again} />;
  return (
    <ClassView schoolClass={room.data} records={records.data} waiting={waiting.map(({ upload }) => upload.childId)} />
  );
}

type Form = 'class' | 'words' | 'judging' | 'import' | 'paper' | Managing;

interface ViewProps {
  readonly schoolClass: ClassDetail;
  readonly records: ClassRecords;
}

/** @param waiting  for each take on its way whose it is */
function ClassView({ schoolClass, records, waiting }: ViewProps & { waiting: readonly string[] }) {
  const asked = useAskedColumn();
  const [form, setForm] = useState<Form | undefined>(asked && schoolClass.role !== 'look' ? 'paper' : undefined);
  // The same sheet is written a second time into the column it has.
  const [paper, setPaper] = useState(() => records.paper.find(({ title }) => title === asked?.title)?.id);
  const { id, children } = schoolClass;
  const add = useSave((name: string) => put(`/classes/${id}/children/${uuid()}`, { name }), '/classes');
  const owns = schoolClass.role === 'owner';
  const close = () => setForm(undefined);
  const toggle = (next: Form) => {
    setPaper(undefined);
    setForm(form === next ? undefined : next);
  };
  const openPaper = (columnId: string) => {
    if (schoolClass.role === 'look') return;
    setPaper(columnId);
    setForm('paper');
    scrollTo({ top: 0 });
  };
  return (
    <>
      <ClassHead schoolClass={schoolClass} onForm={toggle} />
      <RejudgingLine classId={id} cancels={schoolClass.role === 'owner'} />
      {add.problem && <Notice problem={add.problem} />}
      {isManaging(form) && <ManageForm schoolClass={schoolClass} form={form} onClose={close} />}
      {form === 'import' && <ImportChildren schoolClass={schoolClass} onClose={close} />}
      {form === 'paper' && (
        <PaperForm
          key={paper}
          schoolClass={schoolClass}
          records={records}
          column={records.paper.find((column) => column.id === paper)}
          begin={asked}
          onClose={close}
        />
      )}
      {(form === 'class' || form === 'words' || form === 'judging') && (
        <SettingsForm schoolClass={schoolClass} records={records} form={form} onClose={close} />
      )}
      {children.length === 0 ? (
        <div className="empty">
          {owns
            ? t`Add the children below, by first name or by a code. Nothing else about them is kept.`
            : t`There are no children in this class yet.`}
        </div>
      ) : (
        <Records schoolClass={schoolClass} records={records} waiting={waiting} onPaper={openPaper} onForm={toggle} />
      )}
      {owns && (
        <div className="add-children">
          <AddChild onAdd={add.save} />
          <Button variant="outline-dark" onClick={() => toggle('import')}>{t`Many at once`}</Button>
        </div>
      )}
    </>
  );
}

/** A column of paper marks that another view asks for: "?paper=new&title=Week 7&outOf=24". */
function useAskedColumn(): NewColumn | undefined {
  const [search] = useSearchParams();
  const [asked] = useState(() => {
    const [title, outOf] = [search.get('title'), Number(search.get('outOf'))];
    return search.has('paper') && title && outOf > 0 ? { title, outOf } : undefined;
  });
  return asked;
}

function ClassHead({ schoolClass, onForm }: { schoolClass: ClassDetail; onForm: (form: Form) => void }) {
  const { id, name, ages, children, role, owner } = schoolClass;
  const navigate = useNavigate();
  const [more, setMore] = useState(false);
  const removal = useSave(() => remove(`/classes/${id}`), '/classes', '/takes', '/bin');
  const removeClass = async () => {
    if (!confirm(t`Put ${name} into the bin, with all its children and takes? It can be taken out for 30 days.`))
      return;
    if (await removal.save()) await navigate('/classes');
  };
  return (
    <>
      <div className="page-head">
        <h1>{name}</h1>
        <span>
          {t`${children.length} children, ${agesText(ages)}`}
          {role !== 'owner' && t`, shared by ${owner}${role === 'look' ? t` to look at` : ''}`}
        </span>
        <span className="flex-grow-1" />
        <ClassActions schoolClass={schoolClass} onForm={onForm} more={more} onMore={() => setMore(!more)} />
      </div>
      {more && (
        <ManageMenu
          schoolClass={schoolClass}
          onForm={(form) => (setMore(false), onForm(form))}
          onRemove={() => void removeClass()}
        />
      )}
      {removal.problem && <Notice problem={removal.problem} />}
    </>
  );
}

interface ActionsProps {
  readonly schoolClass: ClassDetail;
  readonly onForm: (form: Form) => void;
  /** Whether what is seldom done is shown. */
  readonly more: boolean;
  readonly onMore: () => void;
}

/** What is done with a class, and what of it can be changed. */
function ClassActions({ schoolClass: { id, children, role }, onForm, more, onMore }: ActionsProps) {
  const chooseClass = useChooseClass();
  return (
    <div className="class-actions">
      {children.length > 0 && role !== 'look' && (
        <Link className="btn btn-primary" to={`/take/line-up?class=${id}`} onClick={() => chooseClass(id)}>
          {t`Hear the class`}
        </Link>
      )}
      {children.length > 0 && role !== 'look' && (
        <Link className="btn btn-outline-dark" to={ownDevicesPath(id)}>{t`Own devices`}</Link>
      )}
      <Link className="btn btn-outline-dark" to={`/classes/${id}/practice`}>
        <House size={16} aria-hidden /> {t`Practice`}
      </Link>
      {role === 'owner' && (
        <>
          <Button variant="outline-dark" onClick={() => onForm('class')}>
            <Pencil size={16} aria-hidden /> {t`Change`}
          </Button>
          <Button variant="outline-dark" onClick={() => onForm('words')}>
            <Speech size={16} aria-hidden /> {t`Words`}
          </Button>
          <Button variant="outline-dark" onClick={() => onForm('judging')}>
            <Scale size={16} aria-hidden /> {t`Marks`}
          </Button>
        </>
      )}
      <Button variant="outline-dark" aria-expanded={more} onClick={onMore}>{t`More`}</Button>
    </div>
  );
}

const COUNTS = perLanguage((): readonly (readonly [CountedTake, string])[] => {
  const names = { best: t`best take counts`, last: t`last take counts`, average: t`average take counts` };
  return COUNTED_TAKES.map((one) => [one, names[one]] as const);
});
interface RecordsProps extends ViewProps {
  readonly waiting: readonly string[];
  readonly onPaper: (columnId: string) => void;
  readonly onForm: (form: Form) => void;
}

/** What the class has shown: what comes next, then the grid. */
function Records({ schoolClass, records, waiting, onPaper, onForm }: RecordsProps) {
  const [view, setView] = useState<GridView>('patterns');
  const [wanted, setWanted] = useState('');
  const { id } = schoolClass;
  const settings = settingsOf(schoolClass);
  const counting = useSave(
    (counts: CountedTake) => put(`/classes/${id}`, { ...settings, counts, was: settings }),
    '/classes',
  );
  const mayHear = schoolClass.role !== 'look';
  return (
    <>
      <NeedsList schoolClass={schoolClass} records={records} />
      <TogetherSince classId={id} />
      {counting.problem && <Notice problem={counting.problem} />}
      <div className="grid-tools">
        <GridViews view={view} onView={setView} />
        <Form.Control
          type="search"
          size="sm"
          placeholder={t`Find a child`}
          aria-label={t`Find a child`}
          value={wanted}
          onChange={(event) => setWanted(event.target.value)}
        />
        {schoolClass.role === 'owner' ? (
          <Select
            size="sm"
            label={t`Of several takes`}
            value={schoolClass.counts ?? 'best'}
            options={COUNTS()}
            onChoose={(counts) => void counting.save(counts)}
          />
        ) : (
          <span>{t`${schoolClass.counts ?? 'best'} take counts`}</span>
        )}
        <span className="flex-grow-1" />
        {mayHear && (
          <Button size="sm" variant="outline-dark" onClick={() => onForm('paper')}>{t`Marks from paper`}</Button>
        )}
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

interface FormProps extends ViewProps {
  readonly form: Form;
  readonly onClose: () => void;
}

function SettingsForm({ schoolClass, records, form, onClose }: FormProps) {
  const { id } = schoolClass;
  // As they were when the form was opened: what others change meanwhile is put together with what is changed here.
  const [settings] = useState(() => settingsOf(schoolClass));
  const editing = useEditing(`/classes/${id}`, settings, ['/classes', '/takes']);
  const closeWhen = async (done: Promise<boolean>) => {
    if (await done) onClose();
  };
  const onSave = (values: ClassSettings) => closeWhen(editing.save(values));
  const shared = { settings, problem: editing.problem, onSave, onCancel: onClose };
  return (
    <>
      {editing.clash && (
        <BothVersions clash={editing.clash} onChosen={(theirs) => void closeWhen(editing.settle(theirs))} />
      )}
      {form === 'class' && <ClassForm {...shared} action={t`Save`} />}
      {form === 'judging' && <JudgingForm {...shared} classId={id} records={records} />}
      {form === 'words' && <WordsForm {...shared} />}
    </>
  );
}
