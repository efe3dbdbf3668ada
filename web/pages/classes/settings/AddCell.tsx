import { t } from '../../../../core/words/say.ts';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';

/** @param onAdd  takes the rhythm text of the cell, single spaces */
export function AddCell({ onAdd }: { onAdd: (cell: string) => void }) {
  const [cell, setCell] = useState('');
  const add = () => {
    onAdd(cell.trim().replace(/\s+/g, ' '));
    setCell('');
  };
  return (
    <div className="add-child">
      <Form.Control
        value={cell}
        placeholder={t`A new cell, such as s e s`}
        aria-label={t`A new cell`}
        onChange={(event) => setCell(event.target.value)}
      />
      <Button variant="outline-dark" disabled={cell.trim() === ''} onClick={add}>{t`Add a cell`}</Button>
    </div>
  );
}
