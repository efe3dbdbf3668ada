import Form from 'react-bootstrap/Form';

interface ChoiceProps {
  /** Names the field for its label. */
  readonly id: string;
  readonly label: string;
  readonly value: string;
  /** Value and name of each, in order. */
  readonly options: readonly (readonly [value: string, name: string])[];
  readonly onChoose: (value: string) => void;
}

/** One of a few: a labelled list, as they stand in a row above each room. */
export function SelectField({ id, label, value, options, onChoose }: ChoiceProps) {
  return (
    <Form.Group controlId={id}>
      <Form.Label>{label}</Form.Label>
      <Form.Select value={value} onChange={(event) => onChoose(event.target.value)}>
        {options.map(([option, name]) => (
          <option key={option} value={option}>
            {name}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  );
}

/** Saved things as options, by their titles. */
export const titled = (things: readonly { readonly id: string; readonly title: string }[]) =>
  things.map(({ id, title }) => [id, title] as const);
