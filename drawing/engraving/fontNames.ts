/** The signs that rhythm needs; made by `npm run music-font`. */
export const MUSIC_FONT = 'Harbour';
/** Letters and words. */
export const LETTER_FONT = 'Atkinson Hyperlegible Next';
/** Points at which four spaces are 40 of the engraver's units. */
export const SIGN_POINTS = 30;
