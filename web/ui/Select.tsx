import Form from 'react-bootstrap/Form';

/** Value and name of each, in order. */
export type Options<T extends string> = readonly (readonly [value: T, name: string])[];

interface SelectProps<T extends string> {
  /** Said to readers of the screen; left out where a label stands beside it. */
  readonly label?: string;
  readonly id?: string;
  readonly value: T;
  readonly options: Options<T>;
  readonly onChoose: (value: T) => void;
  readonly size?: 'sm';
  readonly className?: string;
  readonly disabled?: boolean;
}

/** One of a few, in a list. */
export function Select<T extends string>({
  label,
  id,
  value,
  options,
  onChoose,
  size,
  className,
  disabled,
}: SelectProps<T>) {
  const choose = (chosen: string) => {
    const option = options.find(([known]) => known === chosen);
    if (option) onChoose(option[0]);
  };
  return (
    <Form.Select
      {...(id === undefined ? {} : { id })}
      {...(size ? { size } : {})}
      {...(className === undefined ? {} : { className })}
      aria-label={label}
      value={value}
      disabled={disabled ?? false}
      onChange={(event) => choose(event.target.value)}
    >
      {options.map(([option, name]) => (
        <option key={option} value={option}>
          {name}
        </option>
      ))}
    </Form.Select>
  );
}
