import { t } from '../../../../core/words/say.ts';
import { format } from '../../../words/dates.ts';
import Button from 'react-bootstrap/Button';
import type { TakeDetail } from '../../../../contract/take.ts';
import { remove } from '../../../api/client.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { useSave } from '../../../api/useSave.ts';

/** The recording of a take, where the class keeps them: when it will be gone, and a way to be rid of it now. */
export function KeptRecording({ take }: { take: TakeDetail }) {
  const removal = useSave(() => remove(`/takes/${take.id}/recording`), '/takes');
  if (take.recordingUntil === null) return null;
  return (
    <p className="kept-recording no-print">
      {/* Claps have no words: what was clapped stands above as notes. */}
      {/* oxlint-disable-next-line jsx-a11y/media-has-caption */}
      <audio controls preload="none" src={`/api/takes/${take.id}/recording`} aria-label={t`The recording`} />
      {t`Kept until ${format(take.recordingUntil, 'd MMMM')}.`}{' '}
      <Button size="sm" variant="outline-dark" onClick={() => void removal.save()}>{t`Delete now`}</Button>
      {removal.problem && <Notice problem={removal.problem} />}
    </p>
  );
}
