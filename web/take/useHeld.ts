import { useState } from 'react';

/** Taps that come after the end must settle or skip nothing: keys work only so long after it is shown; milliseconds. */
const HOLD_MS = 900;

/** @returns makes of an action what a key does, once what it is for has been in view for a moment */
export function useHeld() {
  const [from] = useState(() => performance.now() + HOLD_MS);
  return (action: (event: KeyboardEvent) => void) => (event: KeyboardEvent) => {
    if (event.timeStamp > from) action(event);
  };
}
