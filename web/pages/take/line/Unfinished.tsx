import { format } from 'date-fns';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import type { LineUp } from '../../../../contract/lineUp.ts';
import { remove } from '../../../api/client.ts';
import { useSave } from '../../../api/useSave.ts';
import './line.scss';

/** Somebody still waits. */
export const isOpen = ({ turns }: LineUp) => turns.some(({ state }) => state === 'waiting' || state === 'skipped');

/** Line-ups in which somebody still waits: they go on where they were, on any device. */
export function Unfinished({ classId, lineUps }: { classId: string; lineUps: readonly LineUp[] }) {
  const dropping = useSave((id: string) => remove(`/classes/${classId}/line-ups/${id}`), '/classes', '/bin');
  const open = lineUps.filter(isOpen);
  if (open.length === 0) return null;
  return (
    <ul className="unfinished" aria-label="Not finished">
      {open.map((lineUp) => {
        const { id, title } = lineUp;
        return (
          <li key={id}>
            <span>
              <strong>{title}</strong>, {progressOf(lineUp)}
            </span>
            <Link className="btn btn-sm btn-primary" to={`/take/line-up/${classId}/${id}`}>
              Go on
            </Link>
            <Button size="sm" variant="link" aria-label={`Leave it: ${title}`} onClick={() => void dropping.save(id)}>
              Leave it
            </Button>
          </li>
        );
      })}
    </ul>
  );
}

/** Where single children are heard: the newest line-up that is not finished, by name. */
export function UnfinishedLine({ classId, lineUps }: { classId: string; lineUps: readonly LineUp[] }) {
  const [newest, ...others] = lineUps.filter(isOpen);
  if (!newest) return null;
  return (
    <p className="unfinished-line">
      <span>
        A line-up is not finished: <strong>{newest.title}</strong>, {progressOf(newest)}.
      </span>
      <Link className="btn btn-sm btn-outline-dark" to={`/take/line-up/${classId}/${newest.id}`}>
        Go on
      </Link>
      {others.length > 0 && <Link to="/take/line-up">{others.length} more of them</Link>}
    </p>
  );
}

function progressOf({ startedAt, turns }: LineUp): string {
  const heard = turns.filter(({ state }) => state === 'heard').length;
  return `${format(startedAt, 'd MMM')}: ${heard} of ${turns.length} heard`;
}
