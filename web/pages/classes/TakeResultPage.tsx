import { format } from 'date-fns';
import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import { useClass, useRefresh, useTake } from '../../api/hooks.ts';
import { Notice } from '../../ui/Notice.tsx';
import { countsOf } from '../../../core/wording/voice.ts';
import { outlineOf } from '../../audio/outlines.ts';
import { ClapEditor } from './ClapEditor.tsx';
import { KeptRecording } from './KeptRecording.tsx';
import { OverrideForm } from './OverrideForm.tsx';
import { TakeResultView } from '../../take/TakeResultView.tsx';

/** A take of the past, as it was shown when it was played. */
export default function TakeResultPage() {
  const { classId, takeId } = useParams();
  const take = useTake(takeId);
  const room = useClass(classId);
  const refresh = useRefresh();
  const counts = useMemo(() => (room.data ? [countsOf(room.data)] : []), [room.data]);
  if (take.error ?? room.error) return <Notice problem={(take.error ?? room.error)!} />;
  if (!take.data || !room.data) return null;
  const child = room.data.children.find(({ id }) => id === take.data!.childId);
  const { title, takenAt, override, mark } = take.data;
  return (
    <>
      <div className="page-head">
        <h1>{child?.name ?? 'Take'}</h1>
        <span>
          {title}, {format(takenAt, 'd MMMM, HH:mm')}
          {override !== null &&
            ` · computed mark ${mark}, set to ${override}${take.data.overrideReason ? `: ${take.data.overrideReason}` : ''}`}
          {take.data.corrected && ' · claps corrected by hand'}
        </span>
        <span className="flex-grow-1" />
        <Link className="btn btn-outline-dark" to={`/classes/${classId}`}>
          Back to the class
        </Link>
      </div>
      <TakeResultView
        take={{ ...take.data, outline: outlineOf(takeId) }}
        counts={counts}
        mark={override ?? mark}
        borders={room.data.borders}
      />
      <ClapEditor key={take.data.onsets.join()} take={take.data} onChanged={() => refresh('/takes', '/classes')} />
      <KeptRecording take={take.data} onChanged={() => refresh('/takes')} />
      <OverrideForm
        key={`${override} ${take.data.overrideReason}`}
        take={take.data}
        onChanged={() => refresh('/takes', '/classes')}
      />
    </>
  );
}
