import type { Cue } from '../../core/leading/cue.ts';
import type { TrackOptions } from '../../core/leading/practiceTrack.ts';

/** What the page asks of the worker that mixes a practice track. */
export interface TrackRequest {
  readonly cues: readonly Cue[];
  readonly options: TrackOptions;
  /** So many sound together: more than one make a file of two channels. */
  readonly parts: number;
  /** A concert: of each child its claps, seconds of the run; each from its place between left and right. */
  readonly claps?: readonly (readonly number[])[];
}

/** How far it is, 0 to 1; at last the file. */
export type TrackAnswer = { readonly done: number } | { readonly file: Blob };
