import { counted, t } from '../../../../core/words/say.ts';
import { Link } from 'react-router';
import type { LineUp, Turn } from '../../../../contract/lineUp.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { meanLabel, scaleOf } from '../../../../core/judging/scale.ts';

interface EndProps {
  readonly schoolClass: ClassDetail;
  readonly lineUp: LineUp;
  readonly turns: readonly Turn[];
}

/** Everybody who is here was heard. */
export function LineEnd({ schoolClass, lineUp, turns }: EndProps) {
  const marks = turns.flatMap(({ state, mark }) => (state === 'heard' && mark !== null ? [mark] : []));
  const absent = turns.filter(({ state }) => state === 'absent');
  const mean =
    marks.length > 0 ? meanLabel(marks.reduce((a, b) => a + b) / marks.length, scaleOf(schoolClass), 1) : undefined;
  const nameOf = (childId: string) => schoolClass.children.find(({ id }) => id === childId)?.name ?? '';
  return (
    <div className="line-end" role="status">
      <h1>{t`${lineUp.title}: all heard`}</h1>
      <p>
        {t`${counted(marks.length, 'child', 'children')} heard`}
        {mean !== undefined && t`, ${mean} on average`}.
      </p>
      {absent.length > 0 && (
        <p>{t`Absent: ${absent.map(({ childId }) => nameOf(childId)).join(', ')}. Call them
            below, today or another day: this line-up stays.`}</p>
      )}
      <Link className="btn btn-primary btn-lg" to={`/classes/${schoolClass.id}`}>
        {t`To the marks of ${schoolClass.name}`}
      </Link>
    </div>
  );
}
