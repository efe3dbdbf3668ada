import { t } from '../../../../core/words/say.ts';
import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';

/** @param onAdd  gives true when the child is there; else its name comes back into the field */
export function AddChild({ onAdd }: { onAdd: (name: string) => Promise<boolean> }) {
  const [name, setName] = useState('');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const sent = name.trim();
    if (sent === '') return;
    // Empty at once: the next name is typed while this one is on its way.
    setName('');
    if (!(await onAdd(sent))) setName((typed) => (typed === '' ? sent : `${sent}, ${typed}`));
  };
  return (
    <Form className="add-child" onSubmit={(event) => void submit(event)}>
      <Form.Control
        value={name}
        placeholder={t`First name or code`}
        aria-label={t`First name or code`}
        maxLength={60}
        onChange={(event) => setName(event.target.value)}
      />
      <Button type="submit" variant="outline-dark">{t`Add a child`}</Button>
    </Form>
  );
}
