import { t } from '../../../../core/words/say.ts';
import { useEffect } from 'react';
import Button from 'react-bootstrap/Button';
import ProgressBar from 'react-bootstrap/ProgressBar';
import { useSWRConfig } from 'swr';
import fitsRejudging from 'virtual:fits/rejudging';
import type { RejudgingState } from '../../../../contract/judging.ts';
import { remove } from '../../../api/client.ts';
import { useGet } from '../../../api/useGet.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { useSave } from '../../../api/useSave.ts';

const LOOK_MS = 1_000;

interface RejudgingLineProps {
  readonly classId: string;
  /** Whoever looks may break it off. */
  readonly cancels: boolean;
}

/** How far the marks are that are being worked out anew; nothing when they are done. */
export function RejudgingLine({ classId, cancels }: RejudgingLineProps) {
  const { mutate } = useSWRConfig();
  const path = `/classes/${classId}/rejudging`;
  const { data } = useGet<RejudgingState>(path, fitsRejudging, {
    refreshInterval: (state) => (state?.running ? LOOK_MS : 0),
  });
  const breakOff = useSave(() => remove(path), '/classes', '/takes');
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
      {t`The marks are worked out anew: ${data.done} of ${data.total} takes.`}
      <ProgressBar now={data.done} max={Math.max(1, data.total)} aria-label={t`Takes judged anew`} />
      {cancels && data.cancels && (
        <Button size="sm" variant="outline-dark" disabled={breakOff.saving} onClick={() => void breakOff.save()}>
          {t`Break off, and judge as before`}
        </Button>
      )}
      {breakOff.problem && <Notice problem={breakOff.problem} />}
    </div>
  );
}
