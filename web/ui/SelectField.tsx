import Form from 'react-bootstrap/Form';
import { type Options, Select } from './Select.tsx';

interface SelectFieldProps<T extends string> {
  /** Names the field for its label. */
  readonly id: string;
  readonly label: string;
  readonly value: T;
  readonly options: Options<T>;
  readonly onChoose: (value: T) => void;
}

/** One of a few: a labelled list, as they stand in a row above a view or in a form. */
export function SelectField<T extends string>({ id, label, value, options, onChoose }: SelectFieldProps<T>) {
  return (
    <Form.Group controlId={id}>
      <Form.Label>{label}</Form.Label>
      <Select value={value} options={options} onChoose={onChoose} />
    </Form.Group>
  );
}

/** Saved things as options, by their titles. */
export const titled = (things: readonly { readonly id: string; readonly title: string }[]): Options<string> =>
  things.map(({ id, title }) => [id, title] as const);
