import type { ClassHeard } from '../../core/ensemble/classHeard.ts';
import type { PlayedClicks } from '../../core/listening/playedClicks.ts';
import type { Bpm, Seconds } from '../../core/timing/units.ts';

/** One pass of a class through a rhythm. Times are of the audio clock, as the microphone hears them. */
export interface ClassPass {
  readonly id: string;
  /** Rhythm text of one part. */
  readonly text: string;
  readonly bpm: Bpm;
  /** When beat 1 of measure 1 is due. */
  readonly start: Seconds;
  readonly clicks: PlayedClicks;
}

/** What the page asks of the worker that hears a class. */
export type TogetherRequest =
  | { readonly kind: 'listen'; readonly port: MessagePort; readonly sampleRate: number }
  | { readonly kind: 'pass'; readonly pass: ClassPass }
  /** What there is by now; with `last` the pass is over, and its sound is forgotten. */
  | { readonly kind: 'look'; readonly id: string; readonly last: boolean }
  | { readonly kind: 'forget'; readonly id: string }
  /** A whole recording, in which nobody clicked: where it begins and how fast it is, is found. */
  | {
      readonly kind: 'recording';
      readonly id: string;
      readonly text: string;
      readonly bpm: Bpm;
      readonly samples: Float32Array;
      readonly sampleRate: number;
    };

/** How the class was, up to so many seconds after beat 1. */
export interface TogetherAnswer {
  readonly id: string;
  readonly last: boolean;
  readonly heard: ClassHeard;
  readonly until: Seconds;
}
