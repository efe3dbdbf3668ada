import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { ClassSettings } from '../../../contract/school.ts';
import { REST_STYLES, type SchoolId } from '../../../core/counting/school.ts';
import { SCHOOLS } from '../../../core/counting/schools.ts';
import { NAMINGS, NAMING_IDS, type NamingId } from '../../../core/wording/valueNames.ts';
import { AGES, type Ages } from '../../../core/judging/windows.ts';
import { namingOf } from '../../../core/wording/voice.ts';
import { REST_NAMES } from '../../../core/wording/restNames.ts';
import { Notice } from '../../ui/Notice.tsx';

export function ClassForm({
  settings,
  action,
  onSave,
  onCancel,
}: {
  settings: ClassSettings;
  action: string;
  onSave: (settings: ClassSettings) => Promise<unknown>;
  onCancel: () => void;
}) {
  const [value, setValue] = useState(settings);
  const [problem, setProblem] = useState<Error>();
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await onSave({ ...value, name: value.name.trim() });
    } catch (error) {
      setProblem(error as Error);
    }
  };
  return (
    <Form className="card-paper class-form" onSubmit={(event) => void submit(event)}>
      <Form.Group controlId="class-name">
        <Form.Label>Name</Form.Label>
        <Form.Control
          value={value.name}
          required
          maxLength={60}
          autoFocus
          onChange={(event) => setValue({ ...value, name: event.target.value })}
        />
      </Form.Group>
      <Form.Group controlId="class-ages">
        <Form.Label>Ages</Form.Label>
        <Form.Select value={value.ages} onChange={(event) => setValue({ ...value, ages: event.target.value as Ages })}>
          {AGES.map((ages) => (
            <option key={ages} value={ages}>
              {ages}
            </option>
          ))}
        </Form.Select>
      </Form.Group>
      <Form.Group controlId="class-school">
        <Form.Label>Counts as</Form.Label>
        <Form.Select
          value={value.school}
          onChange={(event) => setValue({ ...value, school: event.target.value as SchoolId })}
        >
          {Object.values(SCHOOLS).map(({ id, title }) => (
            <option key={id} value={id}>
              {title}
            </option>
          ))}
        </Form.Select>
      </Form.Group>
      <Form.Group controlId="class-rests">
        <Form.Label>Rests</Form.Label>
        <Form.Select
          value={value.rests ?? ''}
          onChange={(event) =>
            setValue({ ...value, rests: REST_STYLES.find((style) => style === event.target.value) ?? null })
          }
        >
          <option value="">as the school does</option>
          {REST_STYLES.map((style) => (
            <option key={style} value={style}>
              {REST_NAMES[style]}
            </option>
          ))}
        </Form.Select>
      </Form.Group>
      <Form.Group controlId="class-naming">
        <Form.Label>Values are called</Form.Label>
        <Form.Select
          value={namingOf(value)}
          onChange={(event) => setValue({ ...value, naming: event.target.value as NamingId })}
        >
          {NAMING_IDS.map((id) => (
            <option key={id} value={id}>
              {NAMINGS[id].title}
            </option>
          ))}
        </Form.Select>
      </Form.Group>
      <div className="class-form-actions">
        <Button type="submit">{action}</Button>
        <Button variant="outline-dark" onClick={onCancel}>
          Cancel
        </Button>
      </div>
      {problem && <Notice problem={problem} />}
    </Form>
  );
}
