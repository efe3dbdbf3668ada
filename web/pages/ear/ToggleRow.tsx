import Button from 'react-bootstrap/Button';

interface ToggleRowProps<T> {
  readonly label: string;
  readonly value: T;
  readonly options: readonly (readonly [value: T, title: string])[];
  readonly onChoose: (value: T) => void;
}

/** One of a few, as buttons beside each other. */
export function ToggleRow<T extends string | number>({ label, value, options, onChoose }: ToggleRowProps<T>) {
  return (
    <div className="toggle-row" role="group" aria-label={label}>
      {options.map(([one, title]) => (
        <Button
          key={one}
          variant={one === value ? 'dark' : 'outline-dark'}
          aria-pressed={one === value}
          onClick={() => onChoose(one)}
        >
          {title}
        </Button>
      ))}
    </div>
  );
}
