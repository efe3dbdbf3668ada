import { t } from '../../../../core/words/say.ts';
import Form from 'react-bootstrap/Form';
import Table from 'react-bootstrap/Table';
import { type MarkBorder, type Scale, markLabel } from '../../../../core/judging/scale.ts';

const percent = (part: number) => Math.round(part * 1000) / 10;

interface BordersTableProps {
  readonly borders: readonly MarkBorder[];
  readonly scale: Scale;
  readonly onChange: (borders: readonly MarkBorder[]) => void;
}

/** What each mark needs. */
export function BordersTable({ borders, scale, onChange }: BordersTableProps) {
  const change = (at: number, border: Partial<MarkBorder>) =>
    onChange(borders.map((old, i) => (i === at ? { ...old, ...border } : old)));
  return (
    <Table size="sm" className="mt-3">
      <thead>
        <tr>
          <th scope="col">{t`Mark`}</th>
          <th scope="col">{t`At least, %`}</th>
          <th scope="col">{t`Tempo kept within, %`}</th>
        </tr>
      </thead>
      <tbody>
        {borders.map(({ mark, accuracy, driftPct }, i) => (
          <tr key={mark}>
            <th scope="row">{markLabel(mark, scale)}</th>
            <td>
              {scale === 'percent' ? (
                // The accuracy itself is the mark.
                percent(accuracy)
              ) : (
                <Percent
                  label={t`Mark ${markLabel(mark, scale)}: at least, per cent`}
                  least={1}
                  value={percent(accuracy)}
                  onChange={(value) => change(i, { accuracy: value / 100 })}
                />
              )}
            </td>
            <td>
              {driftPct === undefined ? (
                '–'
              ) : (
                <Percent
                  label={t`Mark ${markLabel(mark, scale)}: tempo within, per cent`}
                  least={0}
                  value={driftPct}
                  onChange={(value) => change(i, { driftPct: value })}
                />
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

interface PercentProps {
  readonly label: string;
  readonly least: number;
  readonly value: number;
  readonly onChange: (value: number) => void;
}

function Percent({ label, least, value, onChange }: PercentProps) {
  return (
    <Form.Control
      size="sm"
      type="number"
      step="any"
      min={least}
      max={100}
      aria-label={label}
      value={value}
      onChange={(event) => onChange(Number(event.target.value))}
    />
  );
}
