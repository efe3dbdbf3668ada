import { format } from 'date-fns';
import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import type { TakeDetail } from '../../../contract/take.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import { useClass, useTake } from '../../api/hooks.ts';
import { outlineOf } from '../../audio/outlines.ts';
import { TakeResultView } from '../../take/TakeResultView.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { markOfTake } from '../../ui/markOfTake.ts';
import { ClapEditor } from './ClapEditor.tsx';
import { KeptRecording } from './KeptRecording.tsx';
import { OverrideForm } from './OverrideForm.tsx';

/** A take of the past, as it was shown when it was played. */
export default function TakeResultPage() {
  const { classId, takeId } = useParams();
  const { data: take, error: takeError } = useTake(takeId);
  const { data: schoolClass, error: classError } = useClass(classId);
  const voice = useMemo(() => voiceOf(schoolClass), [schoolClass]);
  const shown = useMemo(() => take && { ...take, outline: outlineOf(takeId) }, [take, takeId]);
  const problem = takeError ?? classError;
  if (problem) return <Notice problem={problem} />;
  if (!take || !shown || !schoolClass) return null;
  const child = schoolClass.children.find(({ id }) => id === take.childId);
  return (
    <>
      <div className="page-head">
        <h1>{child?.name ?? 'Take'}</h1>
        <span>{subtitle(take)}</span>
        <span className="flex-grow-1" />
        <Link className="btn btn-outline-dark" to={`/classes/${classId}`}>
          Back to the class
        </Link>
      </div>
      <TakeResultView take={shown} voice={voice} mark={markOfTake(take)} borders={schoolClass.borders} />
      <ClapEditor key={take.onsets.join()} take={take} />
      <KeptRecording take={take} />
      <OverrideForm key={`${take.override} ${take.overrideReason}`} take={take} />
    </>
  );
}

function subtitle({ title, takenAt, mark, override, overrideReason, corrected }: TakeDetail): string {
  const reason = overrideReason ? `: ${overrideReason}` : '';
  const own = override === null ? '' : ` · computed mark ${mark}, set to ${override}${reason}`;
  return `${title}, ${format(takenAt, 'd MMMM, HH:mm')}${own}${corrected ? ' · claps corrected by hand' : ''}`;
}
