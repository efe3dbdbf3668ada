import { useEffect } from 'react';
import { storedThing } from '../store/stored.ts';

/** How the room is in which the screen is looked at: colours and contrasts follow. */
const ROOMS = ['usual', 'dark', 'bright'] as const;
export type Room = (typeof ROOMS)[number];

const ROOM = storedThing<Room>('room', (kept) => ROOMS.find((one) => one === kept) ?? 'usual');

/** The room, and a switch to the next; the whole page is coloured for it, on this device. */
export function useRoom(): { readonly room: Room; readonly next: () => void } {
  const [room, set] = ROOM.use();
  useEffect(() => {
    // The usual one is left to what the system asks for.
    if (room === 'usual') delete document.documentElement.dataset['room'];
    else document.documentElement.dataset['room'] = room;
  }, [room]);
  return { room, next: () => set(ROOMS[(ROOMS.indexOf(room) + 1) % ROOMS.length] ?? 'usual') };
}
