/** Parts of the type size: what a letter takes where it cannot be measured. */
const USUAL = { letter: 0.56, narrow: 0.3 };
const NARROW = /[.,'’il(|)]/;
const VOWELS = /[aeiouyäöüAEIOUÄÖÜ]/;

let context: CanvasRenderingContext2D | null | undefined;
const widths = new Map<string, number>();

/** Width of a text in parts of its type size. */
function widthOf(text: string): number {
  const known = widths.get(text);
  if (known !== undefined) return known;
  context ??= typeof document === 'undefined' ? null : document.createElement('canvas').getContext('2d');
  if (!context) return [...text].reduce((sum, letter) => sum + (NARROW.test(letter) ? USUAL.narrow : USUAL.letter), 0);
  context.font = `700 100px ${getComputedStyle(document.body).fontFamily}`;
  const width = context.measureText(text).width / 100;
  // Before the type has come every letter has the width of another's.
  if (document.fonts.status === 'loaded') widths.set(text, width);
  return width;
}

/**
 * How far left of its time a written count begins, in parts of its type size, so that what sounds on the beat stands
 * on the beat: the number, or the first vowel; without one the first letter.
 * @example "ta" → the middle of its "a"; "(3)" → the middle of the 3; "-2" of the 2
 */
export function standsBefore(text: string): number {
  const lead = /^[(-]*/.exec(text)![0];
  const said = text.slice(lead.length).split(/[-)]/)[0]!;
  const number = /^\d+$/.test(said);
  const vowel = number ? 0 : Math.max(0, said.search(VOWELS));
  const sounding = number ? said : (said[vowel] ?? '');
  return widthOf(lead + said.slice(0, vowel)) + widthOf(sounding) / 2;
}
