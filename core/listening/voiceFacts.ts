import type { Seconds } from '../timing/units.ts';

/** What is kept of a word: counts follow each other quickly. */
export const LONGEST_KEPT: Seconds = 0.7;
/** Samples a second of a kept word. */
export const VOICE_RATE = 22_050;
/** Letters of a word by which its recording is known. */
export const LONGEST_WORD = 40;
/** Words that are sent at once. */
export const MOST_SENT = 8;
