import { format } from 'date-fns';
import Button from 'react-bootstrap/Button';
import type { TakeDetail } from '../../../contract/take.ts';
import { remove } from '../../api/client.ts';

/** The recording of a take, where the class keeps them: when it will be gone, and a way to be rid of it now. */
export function KeptRecording({ take, onChanged }: { take: TakeDetail; onChanged: () => Promise<unknown> }) {
  if (take.recordingUntil === null) return null;
  const drop = async () => {
    await remove(`/takes/${take.id}/recording`).catch(() => undefined);
    await onChanged();
  };
  return (
    <p className="kept-recording no-print">
      <audio controls preload="none" src={`/api/takes/${take.id}/recording`} aria-label="The recording" />
      Kept until {format(take.recordingUntil, 'd MMMM')}.{' '}
      <Button size="sm" variant="outline-dark" onClick={() => void drop()}>
        Delete now
      </Button>
    </p>
  );
}
