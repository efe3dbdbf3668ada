import { vi } from 'vitest';

/** A browser that keeps what it is given, with nothing in it. */
export function keepingBrowser(): void {
  const box = new Map<string, string>();
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => box.get(key) ?? null,
    setItem: (key: string, value: string) => void box.set(key, value),
    removeItem: (key: string) => void box.delete(key),
  });
}
