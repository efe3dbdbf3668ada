import type { SheetEdit } from '../../../contract/sheet.ts';
import { storedThing } from '../../store/stored.ts';

/** The sheet that was last worked on, as this device remembers it: a reload loses nothing. */
interface LastSheet {
  /** Of a kept sheet; undefined for one that is not kept. */
  readonly id?: string;
  readonly sheet: SheetEdit;
  /** What the kept sheet was when it was begun to be changed. */
  readonly was?: SheetEdit;
}

function isLast(kept: unknown): kept is LastSheet {
  const sheet = (kept as LastSheet | undefined)?.sheet;
  return typeof sheet?.title === 'string' && Array.isArray(sheet.parts) && sheet.parts.length > 0;
}

const LAST = storedThing<LastSheet | undefined>('sheets.last', (kept) => (isLast(kept) ? kept : undefined));

/** What was being changed of this sheet; undefined when something else was. */
export function lastDraft(id: string | undefined): LastSheet | undefined {
  const last = LAST.read();
  return last && last.id === id ? last : undefined;
}

/** @param was  what a kept sheet was when it was begun to be changed */
export function keepDraft(id: string | undefined, sheet: SheetEdit, was?: SheetEdit): void {
  LAST.write({ ...(id === undefined ? {} : { id }), sheet, ...(was ? { was } : {}) });
}

export function forgetDraft(): void {
  LAST.write(undefined);
}
