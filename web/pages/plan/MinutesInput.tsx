import { useState } from 'react';
import Form from 'react-bootstrap/Form';

interface MinutesInputProps {
  readonly label: string;
  /** Undefined: none typed. */
  readonly value: number | undefined;
  readonly least: number;
  readonly most: number;
  /** Empty is allowed, and says so. */
  readonly placeholder?: string;
  readonly step?: number;
  readonly onMinutes: (minutes: number | undefined) => void;
}

/** A number of minutes; while it is being typed it may be anything. */
export function MinutesInput({ label, value, least, most, placeholder, step = 1, onMinutes }: MinutesInputProps) {
  const [typed, setTyped] = useState<string>();
  const shown = typed ?? (value === undefined ? '' : String(value));
  const change = (text: string) => {
    setTyped(text);
    const minutes = Math.round(Number(text) / step) * step;
    if (text === '' && placeholder !== undefined) onMinutes(undefined);
    else if (text !== '' && minutes >= least && minutes <= most) onMinutes(minutes);
  };
  return (
    <Form.Control
      type="number"
      className="minutes-input"
      aria-label={label}
      min={least}
      max={most}
      step={step}
      value={shown}
      placeholder={placeholder}
      onChange={({ target }) => change(target.value)}
      onBlur={() => setTyped(undefined)}
    />
  );
}
