/** What a number counts, where nothing else says so; plain numbers to the engine. */
export type Seconds = number;
/** Counted beats a minute: of the first meter of a pattern. */
export type Bpm = number;
/** Counted beats, where exact fractions have been left for good. */
export type Beats = number;
