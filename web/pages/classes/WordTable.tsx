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

/** Words to be changed, the usual one beside each. */
export function WordTable({ rows, onChange }: WordTableProps) {
  return (
    <Table size="sm">
      <thead>
        <tr>
          <th scope="col">Place</th>
          <th scope="col">Usual word</th>
          <th scope="col">In this class</th>
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
                aria-label={`Word for ${meaning}`}
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
