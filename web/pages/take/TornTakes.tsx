import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { format } from '../../words/dates.ts';
import { useState } from 'react';
import Alert from 'react-bootstrap/Alert';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { type Scale, markLabel } from '../../../core/judging/scale.ts';
import type { TornTake } from '../../store/keptTakes.ts';

interface TornTakesProps {
  readonly classId: string;
  readonly scale: Scale;
  readonly torn: readonly TornTake[];
  /** @returns the mark */
  readonly onJudge: (take: TornTake) => number | undefined;
  readonly onDrop: (id: string) => void;
}

/** Takes that were broken off: judged as they are, or thrown away. */
export function TornTakes({ classId, scale, torn, onJudge, onDrop }: TornTakesProps) {
  const [judged, setJudged] = useState<string>();
  const judge = (take: TornTake) => {
    const mark = onJudge(take);
    if (mark !== undefined) setJudged(t`${take.childName}, ${take.title}: mark ${markLabel(mark, scale)}.`);
  };
  return (
    <div role="status">
      {torn.map((take) => (
        <Alert key={take.id} variant="warning" className="notice">
          <span>
            {rich`${<strong>{take.childName}</strong>}, ${take.title}: broken off at
              ${format(take.startedAt, 'HH:mm')} after
              ${take.taken.onsets.length === 1 ? t`1 clap` : t`${take.taken.onsets.length} claps`}.`}
          </span>
          <span className="notice-actions">
            <Button variant="outline-dark" size="sm" onClick={() => judge(take)}>{t`Judge it`}</Button>
            <Button variant="outline-dark" size="sm" onClick={() => onDrop(take.id)}>{t`Throw it away`}</Button>
          </span>
        </Alert>
      ))}
      {judged !== undefined && (
        <p>
          {judged} <Link to={`/classes/${classId}`}>{t`To the class`}</Link>
        </p>
      )}
    </div>
  );
}
