import Form from 'react-bootstrap/Form';

interface TextFieldProps {
  readonly id: string;
  readonly label: string;
  readonly value: string;
  readonly type?: 'text' | 'password';
  readonly autoComplete?: string;
  readonly minLength?: number;
  readonly maxLength: number;
  /** A line under it. */
  readonly help?: string;
  readonly onValue: (value: string) => void;
}

/** A line of text that must be there, with its label. */
export function TextField({ id, label, help, onValue, ...input }: TextFieldProps) {
  return (
    <Form.Group controlId={id} className="mb-3">
      <Form.Label>{label}</Form.Label>
      <Form.Control
        {...input}
        required
        aria-describedby={help === undefined ? undefined : `${id}-help`}
        onChange={(event) => onValue(event.target.value)}
      />
      {help !== undefined && <Form.Text id={`${id}-help`}>{help}</Form.Text>}
    </Form.Group>
  );
}
