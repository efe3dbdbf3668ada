import { t } from '../../core/words/say.ts';
import { format } from '../words/dates.ts';
import { CloudOff } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { useAwaySince, useInstalled } from './useDevice.ts';

/** Says that there is no network, and that there is a newer version; nothing when all is as it should be. */
export default function DeviceNote({ teacherId }: { readonly teacherId: string }) {
  const newer = useInstalled(teacherId);
  const since = useAwaySince();
  return (
    <>
      <span
        role="status"
        className="device-note"
        title={since === undefined ? undefined : t`What is shown is as it was at ${format(since, 'HH:mm')}`}
      >
        {since !== undefined && (
          <>
            <CloudOff size={16} aria-hidden /> <span>{t`No network`}</span>
            <span className="visually-hidden"> {t`since ${format(since, 'HH:mm')}`}</span>
          </>
        )}
      </span>
      {newer && <Button variant="outline-dark" size="sm" onClick={newer}>{t`Newer version: load it`}</Button>}
    </>
  );
}
