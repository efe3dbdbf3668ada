/** Letters of a key that say which part it is. */
const PART_LETTERS = 3;
const BASE = 36;

/** FNV-1a, 32 bits. */
function hash(text: string): number {
  let value = 0x811c9dc5;
  for (const sign of text) value = Math.imul(value ^ sign.codePointAt(0)!, 0x01000193) >>> 0;
  return value;
}

/**
 * Under which key takes of a pattern stand together: of one part of it under a key of its own, for it is another
 * rhythm. As long as an id, made the same way on the device and on the server.
 * @param patternId  a UUID
 * @param part       its name, as it stands in the pattern
 */
export function partKey(patternId: string, part: string | undefined): string {
  if (part === undefined) return patternId;
  const letters = (hash(part.trim().toLowerCase()) % BASE ** PART_LETTERS).toString(BASE).padStart(PART_LETTERS, '0');
  return `${patternId.replaceAll('-', '')}.${letters}`;
}

/** As long as the title of a take may be. */
const LONGEST_TITLE = 120;

/** What a take of one part of a pattern is called. */
export function partTitle(title: string, part: string): string {
  return `${title} · ${part}`.slice(0, LONGEST_TITLE);
}
