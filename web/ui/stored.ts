import { useCallback, useState } from 'react';

/** Reads a text kept on this device; undefined when there is none, or the browser keeps nothing. */
export function readStored(key: string): string | undefined {
  try {
    return localStorage.getItem(key) ?? undefined;
  } catch {
    return undefined;
  }
}

export function writeStored(key: string, value: string | undefined): void {
  try {
    if (value === undefined) localStorage.removeItem(key);
    else localStorage.setItem(key, value);
  } catch {
    // A browser that keeps nothing still works; it only forgets.
  }
}

/** A choice that this device remembers. */
export function useStored(key: string, usual: string): [string, (value: string) => void] {
  const [value, setValue] = useState(() => readStored(key) ?? usual);
  const set = useCallback(
    (next: string) => {
      writeStored(key, next);
      setValue(next);
    },
    [key],
  );
  return [value, set];
}
