import type { OutId } from '../../core/formats/formatFacts.ts';
import type { NamedPattern, WriteOptions } from '../../core/formats/formats.ts';
import type { ReadFile } from '../../core/formats/piece.ts';

/** A file to be read by the worker, and what it says. */
export interface FileRequest {
  readonly name: string;
  readonly bytes: Uint8Array;
}
export type FileAnswer = ReadFile;

/** Patterns to be written by the worker: each a file of its own, or all in one, as the format has it. */
export interface OutRequest {
  readonly format: OutId;
  readonly patterns: readonly NamedPattern[];
  readonly options: WriteOptions;
}

export interface WrittenFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

export type OutAnswer =
  | { readonly ok: true; readonly files: readonly WrittenFile[] }
  | { readonly ok: false; readonly trouble: string };
