import type { Accent } from '../timing/pulses.ts';
import type { Struck } from '../sound/sounds.ts';
import type { Seconds } from '../timing/units.ts';

export type CueKind = 'chunk' | 'pass' | 'count-in' | 'click' | 'syllable' | 'clap' | 'tone' | 'push' | 'open' | 'foot';

/** One thing that happens at one moment. */
export interface Cue {
  /** From the beginning of the run. */
  readonly time: Seconds;
  /** How long it lasts; 0 for what only strikes. */
  readonly seconds: Seconds;
  readonly kind: CueKind;
  /** Index of the section it belongs to. */
  readonly section: number;
  /** The word or syllable; R or L for a foot; nothing for all else. */
  readonly text: string;
  /** The recording that speaks it, where it is not English: with its language before it, as in “de/+”. */
  readonly recorded?: string;
  /** Of a click: how strong. */
  readonly accent: Accent;
  /** A whispered rest. */
  readonly whispered: boolean;
  /** The app makes it sound; else it is only shown, for the class to do. */
  readonly sounds: boolean;
  /** Of several parts the how manieth says, strikes or rests here; what all have in common is nobody's. */
  readonly part?: number;
  /** The sound of that part. */
  readonly struck?: Struck;
}
