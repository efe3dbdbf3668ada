import { type ComponentType, type LazyExoticComponent, lazy } from 'react';

const AGAIN_MS = 5_000;

/**
 * A part of a view that comes after it, and that the view can do without: where the network fails it is asked for again
 * until it arrives, and the view stays.
 */
export function lazyAgain<Props>(
  load: () => Promise<{ readonly default: ComponentType<Props> }>,
): LazyExoticComponent<ComponentType<Props>> {
  return lazy(() => loadAgain(load));
}

/** @returns what it loads, asked for every so many milliseconds until it is there */
export async function loadAgain<Loaded>(load: () => Promise<Loaded>, ms = AGAIN_MS): Promise<Loaded> {
  for (;;) {
    try {
      return await load();
    } catch {
      await new Promise((resolve) => setTimeout(resolve, ms));
    }
  }
}
