import Form from 'react-bootstrap/Form';

interface NumberFieldProps {
  readonly id: string;
  readonly label: string;
  readonly value: number;
  readonly least: number;
  readonly most: number;
  readonly onValue: (value: number) => void;
}

/** A number with its label. */
export function NumberField({ id, label, value, least, most, onValue }: NumberFieldProps) {
  return (
    <Form.Group controlId={id}>
      <Form.Label>{label}</Form.Label>
      <Form.Control
        type="number"
        required
        min={least}
        max={most}
        value={value}
        onChange={(event) => onValue(Number(event.target.value))}
      />
    </Form.Group>
  );
}
