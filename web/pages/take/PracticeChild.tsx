import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { MISREADING_CODES, type MisreadingCode } from '../../../core/judging/misreadings/misreading.ts';
import { MISREADINGS } from '../../../core/judging/misreadings/table.ts';
import { type NamingId, withValueNames } from '../../../core/wording/valueNames.ts';
import type { SimulatedChild } from '../../../core/judging/simulatedChild.ts';

/** Seconds: a steady child of nine. */
const SPREAD = 0.022;
const LEAD = 0.03;

/** A stand-in for a real child, so that everything can be tried alone. */
export function PracticeChild({
  naming,
  onPractise,
}: {
  naming: NamingId;
  onPractise: (child: SimulatedChild) => void;
}) {
  const [code, setCode] = useState<MisreadingCode | ''>('');
  return (
    <div className="practice-child">
      <Form.Label htmlFor="practice">No child here? The practice child claps it</Form.Label>
      <Form.Select
        id="practice"
        size="sm"
        value={code}
        onChange={(event) => setCode(MISREADING_CODES.find((one) => one === event.target.value) ?? '')}
      >
        <option value="">right</option>
        {MISREADING_CODES.map((one) => (
          <option key={one} value={one}>
            with: {withValueNames(MISREADINGS[one].title, naming)}
          </option>
        ))}
      </Form.Select>
      <Button
        size="sm"
        variant="outline-dark"
        onClick={() => onPractise({ spread: SPREAD, lead: LEAD, ...(code === '' ? {} : { misreads: [{ code }] }) })}
      >
        Hear the practice child
      </Button>
    </div>
  );
}
