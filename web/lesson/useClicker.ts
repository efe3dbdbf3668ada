import { useEffect } from 'react';
import { nameOf } from '../ui/useKeys.ts';
import { useLatest } from '../ui/useLatest.ts';

/** Fields keep their keys. */
const FIELD = 'input, textarea, select, [contenteditable], [role="dialog"]';

interface Clicker {
  readonly next: () => void;
  readonly back: () => void;
  /** Makes the screen dark, or light again. */
  readonly blank: () => void;
  readonly start: () => void;
}

/**
 * A presenter in the hand sends PageDown and PageUp, B for a dark screen and F5 to begin. What the view itself does
 * with such a key goes first: in Lead PageDown is the next pass, until the last one.
 */
export function useClicker(clicker: Clicker): void {
  const latest = useLatest((key: string) => {
    if (key === 'PageDown') clicker.next();
    else if (key === 'PageUp') clicker.back();
    else if (key === 'F5') clicker.start();
    else clicker.blank();
  });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const key = nameOf(event);
      if (!['PageDown', 'PageUp', 'F5', 'b'].includes(key)) return;
      if (event.ctrlKey || event.metaKey || event.altKey || event.shiftKey || event.repeat) return;
      if (event.target instanceof Element && event.target.closest(FIELD)) return;
      // The browser would reload the lesson away.
      if (key === 'F5') event.preventDefault();
      // Whoever else listens has its turn before.
      setTimeout(() => {
        if (key === 'F5' || !event.defaultPrevented) latest(key);
      });
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  }, [latest]);
}
