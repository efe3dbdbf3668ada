import { format } from 'date-fns';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import Table from 'react-bootstrap/Table';
import { Link } from 'react-router';
import type { TakeSummary } from '../../../contract/take.ts';
import { HIGHEST_MARK } from '../../../core/judging/mark.ts';
import { put } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';

const MARKS: readonly number[] = Array.from({ length: HIGHEST_MARK + 1 }, (_, i) => HIGHEST_MARK - i);

/** A child's takes: the computed mark and the teacher's, side by side. */
export function TakeRows({
  classId,
  takes,
  onChanged,
}: {
  classId: string;
  takes: readonly TakeSummary[];
  onChanged: () => Promise<unknown>;
}) {
  const [problem, setProblem] = useState<Error>();
  if (takes.length === 0) return <p className="mb-0">No takes yet.</p>;
  const override = async (id: string, value: string) => {
    try {
      setProblem(undefined);
      await put(`/takes/${id}/override`, { mark: value === '' ? null : Number(value) });
      await onChanged();
    } catch (error) {
      setProblem(error as Error);
    }
  };
  return (
    <>
      {problem && <Notice problem={problem} />}
      <Table size="sm" className="mb-0">
        <thead>
          <tr>
            <th scope="col">When</th>
            <th scope="col">Pattern</th>
            <th scope="col">Tempo</th>
            <th scope="col">Right</th>
            <th scope="col">Computed</th>
            <th scope="col">Teacher’s mark</th>
          </tr>
        </thead>
        <tbody>
          {takes.map(({ id, takenAt, title, bpm, accuracy, mark, override: given }) => (
            <tr key={id}>
              <td>{format(takenAt, 'd MMM, HH:mm')}</td>
              <td>
                <Link to={`/classes/${classId}/takes/${id}`}>{title}</Link>
              </td>
              <td>{bpm}</td>
              <td>{Math.round(accuracy * 100)} %</td>
              <td>{mark}</td>
              <td>
                <Form.Select
                  size="sm"
                  aria-label={`Teacher’s mark for ${title}`}
                  value={given ?? ''}
                  onChange={(event) => void override(id, event.target.value)}
                >
                  <option value="">as computed</option>
                  {MARKS.map((value) => (
                    <option key={value} value={value}>
                      {value}
                    </option>
                  ))}
                </Form.Select>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  );
}
