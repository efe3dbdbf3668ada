/** Fifths above C of the major keys. */
const TONICS: Readonly<Record<string, number>> = { C: 0, G: 1, D: 2, A: 3, E: 4, B: 5, F: -1 };
/** How many fifths a mode has fewer (or more) than the major key on the same note. */
const MODES: Readonly<Record<string, number>> = {
  maj: 0,
  ion: 0,
  mix: -1,
  dor: -2,
  m: -3,
  min: -3,
  aeo: -3,
  phr: -4,
  loc: -5,
  lyd: 1,
};
const SHARPS = 'FCGDAEB';

/** Letters that are sharp (1) or flat (-1) in a key: "D", "F#m", "Bb mix". */
export function accidentalsOf(key: string): ReadonlyMap<string, number> {
  const found = /^\s*([A-G])([#b]?)\s*([A-Za-z]*)/.exec(key);
  if (!found) return new Map();
  const mode = found[3]!.toLowerCase();
  const shift = MODES[mode === 'm' ? 'm' : mode.slice(0, 3)] ?? 0;
  const fifths = TONICS[found[1]!]! + (found[2] === '#' ? 7 : found[2] === 'b' ? -7 : 0) + shift;
  const letters = fifths >= 0 ? [...SHARPS] : [...SHARPS].reverse();
  return new Map(letters.slice(0, Math.min(7, Math.abs(fifths))).map((letter) => [letter, Math.sign(fifths)]));
}
