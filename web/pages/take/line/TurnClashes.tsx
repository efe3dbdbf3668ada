import { t } from '../../../../core/words/say.ts';
import { rich } from '../../../ui/rich.tsx';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import type { Turn, TurnEdit } from '../../../../contract/lineUp.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { type Scale, markLabel, scaleOf } from '../../../../core/judging/scale.ts';
import type { Said } from '../../../../core/records/turns.ts';

interface TurnClashesProps {
  readonly schoolClass: ClassDetail;
  readonly turns: readonly Turn[];
  readonly onSettle: (childId: string, edit: TurnEdit) => void;
}

/** Two who had not seen each other said two things of one child: which one is so. */
export function TurnClashes({ schoolClass, turns, onSettle }: TurnClashesProps) {
  const scale = scaleOf(schoolClass);
  return turns.flatMap(({ childId, clash, takeId, ...turn }) => {
    const child = schoolClass.children.find(({ id }) => id === childId);
    if (!child || !clash) return [];
    const settle = (said: Said) => onSettle(childId, { ...said, settles: true });
    const isAbsence = takeId !== null && clash.state === 'absent';
    return [
      <section
        key={childId}
        className="alert alert-warning turn-clash"
        role="alert"
        aria-label={t`Two say otherwise of ${child.name}`}
      >
        <p>
          {rich`${<strong>{child.name}</strong>}: ${wordsOf(turn, scale)}; on another device,
            at the same time, ${wordsOf(clash, scale)}. Which is so?`}
        </p>
        <div className="notice-actions">
          <Button size="sm" onClick={() => settle({ state: turn.state, mark: turn.mark })}>
            {labelOf(turn, scale)}
          </Button>
          {isAbsence ? (
            <Link className="btn btn-sm btn-outline-dark" to={`/classes/${schoolClass.id}/takes/${takeId}`}>
              {t`Absent: look at the take, and remove it`}
            </Link>
          ) : (
            <Button size="sm" variant="outline-dark" onClick={() => settle(clash)}>
              {labelOf(clash, scale)}
            </Button>
          )}
        </div>
      </section>,
    ];
  });
}

const labelOf = ({ state, mark }: Said, scale: Scale) =>
  state === 'absent' ? t`Absent` : mark === null ? t`Heard` : t`Mark ${markLabel(mark, scale)}`;
const wordsOf = ({ state, mark }: Said, scale: Scale) =>
  state === 'absent' ? t`marked absent` : mark === null ? t`heard` : t`heard, mark ${markLabel(mark, scale)}`;
