import { type Font, create } from 'fontkit';
import { unpacked } from './woff.ts';

/** The fonts of a drawing: signs of music, letters, and bold letters. */
export interface Fonts {
  readonly music: LoadedFont;
  readonly letters: LoadedFont;
  readonly strong: LoadedFont;
}

export interface LoadedFont {
  /** The file itself, to be put into a document. */
  readonly bytes: Uint8Array;
  readonly font: Font;
}

/** A text as outlines: commands of a path in pixels, its baseline at y = 0. */
export interface Outline {
  readonly commands: readonly PathCommand[];
  readonly width: number;
  /** How far it reaches above and below the baseline, and to both sides. */
  readonly box: { readonly top: number; readonly bottom: number; readonly left: number; readonly right: number };
}

export interface PathCommand {
  readonly command: 'M' | 'L' | 'Q' | 'C' | 'Z';
  readonly args: readonly number[];
}

const LETTERS: Readonly<Record<string, PathCommand['command']>> = {
  moveTo: 'M',
  lineTo: 'L',
  quadraticCurveTo: 'Q',
  bezierCurveTo: 'C',
  closePath: 'Z',
};

/** Reads the fonts: TrueType, OpenType, WOFF or WOFF2. */
export function loadFonts(music: Uint8Array, letters: Uint8Array, strong: Uint8Array): Fonts {
  return { music: loaded(music), letters: loaded(letters), strong: loaded(strong) };
}

function loaded(packed: Uint8Array): LoadedFont {
  const bytes = unpacked(packed);
  const font = create(bytes as unknown as Buffer);
  if (!('unitsPerEm' in font)) throw new Error('a collection of fonts is no font');
  return { bytes, font };
}

const OUTLINES = new WeakMap<Font, Map<string, Outline>>();

/** @param size  pixels of an em */
export function outlineOf({ font }: LoadedFont, text: string, size: number): Outline {
  const known = OUTLINES.get(font) ?? new Map<string, Outline>();
  OUTLINES.set(font, known);
  const key = `${size} ${text}`;
  const before = known.get(key);
  if (before) return before;
  const made = outlined(font, text, size / font.unitsPerEm);
  known.set(key, made);
  return made;
}

function outlined(font: Font, text: string, scale: number): Outline {
  const { glyphs, positions } = font.layout(text);
  const commands: PathCommand[] = [];
  const box = { top: 0, bottom: 0, left: 0, right: 0 };
  let x = 0;
  glyphs.forEach((glyph, i) => {
    const { xAdvance, xOffset, yOffset } = positions[i]!;
    const { minX, maxX, minY, maxY } = glyph.bbox;
    if (glyph.path.commands.length > 0) {
      box.left = Math.min(box.left, (x + xOffset + minX) * scale);
      box.right = Math.max(box.right, (x + xOffset + maxX) * scale);
      box.top = Math.max(box.top, (maxY + yOffset) * scale);
      box.bottom = Math.max(box.bottom, -(minY + yOffset) * scale);
    }
    for (const { command, args } of glyph.path.commands)
      commands.push({
        command: LETTERS[command]!,
        args: args.map((value, k) => (k % 2 === 0 ? (x + xOffset + value) * scale : -(value + yOffset) * scale)),
      });
    x += xAdvance;
  });
  return { commands, width: x * scale, box };
}
