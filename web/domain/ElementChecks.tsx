import type { ReactNode } from 'react';
import Form from 'react-bootstrap/Form';
import { ELEMENTS, ELEMENT_IDS, type ElementId } from '../../core/rhythm/elements.ts';
import { type NamingId, inNaming } from '../../core/wording/valueNames.ts';
import './elementChecks.scss';

interface ElementChecksProps {
  /** Names the boxes for their labels. */
  readonly id: string;
  readonly legend: string;
  readonly chosen: readonly ElementId[];
  /** So many stay chosen in any case. */
  readonly fewest: number;
  readonly naming: NamingId;
  readonly onChoose: (chosen: readonly ElementId[]) => void;
  readonly children?: ReactNode;
}

/** Compound meter is chosen by its meter. */
const CHOICES: readonly ElementId[] = ELEMENT_IDS.filter((id) => id !== 'compound');

/** Some of the elements of rhythm, in the order in which they usually come. */
export function ElementChecks({ id: name, legend, chosen, fewest, naming, onChoose, children }: ElementChecksProps) {
  const change = (id: ElementId, wanted: boolean) => {
    const next = CHOICES.filter((one) => (one === id ? wanted : chosen.includes(one)));
    if (next.length >= fewest) onChoose(next);
  };
  return (
    <fieldset className="element-checks">
      <legend>{legend}</legend>
      {CHOICES.map((id) => (
        <Form.Check
          key={id}
          type="checkbox"
          id={`${name}-${id}`}
          label={inNaming(ELEMENTS()[id].title, naming)}
          checked={chosen.includes(id)}
          onChange={({ target }) => change(id, target.checked)}
        />
      ))}
      {children}
    </fieldset>
  );
}
