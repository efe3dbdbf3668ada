/** Counted beats a minute that make sense: slower is no beat any more, faster no counting. */
export const SLOWEST_BPM = 10;
export const FASTEST_BPM = 400;
/** Some twenty minutes of sixteenths; a take is over long before. */
export const MOST_ONSETS = 20_000;
/**
 * Notes times claps of a take that is judged: a hundred measures of sixteenths with as many claps again have a third of
 * it, and a few seconds of work are all of it.
 */
export const MOST_COMPARED = 16_000_000;
/** Words over stretches of a pattern: more would hide it. */
export const MOST_BRACKETS = 24;
