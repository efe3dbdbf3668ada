import { useLayoutEffect, useRef, useSyncExternalStore } from 'react';

/** A hand that has set out cannot turn back: what is pressed so soon after the view moved on was meant before; ms. */
export const STRAY_MS = 800;
/** What a key or a press does shows within so many milliseconds; what shows later came by itself. */
const SHOWS_MS = 150;

let movedAt = -Infinity;
let handAt = -Infinity;
let stray: string | undefined;
const listeners = new Set<() => void>();

function tell(next: string | undefined): void {
  stray = next;
  for (const listener of listeners) listener();
}

const isLate = (event: Event) => event.timeStamp < movedAt + STRAY_MS;

// Whatever is pressed, wherever: what shows after it did not come by itself.
if (typeof window !== 'undefined')
  window.addEventListener('click', (event) => (handAt = isLate(event) ? handAt : performance.now()), true);

/** Was it meant for what stood here before the view moved on by itself? Then it is told to whoever shows it. */
export function isStray(event: Event): boolean {
  if (!isLate(event)) {
    handAt = performance.now();
    return false;
  }
  tell(event instanceof KeyboardEvent ? event.key : '');
  return true;
}

/** For the frame around what moves on by itself: a press that came too soon after goes nowhere. */
export function stopStray(event: {
  readonly nativeEvent: Event;
  stopPropagation(): void;
  preventDefault(): void;
}): void {
  if (!isStray(event.nativeEvent)) return;
  event.stopPropagation();
  event.preventDefault();
}

/**
 * Notices when what stands in front becomes something else although nobody pressed anything: keys and presses of the
 * next moment do nothing then.
 * @param what  names what stands there
 */
export function useOwnMoves(what: string): void {
  const seen = useRef(what);
  useLayoutEffect(() => {
    if (seen.current === what) return;
    seen.current = what;
    movedAt = performance.now() - handAt > SHOWS_MS ? performance.now() : -Infinity;
    handAt = -Infinity;
    tell(undefined);
  }, [what]);
}

/** The key that was not taken since the view moved on, empty for a press; undefined where there was none. */
export function useStray(): string | undefined {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => stray,
  );
}
