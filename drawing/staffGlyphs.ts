import type { NoteValue } from '../core/rhythm/value.ts';

type ByValue = Readonly<Record<NoteValue['base'], string>>;

/** Code points of signs on five lines in the music font (the standard layout of such fonts). */
export const HEADS: ByValue = {
  w: '\uE0A2',
  h: '\uE0A3',
  q: '\uE0A4',
  e: '\uE0A4',
  s: '\uE0A4',
  t: '\uE0A4',
};
export const FLAGS = {
  up: { e: '\uE240', s: '\uE242', t: '\uE244' },
  down: { e: '\uE241', s: '\uE243', t: '\uE245' },
} as const;
export const RESTS: ByValue = {
  w: '\uE4E3',
  h: '\uE4E4',
  q: '\uE4E5',
  e: '\uE4E6',
  s: '\uE4E7',
  t: '\uE4E8',
};
/** The glyph and the line it is placed on, from 0. */
export const CLEFS = { treble: { glyph: '\uE050', line: 1 }, bass: { glyph: '\uE062', line: 3 } } as const;
export const DOT = '\uE1E7';
/** Width of a head in spaces, and how far from its middle a stem is joined (the font's own measures). */
export const HEAD_WIDTH = 1.18;
export const WHOLE_WIDTH = 1.69;
export const JOIN = 0.168;
