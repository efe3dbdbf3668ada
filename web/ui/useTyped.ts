import { useState } from 'react';

/**
 * What is typed into a form before it is sent: kept in this tab, through a reload or a look elsewhere, and gone with
 * it. Only where it is not kept otherwise.
 * @param key  names the form and whose it is
 */
export function useTyped<T extends object>(
  key: string,
  begin: () => T,
): readonly [T, (change: Partial<T>) => void, () => void] {
  const [typed, setTyped] = useState<T>(() => ({ ...begin(), ...kept(key) }));
  const change = (some: Partial<T>) => {
    const next = { ...typed, ...some };
    setTyped(next);
    keep(key, JSON.stringify(next));
  };
  return [typed, change, () => keep(key, undefined)];
}

function kept(key: string): object {
  try {
    const value: unknown = JSON.parse(sessionStorage.getItem(key) ?? '{}');
    return typeof value === 'object' && value !== null ? value : {};
  } catch {
    return {};
  }
}

function keep(key: string, text: string | undefined): void {
  try {
    if (text === undefined) sessionStorage.removeItem(key);
    else sessionStorage.setItem(key, text);
  } catch {
    // A browser that keeps nothing still works.
  }
}
