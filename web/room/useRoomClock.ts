import { useEffect, useState } from 'react';
import { type RoomClock, followClock } from './roomClock.ts';

/** The room's clock, followed as long as the page is in the room; undefined until it is known well enough. */
export function useRoomClock(): RoomClock | undefined {
  const [clock, setClock] = useState<RoomClock>();
  useEffect(() => {
    const own = followClock(() => setClock(own));
    return own.stop;
  }, []);
  return clock;
}
