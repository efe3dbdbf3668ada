import { FORMATS, type Format, type NamedPattern, type WriteOptions } from '../../core/formats/formats.ts';
import { drawnFormats } from '../../drawing/drawnFormats.ts';
import { kit } from './kit.ts';

/** Everything that a worker writes patterns as. */
export const WRITTEN: Readonly<Record<string, Format>> = { ...FORMATS, ...drawnFormats(kit) };

/** A picture in points of the screen: drawn by the page, of the same lines as the sharp one. */
const PNG: Omit<Format, 'write'> = {
  title: 'Picture, PNG',
  use: 'for slides and messages',
  endings: ['.png'],
  mime: 'image/png',
  many: false,
  takes: ['counts'],
};

export type OutId = string;

/** What patterns can go out as, in the order in which it is offered. */
export const OUT_FORMATS: Readonly<Record<OutId, Omit<Format, 'write'>>> = {
  pdf: WRITTEN['pdf']!,
  png: PNG,
  svg: WRITTEN['svg']!,
  musicxml: WRITTEN['musicxml']!,
  mxl: WRITTEN['mxl']!,
  midi: WRITTEN['midi']!,
  wav: WRITTEN['wav']!,
  abc: WRITTEN['abc']!,
  text: WRITTEN['text']!,
};

/** What the worker is asked for: each pattern a file of its own, or all in one. */
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
  { readonly ok: true; readonly files: readonly WrittenFile[] } | { readonly ok: false; readonly trouble: string };
