/** What waits on this device under a key; where the browser keeps nothing, none does. */
export function keptList<T>(key: string): { readonly read: () => T[]; readonly write: (kept: readonly T[]) => void } {
  return {
    read: () => {
      try {
        return JSON.parse(localStorage.getItem(key) ?? '[]') as T[];
      } catch {
        return [];
      }
    },
    write: (kept) => {
      try {
        if (kept.length === 0) localStorage.removeItem(key);
        else localStorage.setItem(key, JSON.stringify(kept));
      } catch {
        // A browser that keeps nothing sends what it can while the page is open.
      }
    },
  };
}
