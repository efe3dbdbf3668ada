import { t } from '../../../../core/words/say.ts';
import { useMemo, useState } from 'react';
import { useParams } from 'react-router';
import type { LineUp } from '../../../../contract/lineUp.ts';
import type { SavedPattern } from '../../../../contract/pattern.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import type { Teacher } from '../../../../contract/session.ts';
import { scaleOf } from '../../../../core/judging/scale.ts';
import { dealt } from '../../../../core/records/lineUp.ts';
import { useClass, useLineUps, usePatterns } from '../../../api/hooks.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { Loading } from '../../../ui/Loading.tsx';
import { stopStray, useOwnMoves } from '../../../ui/ownMoves.ts';
import { LineEnd } from './LineEnd.tsx';
import { LineStrip } from './LineStrip.tsx';
import { StrayNote } from './StrayNote.tsx';
import { TurnClashes } from './TurnClashes.tsx';
import { TurnStage } from './TurnStage.tsx';
import { type ReadPattern, readPatterns } from './linePlan.ts';
import { useLine } from './useLine.ts';
import './line.scss';

/** A class heard child after child. */
export default function LineUpPage({ teacher }: { teacher: Teacher }) {
  const { classId = '', lineUpId = '' } = useParams();
  const room = useClass(classId);
  const patterns = usePatterns();
  const lineUps = useLineUps(classId);
  // Read once: another object would be another rhythm, and break off the take that runs.
  const lineUp = lineUps.data?.find(({ id }) => id === lineUpId);
  // By what stands in them: with every turn they arrive anew.
  const theirs = JSON.stringify(lineUp?.patterns ?? []);
  const read = useMemo(
    () => readPatterns(withTheirs(patterns.data ?? [], JSON.parse(theirs) as SavedPattern[])),
    [patterns.data, theirs],
  );
  const problem = room.error ?? patterns.error ?? lineUps.error;
  if (!room.data || !patterns.data || !lineUps.data) return <Loading title={t`Line-up`} problem={problem} />;
  if (!lineUp) return <Notice problem={{ message: t`This line-up is not here any more. Start a new one.` }} />;
  return <Line teacher={teacher} schoolClass={room.data} lineUp={lineUp} patterns={read} />;
}

/** A colleague may have started it with patterns of her own. */
function withTheirs(own: readonly SavedPattern[], theirs: readonly SavedPattern[]): SavedPattern[] {
  return [...own, ...theirs.filter(({ id }) => !own.some((one) => one.id === id))];
}

interface LineProps {
  readonly teacher: Teacher;
  readonly schoolClass: ClassDetail;
  readonly lineUp: LineUp;
  readonly patterns: readonly ReadPattern[];
}

function Line({ teacher, schoolClass, lineUp, patterns }: LineProps) {
  const line = useLine(teacher.id, schoolClass, lineUp);
  const { current, after } = line;
  const [byTaps, setByTaps] = useState(false);
  const childOf = (childId: string | undefined) => schoolClass.children.find(({ id }) => id === childId);
  const child = childOf(current?.childId);
  const pattern = patterns.find(({ id }) => id === current?.patternId) ?? patterns[0];
  const front = `${current?.childId} ${pattern?.id}`;
  useOwnMoves(front);
  const [seen, setSeen] = useState({ front, now: current?.childId, before: undefined as string | undefined });
  if (seen.front !== front) setSeen({ front, now: current?.childId, before: seen.now });
  const before = childOf(seen.before);
  return (
    <div className="line" onClickCapture={stopStray}>
      {line.problem && <Notice problem={line.problem} />}
      {current && child && pattern ? (
        <TurnStage
          key={`${child.id} ${pattern.id}`}
          teacher={teacher}
          schoolClass={schoolClass}
          lineUp={lineUp}
          child={child}
          nextChild={childOf(after?.childId)}
          nextTurn={after}
          pattern={pattern}
          turn={current}
          seenOf={line.seenOf}
          onHeard={line.wasHeard}
          onSlower={(slower) => line.slow(child.id, slower)}
          onTurn={(edit) => line.change(child.id, edit)}
          onHold={() => line.call(child.id)}
          onNext={line.goOn}
          byTaps={byTaps}
          onTaps={() => setByTaps(true)}
        />
      ) : (
        <LineEnd schoolClass={schoolClass} lineUp={lineUp} turns={line.turns} />
      )}
      <TurnClashes schoolClass={schoolClass} turns={line.turns} onSettle={line.change} />
      <StrayNote
        before={before}
        scale={scaleOf(schoolClass)}
        onMark={(mark) => before && line.change(before.id, { state: 'heard', mark })}
      />
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
