import { t } from '../../../../core/words/say.ts';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import Table from 'react-bootstrap/Table';

export interface WordRow {
  readonly key: string;
  readonly meaning: string;
  readonly word: string;
  readonly usual: string;
  readonly wrong: string | undefined;
}

interface WordTableProps {
  readonly rows: readonly WordRow[];
  readonly onChange: (key: string, word: string) => void;
}

/** Further rows are folded away, but for those that the class says otherwise. */
const OPEN_ROWS = 8;

/** Words to be changed, the usual one beside each. */
export function WordTable({ rows, onChange }: WordTableProps) {
  // As it was when the table was opened: a row must not move while its word is typed.
  const [changed] = useState(() => new Set(rows.flatMap(({ key, word, usual }) => (word === usual ? [] : [key]))));
  const isOpen = ({ key }: WordRow, i: number) => i < OPEN_ROWS || changed.has(key);
  const folded = rows.filter((row, i) => !isOpen(row, i));
  return (
    <>
      <Rows rows={rows.filter(isOpen)} onChange={onChange} />
      {folded.length > 0 && (
        <details className="more-words" open={folded.some(({ wrong }) => wrong !== undefined) || undefined}>
          <summary>{t`${folded.length} more`}</summary>
          <Rows rows={folded} onChange={onChange} />
        </details>
      )}
    </>
  );
}

function Rows({ rows, onChange }: WordTableProps) {
  return (
    <Table size="sm">
      <thead>
        <tr>
          <th scope="col">{t`Place`}</th>
          <th scope="col">{t`Usual word`}</th>
          <th scope="col">{t`In this class`}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ key, meaning, word, usual, wrong }) => (
          <tr key={key}>
            <th scope="row">{meaning}</th>
            <td>{usual}</td>
            <td>
              <Form.Control
                size="sm"
                value={word}
                aria-label={t`Word for ${meaning}`}
                isInvalid={wrong !== undefined}
                onChange={(event) => onChange(key, event.target.value)}
              />
              {wrong && <span className="word-wrong">{wrong}</span>}
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
