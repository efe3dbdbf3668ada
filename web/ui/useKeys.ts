import { useLayoutEffect } from 'react';

/** Handlers by `KeyboardEvent.key`, " " for the space bar. */
export type Keys = Readonly<Record<string, (event: KeyboardEvent) => void>>;

/** Where keys belong to the field or button that has the focus. */
function ownsKey(target: EventTarget | null, key: string): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target.closest('input, textarea, select, [contenteditable], [role="dialog"]')) return true;
  return (key === ' ' || key === 'Enter') && target.closest('button, a, summary, [role="button"]') !== null;
}

/** Letters by themselves, whether shift is held or not. */
export function nameOf({ key }: KeyboardEvent): string {
  return key.length === 1 ? key.toLowerCase() : key;
}

/**
 * Listens to keys for the whole view. A field with the focus keeps its keys, and so does a button its space and enter;
 * `always` takes a key even then. A held key counts once.
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
      if (!event.repeat) handler(event);
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  });
}
