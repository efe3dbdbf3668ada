import type { Outline } from './listenMessages.ts';

/** Outlines of the sound of takes that were heard since the page was opened; sound itself is not kept here. */
const outlines = new Map<string, Outline>();
const MOST = 60;

export function keepOutline(takeId: string, outline: Outline): void {
  if (outlines.size >= MOST) outlines.delete(outlines.keys().next().value!);
  outlines.set(takeId, outline);
}

export function outlineOf(takeId: string | undefined): Outline | undefined {
  return takeId === undefined ? undefined : outlines.get(takeId);
}
