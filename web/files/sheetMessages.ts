import type { Sheet } from '../../core/sheets/sheet.ts';
import type { Voice } from '../../core/wording/voice.ts';

/** What the worker is asked for. */
export interface SheetRequest {
  readonly id: number;
  readonly sheet: Sheet;
  readonly voice: Voice;
  readonly className?: string | undefined;
  /** A copy for each; only the first of them are drawn where it is to be looked at. */
  readonly names: readonly string[];
  readonly drawn?: number;
}

/** Sheets printed together, in their order, with contents and the keys at the end. */
export interface BookletRequest {
  readonly id: number;
  readonly title: string;
  readonly about: string;
  readonly chapters: readonly { readonly when: string; readonly sheet: Sheet }[];
  readonly voice: Voice;
  readonly className: string;
}

/** A sheet as it will be printed. */
export interface SheetFile {
  readonly bytes: Uint8Array<ArrayBufferLike>;
  /** How many questions each part came to: there may be fewer different ones than were asked for. */
  readonly parts: readonly { readonly key: number; readonly questions: number }[];
  readonly points: number;
  /** How many pages are printed for all names. */
  readonly pages: number;
}

export type SheetAnswer =
  | ({ readonly ok: true; readonly id: number } & SheetFile)
  | { readonly ok: false; readonly id: number; readonly trouble: string };
