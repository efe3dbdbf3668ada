/** Counted beats a minute that make sense: slower is no beat any more, faster no counting. */
export const SLOWEST_BPM = 10;
export const FASTEST_BPM = 400;
/** Some twenty minutes of sixteenths; a take is over long before. */
export const MOST_ONSETS = 20_000;
