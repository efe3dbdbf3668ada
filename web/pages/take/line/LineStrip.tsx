import { perLanguage, t } from '../../../../core/words/say.ts';
import type { Child } from '../../../../contract/child.ts';
import type { Turn } from '../../../../contract/lineUp.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { markLabel, scaleOf } from '../../../../core/judging/scale.ts';

interface StripProps {
  readonly schoolClass: ClassDetail;
  readonly turns: readonly Turn[];
  readonly current: string | undefined;
  readonly onCall: (childId: string) => void;
  readonly onLate: (child: Child) => void;
}

const WORDS = perLanguage((): Readonly<Record<Turn['state'], string>> => ({
  waiting: t`waits`,
  heard: t`heard`,
  absent: t`absent`,
  skipped: t`later`,
}));

/** All in line, small: what became of each; a click calls one to the front. Who came late stands at the end. */
export function LineStrip({ schoolClass, turns, current, onCall, onLate }: StripProps) {
  const late = schoolClass.children.filter(({ id }) => !turns.some(({ childId }) => childId === id));
  const nameOf = (childId: string) => schoolClass.children.find(({ id }) => id === childId)?.name ?? '';
  return (
    <ol className="line-strip" aria-label={t`In line`}>
      {turns.map(({ childId, state, mark }) => (
        <li key={childId}>
          <button
            type="button"
            className={`in-line in-line-${state}`}
            aria-current={childId === current ? 'step' : undefined}
            title={state === 'waiting' ? t`Call now` : t`${WORDS()[state]}; call once more`}
            onClick={() => onCall(childId)}
          >
            {nameOf(childId)}{' '}
            <span>{state === 'heard' && mark !== null ? markLabel(mark, scaleOf(schoolClass)) : WORDS()[state]}</span>
          </button>
        </li>
      ))}
      {late.map((child) => (
        <li key={child.id}>
          <button type="button" className="in-line in-line-late" onClick={() => onLate(child)}>
            + {child.name}
          </button>
        </li>
      ))}
    </ol>
  );
}
