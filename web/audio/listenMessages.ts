import type { PlayedClicks } from '../../core/listening/playedClicks.ts';
import type { Seconds } from '../../core/timing/units.ts';

/**
 * What the page asks of the listening worker: live through a port, a whole recording, or a practice child to be heard.
 */
export type ListenRequest =
  | {
      readonly kind: 'live';
      readonly port: MessagePort;
      readonly sampleRate: number;
      /** On the audio clock. */
      readonly clicks: PlayedClicks;
      readonly keep: boolean;
    }
  | { readonly kind: 'finish' }
  | { readonly kind: 'recording'; readonly samples: Float32Array; readonly sampleRate: number }
  | { readonly kind: 'practice'; readonly claps: readonly Seconds[]; readonly seed: number };

/** Outline of the sound: the greatest size in each step, from 0 to 1. */
export interface Outline {
  readonly peaks: Float32Array;
  readonly stepSeconds: Seconds;
  /** Time of the first step, on the clock of the onsets. */
  readonly from: Seconds;
}

/** `onsets` are those that were not told before. */
export type ListenAnswer =
  | {
      readonly kind: 'heard';
      readonly onsets: readonly Seconds[];
      /** The loudest sample of a block that lasted so long. */
      readonly level: number;
      readonly seconds: Seconds;
    }
  | { readonly kind: 'progress'; readonly done: number }
  | {
      readonly kind: 'finished';
      readonly onsets: readonly Seconds[];
      readonly outline: Outline;
      readonly sound?: Blob;
    };

/** What the sound thread hands over. */
export interface CapturedBlock {
  readonly samples: Float32Array;
  /** Audio clock at the first sample. */
  readonly time: Seconds;
}
