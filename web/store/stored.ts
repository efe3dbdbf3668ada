import { useCallback, useSyncExternalStore } from 'react';

/** What this device remembers: local storage, read once and then kept here. Every reader sees the same. */
const cache = new Map<string, string | undefined>();
const listeners = new Map<string, Set<() => void>>();

function fromDevice(key: string): string | undefined {
  try {
    return localStorage.getItem(key) ?? undefined;
  } catch {
    return undefined;
  }
}

function toDevice(key: string, value: string | undefined): void {
  try {
    if (value === undefined) localStorage.removeItem(key);
    else localStorage.setItem(key, value);
  } catch {
    // A browser that keeps nothing still works; it only forgets when the page is closed.
  }
}

function tell(key: string): void {
  for (const listener of listeners.get(key) ?? []) listener();
}

/** Reads a text kept on this device; undefined when there is none. */
export function readStored(key: string): string | undefined {
  if (!cache.has(key)) cache.set(key, fromDevice(key));
  return cache.get(key);
}

export function writeStored(key: string, value: string | undefined): void {
  cache.set(key, value);
  toDevice(key, value);
  tell(key);
}

// Another tab of the same browser writes too.
globalThis.addEventListener?.('storage', ({ key }: StorageEvent) => {
  if (key === null) {
    cache.clear();
    for (const one of listeners.keys()) tell(one);
    return;
  }
  cache.delete(key);
  tell(key);
});

function subscribe(key: string, listener: () => void): () => void {
  const here = listeners.get(key) ?? new Set();
  listeners.set(key, here.add(listener));
  return () => here.delete(listener);
}

/** A choice that this device remembers; the same in every part of the page that asks for it. */
export function useStored(key: string, usual: string): [string, (value: string) => void] {
  const value = useSyncExternalStore(
    useCallback((listener: () => void) => subscribe(key, listener), [key]),
    () => readStored(key) ?? usual,
  );
  const set = useCallback((next: string) => writeStored(key, next), [key]);
  return [value, set];
}

/** Something this device remembers as JSON: one object until it changes, read once. */
export interface StoredThing<T> {
  readonly read: () => T;
  readonly write: (value: T | undefined) => void;
  /** For components. */
  readonly use: () => [T, (value: T | undefined) => void];
}

/** @param from  makes sense of what was kept, or of nothing; what it throws counts as nothing */
export function storedThing<T>(key: string, from: (kept: unknown) => T): StoredThing<T> {
  let known: { readonly text: string | undefined; readonly value: T } | undefined;
  const read = (): T => {
    const text = readStored(key);
    if (!known || known.text !== text) known = { text, value: understood(text, from) };
    return known.value;
  };
  const write = (value: T | undefined) => writeStored(key, value === undefined ? undefined : JSON.stringify(value));
  const listen = (listener: () => void) => subscribe(key, listener);
  return { read, write, use: () => [useSyncExternalStore(listen, read), write] };
}

function understood<T>(text: string | undefined, from: (kept: unknown) => T): T {
  try {
    return from(text === undefined ? undefined : JSON.parse(text));
  } catch {
    return from(undefined);
  }
}
