import type { PatternEdit } from '../../contract/pattern.ts';
import { put } from '../api/client.ts';
import { useSave } from '../api/useSave.ts';

/** Stores new patterns, each under its id; sent again they are there once. */
export function useKeepPatterns() {
  return useSave(async (edits: readonly (readonly [id: string, edit: PatternEdit])[]) => {
    for (const [id, edit] of edits) await put(`/patterns/${id}`, edit);
  }, '/patterns');
}

/** Where a class is heard on some patterns that are dealt out. */
export function lineUpOn(classId: string, patternIds: readonly string[]): string {
  return `/take/line-up?class=${classId}&patterns=${patternIds.join(',')}`;
}
