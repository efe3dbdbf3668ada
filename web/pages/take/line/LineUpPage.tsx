import { useMemo } from 'react';
import { useParams } from 'react-router';
import useSWR from 'swr';
import type { LineUp } from '../../../../contract/lineUp.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import type { Teacher } from '../../../../contract/session.ts';
import { dealt } from '../../../../core/records/lineUp.ts';
import { useClass, useLineUps, usePatterns } from '../../../api/hooks.ts';
import { useRefresh } from '../../../api/useRefresh.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { LineEnd } from './LineEnd.tsx';
import { LineStrip } from './LineStrip.tsx';
import { TurnStage } from './TurnStage.tsx';
import { type ReadPattern, readPatterns } from './linePlan.ts';
import { useLine } from './useLine.ts';
import './line.scss';

/** Another device may hear children of the same line-up: so often this one looks. */
const LOOK_MS = 2_000;

/** A class heard child after child. */
export default function LineUpPage({ teacher }: { teacher: Teacher }) {
  const { classId = '', lineUpId = '' } = useParams();
  const room = useClass(classId);
  const patterns = usePatterns();
  const lineUps = useLineUps(classId);
  const refresh = useRefresh();
  useSWR(`look ${lineUpId}`, () => refresh(`/classes/${classId}/line-ups`), { refreshInterval: LOOK_MS });
  // Read once: another object would be another rhythm, and break off the take that runs.
  const read = useMemo(() => readPatterns(patterns.data ?? []), [patterns.data]);
  const problem = room.error ?? patterns.error ?? lineUps.error;
  if (!room.data || !patterns.data || !lineUps.data) return problem ? <Notice problem={problem} /> : null;
  const lineUp = lineUps.data.find(({ id }) => id === lineUpId);
  if (!lineUp) return <Notice problem={{ message: 'This line-up is not here any more. Start a new one.' }} />;
  return <Line teacher={teacher} schoolClass={room.data} lineUp={lineUp} patterns={read} />;
}

interface LineProps {
  readonly teacher: Teacher;
  readonly schoolClass: ClassDetail;
  readonly lineUp: LineUp;
  readonly patterns: readonly ReadPattern[];
}

function Line({ teacher, schoolClass, lineUp, patterns }: LineProps) {
  const line = useLine(schoolClass.id, lineUp, schoolClass.children);
  const { current, after } = line;
  const childOf = (childId: string | undefined) => schoolClass.children.find(({ id }) => id === childId);
  const child = childOf(current?.childId);
  const pattern = patterns.find(({ id }) => id === current?.patternId) ?? patterns[0];
  return (
    <div className="line">
      {line.problem && <Notice problem={line.problem} />}
      {current && child && pattern ? (
        <TurnStage
          key={`${child.id} ${pattern.id}`}
          teacher={teacher}
          schoolClass={schoolClass}
          lineUp={lineUp}
          child={child}
          nextChild={childOf(after?.childId)}
          pattern={pattern}
          onHeard={line.wasHeard}
          onTurn={(edit) => line.change(child.id, edit)}
          onHold={() => line.call(child.id)}
          onNext={line.goOn}
        />
      ) : (
        <LineEnd schoolClass={schoolClass} lineUp={lineUp} turns={line.turns} />
      )}
      <LineStrip
        schoolClass={schoolClass}
        turns={line.turns}
        current={current?.childId}
        onCall={line.call}
        onLate={(late) => line.change(late.id, { state: 'waiting', patternId: latePattern(lineUp, line.turns.length) })}
      />
    </div>
  );
}

/** Whoever comes late is dealt the next pattern: another one than the last in line has. */
function latePattern({ settings: { patternIds, seed } }: LineUp, position: number): string {
  return dealt(patternIds, position + 1, seed)[position]!;
}
