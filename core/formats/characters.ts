import { strFromU8 } from 'fflate';

/** The letters of a file, and whether some bytes were no proper UTF-8 and were read as Latin letters. */
export interface Letters {
  readonly text: string;
  readonly guessed: boolean;
}

const REPLACED = '\uFFFD';

/** Byte by byte the same numbers: ISO 8859-1. */
const latin = (bytes: Uint8Array) => strFromU8(bytes, true);

function utf16(bytes: Uint8Array, littleEndian: boolean): string {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const parts: string[] = [];
  const piece = 8192;
  const codes: number[] = [];
  for (let i = 0; i + 1 < bytes.length; i += 2) {
    codes.push(view.getUint16(i, littleEndian));
    if (codes.length === piece) parts.push(String.fromCharCode(...codes.splice(0)));
  }
  return [...parts, String.fromCharCode(...codes)].join('');
}

/** Text of a file in UTF-8, UTF-16 (either order) or, where the file or its bytes say so, in Latin letters. */
export function lettersOf(bytes: Uint8Array): Letters {
  const [a, b, c] = bytes;
  if (a === 0xff && b === 0xfe) return { text: utf16(bytes.subarray(2), true), guessed: false };
  if (a === 0xfe && b === 0xff) return { text: utf16(bytes.subarray(2), false), guessed: false };
  if (a === 0x3c && b === 0) return { text: utf16(bytes, true), guessed: false };
  if (a === 0 && b === 0x3c) return { text: utf16(bytes, false), guessed: false };
  const body = a === 0xef && b === 0xbb && c === 0xbf ? bytes.subarray(3) : bytes;
  const declared = /^<\?xml[^>]*encoding\s*=\s*["']([\w-]+)/.exec(latin(body.subarray(0, 200)))?.[1]?.toLowerCase();
  if (declared && /^(iso-8859-1|latin-?1|windows-1252|us-ascii)$/.test(declared))
    return { text: latin(body), guessed: false };
  const text = strFromU8(body);
  const own = text.includes(REPLACED) && !hasReplacement(body);
  return own ? { text: latin(body), guessed: true } : { text, guessed: false };
}

/** Whether the file itself has the sign that stands for a broken one. */
function hasReplacement(bytes: Uint8Array): boolean {
  for (let i = bytes.indexOf(0xef); i >= 0; i = bytes.indexOf(0xef, i + 1))
    if (bytes[i + 1] === 0xbf && bytes[i + 2] === 0xbd) return true;
  return false;
}
