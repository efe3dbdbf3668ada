import { useEffect } from 'react';
import ProgressBar from 'react-bootstrap/ProgressBar';
import { useSWRConfig } from 'swr';
import fitsRejudging from 'virtual:fits/rejudging';
import type { RejudgingState } from '../../../contract/judging.ts';
import { useGet } from '../../api/useGet.ts';

const LOOK_MS = 1_000;

/** How far the marks are that are being worked out anew; nothing when they are done. */
export function RejudgingLine({ classId }: { classId: string }) {
  const { mutate } = useSWRConfig();
  const { data } = useGet<RejudgingState>(`/classes/${classId}/rejudging`, fitsRejudging, {
    refreshInterval: (state) => (state?.running ? LOOK_MS : 0),
  });
  const done = data?.running ? data.done : undefined;
  useEffect(() => {
    if (done === undefined) return undefined;
    // Those on the page are of before; when all are done, once more.
    const look = () => void mutate(`/classes/${classId}/records`);
    look();
    return look;
  }, [done, classId, mutate]);
  if (!data?.running) return <div role="status" />;
  return (
    <div role="status" className="rejudging">
      The marks are worked out anew: {data.done} of {data.total} takes.
      <ProgressBar now={data.done} max={Math.max(1, data.total)} aria-label="Takes judged anew" />
    </div>
  );
}
