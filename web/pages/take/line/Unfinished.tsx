import { t } from '../../../../core/words/say.ts';
import { rich } from '../../../ui/rich.tsx';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import type { LineUp } from '../../../../contract/lineUp.ts';
import { remove } from '../../../api/client.ts';
import { useSave } from '../../../api/useSave.ts';
import { isOpen, progressOf } from '../../../domain/openLineUps.ts';
import './line.scss';

/** Line-ups in which somebody still waits: they go on where they were, on any device. */
export function Unfinished({ classId, lineUps }: { classId: string; lineUps: readonly LineUp[] }) {
  const dropping = useSave((id: string) => remove(`/classes/${classId}/line-ups/${id}`), '/classes', '/bin');
  const open = lineUps.filter(isOpen);
  if (open.length === 0) return null;
  return (
    <ul className="unfinished" aria-label={t`Not finished`}>
      {open.map((lineUp) => {
        const { id, title } = lineUp;
        return (
          <li key={id}>
            <span>
              <strong>{title}</strong>, {progressOf(lineUp)}
            </span>
            <Link className="btn btn-sm btn-primary" to={`/take/line-up/${classId}/${id}`}>{t`Go on`}</Link>
            <Button size="sm" variant="link" aria-label={t`Leave it: ${title}`} onClick={() => void dropping.save(id)}>
              {t`Leave it`}
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
      <span>{rich`A line-up is not finished: ${<strong>{newest.title}</strong>}, ${progressOf(newest)}.`}</span>
      <Link className="btn btn-sm btn-outline-dark" to={`/take/line-up/${classId}/${newest.id}`}>{t`Go on`}</Link>
      {others.length > 0 && <Link to="/take/line-up">{t`${others.length} more of them`}</Link>}
    </p>
  );
}
