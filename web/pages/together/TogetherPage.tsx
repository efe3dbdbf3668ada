import { perLanguage, t } from '../../../core/words/say.ts';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { ClassRecords } from '../../../contract/records.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import type { Hearing } from '../../../contract/together.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import { useHearings } from '../../api/hearings.ts';
import { useClass, useRecords } from '../../api/hooks.ts';
import { Loading } from '../../ui/Loading.tsx';
import { ViewsChoice } from '../../ui/ViewsChoice.tsx';
import { FromRecording } from './FromRecording.tsx';
import { FromTakes } from './FromTakes.tsx';
import { WeekByWeek } from './WeekByWeek.tsx';
import './togetherPage.scss';

const VIEWS = perLanguage(
  () =>
    [
      ['weeks', t`Week by week`],
      ['takes', t`From single takes`],
      ['recording', t`From a recording`],
    ] as const,
);
type View = ReturnType<typeof VIEWS>[number][0];

/** How together a class claps: what was heard of it, week by week, and what its single takes make together. */
export default function TogetherPage() {
  const { classId = '' } = useParams();
  const room = useClass(classId);
  const records = useRecords(classId);
  const hearings = useHearings(classId);
  const problem = room.error ?? records.error ?? hearings.error;
  if (!room.data || !records.data || !hearings.data) return <Loading title={t`Together`} problem={problem} />;
  return <Together schoolClass={room.data} records={records.data} hearings={hearings.data} />;
}

interface TogetherProps {
  readonly schoolClass: ClassDetail;
  readonly records: ClassRecords;
  readonly hearings: readonly Hearing[];
}

function Together({ schoolClass, records, hearings }: TogetherProps) {
  const [view, setView] = useState<View>('weeks');
  const voice = useMemo(() => voiceOf(schoolClass), [schoolClass]);
  return (
    <>
      <div className="page-head">
        <h1>{t`Together`}</h1>
        <Link to={`/classes/${schoolClass.id}`}>{schoolClass.name}</Link>
      </div>
      <ViewsChoice name="together-view" views={VIEWS()} view={view} onView={setView} />
      {view === 'weeks' && <WeekByWeek schoolClass={schoolClass} hearings={hearings} voice={voice} />}
      {view === 'takes' && <FromTakes schoolClass={schoolClass} records={records} voice={voice} />}
      {view === 'recording' && <FromRecording schoolClass={schoolClass} voice={voice} />}
    </>
  );
}
