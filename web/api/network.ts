/** Whether the server could be reached when it was asked last; and since when it cannot be. */
let awaySince: number | undefined;
const listeners = new Set<() => void>();

export function isAway(): boolean {
  return awaySince !== undefined;
}

/** Milliseconds since 1970; undefined while it answers. */
export const whenGone = (): number | undefined => awaySince;

export function onNetwork(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Every request says how it went. */
export function answered(reached: boolean): void {
  if (reached === !isAway()) return;
  awaySince = reached ? undefined : Date.now();
  for (const listener of listeners) listener();
}

/** Whether the app is on this device, so that it opens and works without a network. */
export function isInstalled(): boolean {
  return Boolean(globalThis.navigator?.serviceWorker?.controller);
}
