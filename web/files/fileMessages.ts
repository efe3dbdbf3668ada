import type { ReadFile } from '../../core/formats/piece.ts';

/** A file to be read by the worker, and what it says. */
export interface FileRequest {
  readonly name: string;
  readonly bytes: Uint8Array;
}
export type FileAnswer = ReadFile;
