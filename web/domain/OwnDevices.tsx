import { t } from '../../core/words/say.ts';
import { TabletSmartphone } from 'lucide-react';
import { Link } from 'react-router';
import { mayHear, useHearingClass } from './currentClass.ts';

/** What a class does at its own devices. */
export type AtDevices = 'take' | 'echo' | 'choose' | 'write' | 'signs' | 'values';

interface Wanted {
  readonly doing?: AtDevices;
  readonly pattern?: string | undefined;
  readonly bpm?: number | undefined;
}

/** The room of a class, set up for one thing. */
export function ownDevicesPath(classId: string, { doing, pattern, bpm }: Wanted = {}): string {
  const search = new URLSearchParams({
    ...(doing ? { do: doing } : {}),
    ...(pattern ? { pattern } : {}),
    ...(bpm === undefined ? {} : { bpm: String(bpm) }),
  });
  return `/room/${classId}${search.size > 0 ? `?${search.toString()}` : ''}`;
}

/** The way into the room of the class that this device works with, from where one child or one board does something. */
export function OwnDevices({ small = true, ...wanted }: Wanted & { readonly small?: boolean }) {
  const room = useHearingClass();
  if (!room || !mayHear(room)) return null;
  return (
    <Link className={`btn btn-outline-dark ${small ? 'btn-sm' : ''}`} to={ownDevicesPath(room.id, wanted)}>
      <TabletSmartphone size={16} aria-hidden /> {t`Own devices`}
    </Link>
  );
}
