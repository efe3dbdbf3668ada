import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';

/** @param onAdd  gives true when the child is there; else what was typed stays */
export function AddChild({ onAdd }: { onAdd: (name: string) => Promise<boolean> }) {
  const [name, setName] = useState('');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() !== '' && (await onAdd(name.trim()))) setName('');
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
