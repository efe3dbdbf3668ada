import { useLayoutEffect } from 'react';
import { byPointer, watchFocus } from './focusedBy.ts';
import { isStray } from './ownMoves.ts';

watchFocus();

/** Handlers by `KeyboardEvent.key`, " " for the space bar. */
export type Keys = Readonly<Record<string, (event: KeyboardEvent) => void>>;

/** Fields into which something is typed. */
const TYPED_INTO =
  'input:not([type=radio], [type=checkbox], [type=button], [type=range], [type=color]), textarea, [contenteditable]';
/** What belongs to a field into which nothing but figures is typed: all else is the view's. */
const FIGURES = /^(\d|Backspace|Delete|Tab|Enter|Arrow.*|Home|End)$/;
const CHOSEN_FROM = 'input, select';
const PRESSED = 'button, a, summary, [role="button"]';

/**
 * Where keys belong to what has the focus: always to a field that is typed into, to any other control only where the
 * focus came to it by keyboard. Whoever clicked on “+” presses space for what the view says.
 */
function ownsKey(target: EventTarget | null, key: string): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target.closest('[role="dialog"]')) return true;
  if (target.closest('[data-figures]')) return FIGURES.test(key);
  if (target.closest(TYPED_INTO)) return true;
  if (byPointer(target)) return false;
  if (target.closest(CHOSEN_FROM)) return true;
  return (key === ' ' || key === 'Enter') && target.closest(PRESSED) !== null;
}

/** Letters by themselves, whether shift is held or not. */
export function nameOf({ key }: KeyboardEvent): string {
  return key.length === 1 ? key.toLowerCase() : key;
}

/** Some browsers press a button when the space bar comes up again, although the view has taken it. */
function keepsSilent(target: EventTarget | null): void {
  target?.addEventListener('keyup', (event) => event.preventDefault(), { once: true });
}

/**
 * Listens to keys for the whole view. A field with the focus keeps its keys, and so does a control that was
 * reached by keyboard; `always` takes a key even then. A held key counts once, and one that came just after the view
 * moved on by itself does not.
 */
export function useKeys(keys: Keys, always: readonly string[] = []): void {
  // Before anything is drawn: a key that is pressed at once must not reach the view that stood here before.
  useLayoutEffect(() => {
    const press = (event: KeyboardEvent) => {
      const key = nameOf(event);
      const handler = keys[key];
      if (!handler || event.ctrlKey || event.metaKey || event.altKey) return;
      if (!always.includes(key) && ownsKey(event.target, key)) return;
      event.preventDefault();
      if (key === ' ') keepsSilent(event.target);
      if (event.repeat || (!always.includes(key) && isStray(event))) return;
      handler(event);
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  });
}
