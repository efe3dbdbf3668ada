import { t } from '../../../../core/words/say.ts';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { post, put } from '../../../api/client.ts';
import { useClasses } from '../../../api/hooks.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { SelectField } from '../../../ui/SelectField.tsx';
import { settingsOf } from '../../../store/settingsOf.ts';
import { useSave } from '../../../api/useSave.ts';

const NEW = '';

/** Children go on in another class, with all their takes; as a rule that of next year. */
export function MoveForm({ schoolClass, onClose }: { schoolClass: ClassDetail; onClose: () => void }) {
  const { id, children } = schoolClass;
  const others = (useClasses().data ?? []).filter((one) => one.id !== id && one.role === 'owner');
  const [fresh] = useState(() => uuid());
  const [to, setTo] = useState<string>(NEW);
  const [name, setName] = useState('');
  const [staying, setStaying] = useState<ReadonlySet<string>>(new Set());
  const navigate = useNavigate();
  const going = children.filter((child) => !staying.has(child.id));
  const moving = useSave(
    async () => {
      if (to === NEW) await put(`/classes/${fresh}`, { ...settingsOf(schoolClass), name: name.trim() });
      await post(`/classes/${id}/moves`, { to: to || fresh, children: going.map((child) => child.id) });
    },
    '/classes',
    '/takes',
  );
  const move = async () => {
    if (await moving.save()) await navigate(`/classes/${to || fresh}`);
  };
  const ready = going.length > 0 && (to !== NEW || name.trim() !== '');
  return (
    <section className="card-paper manage-form" aria-label={t`Move children`}>
      <h2>{t`Move children to another class`}</h2>
      <p>{t`They keep all their takes, marks and what is made easier for them. What stays
          here are the terms that are closed.`}</p>
      <div className="move-to">
        <SelectField
          id="move-to"
          label={t`To`}
          value={to}
          options={[[NEW, t`a new class`], ...others.map((one) => [one.id, one.name] as const)]}
          onChoose={setTo}
        />
        {to === NEW && (
          <Form.Group controlId="move-name">
            <Form.Label>{t`Name of the new class`}</Form.Label>
            <Form.Control value={name} maxLength={60} onChange={(event) => setName(event.target.value)} />
          </Form.Group>
        )}
      </div>
      <WhoGoes schoolClass={schoolClass} staying={staying} onStaying={setStaying} />
      {moving.problem && <Notice problem={moving.problem} />}
      <div className="class-form-actions">
        <Button disabled={!ready || moving.saving} onClick={() => void move()}>
          {t`Move ${going.length === 1 ? t`this child` : t`these ${going.length} children`}`}
        </Button>
        <Button variant="outline-dark" onClick={onClose}>{t`Cancel`}</Button>
      </div>
    </section>
  );
}

interface WhoGoesProps {
  readonly schoolClass: ClassDetail;
  readonly staying: ReadonlySet<string>;
  readonly onStaying: (staying: ReadonlySet<string>) => void;
}

function WhoGoes({ schoolClass: { children }, staying, onStaying }: WhoGoesProps) {
  const toggle = (childId: string, stays: boolean) => {
    const next = new Set(staying);
    if (stays) next.add(childId);
    else next.delete(childId);
    onStaying(next);
  };
  return (
    <fieldset className="exempt">
      <legend>{t`Who goes`}</legend>
      {children.map((child) => (
        <Form.Check
          key={child.id}
          type="checkbox"
          id={`move-${child.id}`}
          label={child.name}
          checked={!staying.has(child.id)}
          onChange={(event) => toggle(child.id, !event.target.checked)}
        />
      ))}
    </fieldset>
  );
}
