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

/** A press is being dealt with: all that is drawn now comes of it, however slow the machine is. */
let isHandling = false;

function handIsOn(): void {
  isHandling = true;
  handAt = performance.now();
  // What is drawn for a press is drawn before anything else has its turn.
  setTimeout(() => {
    isHandling = false;
    if (handAt > -Infinity) handAt = performance.now();
  }, 0);
}

const isLate = (event: Event) => event.timeStamp < movedAt + STRAY_MS;

// Whatever is pressed, wherever: what shows after it did not come by itself.
if (typeof window !== 'undefined')
  window.addEventListener(
    'click',
    (event) => {
      if (!isLate(event)) handIsOn();
    },
    true,
  );

/** Was it meant for what stood here before the view moved on by itself? Then it is told to whoever shows it. */
export function isStray(event: Event): boolean {
  if (!isLate(event)) {
    handIsOn();
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
    const isOwn = !isHandling && performance.now() - handAt > SHOWS_MS;
    movedAt = isOwn ? performance.now() : -Infinity;
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
