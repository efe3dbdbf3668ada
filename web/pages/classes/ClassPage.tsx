import { Pencil, Scale, Speech, Trash2 } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useNavigate, useParams } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { ClassDetail, ClassSettings } from '../../../contract/schoolClass.ts';
import type { Teacher } from '../../../contract/session.ts';
import { put, remove } from '../../api/client.ts';
import { useClass } from '../../api/hooks.ts';
import { useWaitingTakes } from '../../take/useOutbox.ts';
import { Notice } from '../../ui/Notice.tsx';
import { useChooseClass } from '../../ui/currentClass.ts';
import { useSave } from '../../ui/useSave.ts';
import { AddChild } from './AddChild.tsx';
import { ChildrenTable } from './ChildrenTable.tsx';
import { ClassForm } from './ClassForm.tsx';
import { RejudgingLine } from './RejudgingLine.tsx';
import { JudgingForm } from './JudgingForm.tsx';
import { WordsForm } from './WordsForm.tsx';
import { agesText } from './agesText.ts';
import './classes.scss';

export default function ClassPage({ teacher }: { teacher: Teacher }) {
  const { classId = '' } = useParams();
  const { data, error, mutate } = useClass(classId);
  const waiting = useWaitingTakes(teacher.id);
  if (!data) return error ? <Notice problem={error} again={() => void mutate()} /> : null;
  return <ClassView schoolClass={data} waiting={waiting.map(({ upload }) => upload.childId)} />;
}

type Form = 'class' | 'words' | 'judging';

/** @param waiting  for each take on its way whose it is */
function ClassView({ schoolClass, waiting }: { schoolClass: ClassDetail; waiting: readonly string[] }) {
  const [form, setForm] = useState<Form>();
  const { id, children } = schoolClass;
  const add = useSave((name: string) => put(`/classes/${id}/children/${uuid()}`, { name }), '/classes');
  return (
    <>
      <ClassHead schoolClass={schoolClass} onForm={(next) => setForm(form === next ? undefined : next)} />
      <RejudgingLine classId={id} />
      {add.problem && <Notice problem={add.problem} />}
      {form && <SettingsForm schoolClass={schoolClass} form={form} onClose={() => setForm(undefined)} />}
      {children.length === 0 ? (
        <div className="empty">
          Add the children below, by first name or by a code. Nothing else about them is kept.
        </div>
      ) : (
        <ChildrenTable schoolClass={schoolClass} waiting={waiting} />
      )}
      <AddChild onAdd={add.save} />
    </>
  );
}

function ClassHead({ schoolClass, onForm }: { schoolClass: ClassDetail; onForm: (form: Form) => void }) {
  const { id, name, ages, children } = schoolClass;
  const navigate = useNavigate();
  const chooseClass = useChooseClass();
  const removal = useSave(() => remove(`/classes/${id}`), '/classes', '/takes');
  const removeClass = async () => {
    if (!confirm(`Remove ${name} with all its children and takes?`)) return;
    if (await removal.save()) await navigate('/classes');
  };
  const hear = () => {
    chooseClass(id);
    void navigate('/take');
  };
  return (
    <>
      <div className="page-head">
        <h1>{name}</h1>
        <span>
          {children.length} children, {agesText(ages)}
        </span>
        <span className="flex-grow-1" />
        {children.length > 0 && <Button onClick={hear}>Hear the class</Button>}
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

interface FormProps {
  readonly schoolClass: ClassDetail;
  readonly form: Form;
  readonly onClose: () => void;
}

function SettingsForm({ schoolClass, form, onClose }: FormProps) {
  const { id, children: _children, takes, ...settings } = schoolClass;
  const saving = useSave((values: ClassSettings) => put(`/classes/${id}`, values), '/classes', '/takes');
  const onSave = async (values: ClassSettings) => {
    if (await saving.save(values)) onClose();
  };
  const shared = { settings, problem: saving.problem, onSave, onCancel: onClose };
  if (form === 'class') return <ClassForm {...shared} action="Save" />;
  return form === 'judging' ? <JudgingForm {...shared} classId={id} takes={takes} /> : <WordsForm {...shared} />;
}
