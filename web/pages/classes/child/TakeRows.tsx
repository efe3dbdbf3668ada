import { t } from '../../../../core/words/say.ts';
import { format } from '../../../words/dates.ts';
import Table from 'react-bootstrap/Table';
import { Link } from 'react-router';
import type { TakeSummary } from '../../../../contract/take.ts';
import { type Scale, givenText, markLabel } from '../../../../core/judging/scale.ts';
import { put } from '../../../api/client.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { useSave } from '../../../api/useSave.ts';
import { MarkChoice } from './MarkChoice.tsx';

interface TakeRowsProps {
  readonly classId: string;
  readonly takes: readonly TakeSummary[];
  readonly scale: Scale;
  /** Whether whoever looks may give a mark of her own. */
  readonly marks: boolean;
}

/** A child's takes: the computed mark and the teacher's, side by side. */
export function TakeRows({ classId, takes, scale, marks }: TakeRowsProps) {
  const own = useSave(
    ({ id, mark, was }: { id: string; mark: number | null; was: number | null }) =>
      put(`/takes/${id}/override`, { mark, was: { mark: was } }),
    '/classes',
    '/takes',
  );
  if (takes.length === 0) return <p className="mb-0">{t`No takes yet.`}</p>;
  return (
    <>
      {own.problem && <Notice problem={own.problem} />}
      <Table size="sm" className="mb-0">
        <thead>
          <tr>
            {[t`When`, t`Pattern`, t`Tempo`, t`Right`, t`Computed`, t`Teacher’s mark`].map((name) => (
              <th key={name} scope="col">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {takes.map(({ id, takenAt, title, bpm, accuracy, mark, override, given }) => (
            <tr key={id}>
              <td>{format(takenAt, 'd MMM, HH:mm')}</td>
              <td>
                <Link to={`/classes/${classId}/takes/${id}`}>{title}</Link>
              </td>
              <td>{bpm}</td>
              <td>{Math.round(accuracy * 100)} %</td>
              <td>{markLabel(mark, scale)}</td>
              <td>
                {marks ? (
                  <MarkChoice
                    label={t`Teacher’s mark for ${title}`}
                    scale={scale}
                    mark={override}
                    computed={t`as computed`}
                    onMark={(given) => void own.save({ id, mark: given, was: override })}
                  />
                ) : override === null ? (
                  t`as computed`
                ) : (
                  markLabel(override, scale)
                )}
                {given && <span className="given-mark"> {t`given as ${givenText(given)}`}</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  );
}
