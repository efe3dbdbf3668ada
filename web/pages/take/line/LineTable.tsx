import { t } from '../../../../core/words/say.ts';
import Form from 'react-bootstrap/Form';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { clockText } from '../../../../core/wording/leadWords.ts';
import type { PlannedTurn } from './linePlan.ts';

interface LineTableProps {
  readonly schoolClass: ClassDetail;
  readonly turns: readonly PlannedTurn[];
  readonly away: ReadonlySet<string>;
  readonly heard: ReadonlySet<string>;
  readonly onAway: (away: ReadonlySet<string>) => void;
}

/** Child by child: who comes when, on what; who is unticked is not called. */
export function LineTable({ schoolClass, turns, away, heard, onAway }: LineTableProps) {
  const absent = schoolClass.children.filter(({ id }) => away.has(id));
  const set = (id: string, isHere: boolean) => {
    const next = new Set(away);
    if (isHere) next.delete(id);
    else next.add(id);
    onAway(next);
  };
  return (
    <>
      <div className="line-choose">
        <button type="button" onClick={() => onAway(new Set())}>{t`All`}</button>
        <button type="button" onClick={() => onAway(new Set(schoolClass.children.map(({ id }) => id)))}>
          {t`None`}
        </button>
        <button type="button" onClick={() => onAway(heard)} disabled={heard.size === 0}>
          {t`Only those who have not yet`}
        </button>
      </div>
      <ol className="line-table">
        {turns.map(({ child, pattern, bpm, from }) => (
          <li key={child.id}>
            <Form.Check
              type="checkbox"
              id={`here-${child.id}`}
              label={child.name}
              checked
              onChange={() => set(child.id, false)}
            />
            <span>
              {pattern.title} · {bpm}
            </span>
            <span className="line-from">{clockText(from)}</span>
          </li>
        ))}
      </ol>
      {absent.length > 0 && (
        <ul className="line-table line-absent" aria-label={t`Not called`}>
          {absent.map(({ id, name }) => (
            <li key={id}>
              <Form.Check
                type="checkbox"
                id={`here-${id}`}
                label={name}
                checked={false}
                onChange={() => set(id, true)}
              />
              <span>{t`not called`}</span>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
