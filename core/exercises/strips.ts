import { t } from '../words/say.ts';
import { type Fraction, ZERO, add, compare, frac, mul, sub, sum } from '../rhythm/fraction.ts';
import { type Meter, meterLength } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type SoundSpan, writeMeasure } from '../rhythm/spell.ts';
import { type NoteValue, lengthOf, valueOfLength } from '../rhythm/value.ts';

/** A strip of paper on the line: a note or rest of one written value. */
export interface Strip {
  readonly kind: 'note' | 'rest';
  readonly value: NoteValue;
  /** Goes on from the strip before it: one sound. */
  readonly tied?: true;
  /** The second of two colours, for a second sound. */
  readonly second?: true;
}

/** A change that could be made, or why it could not. */
export type Changed =
  | { readonly ok: true; readonly strips: readonly Strip[] }
  | { readonly ok: false; readonly reason: string };

const HALF = frac(1, 2);

export function lineLength(strips: readonly Strip[]): Fraction {
  return sum(strips.map(({ value }) => lengthOf(value)));
}

/** How much of the line is still free, part of a whole note; negative when it is overfull. */
export function leftToFill(strips: readonly Strip[], line: Fraction): Fraction {
  return sub(line, lineLength(strips));
}

/** A strip cannot go on from a rest or from nothing. */
function mended(strips: readonly Strip[]): Strip[] {
  return strips.map((strip, i) => {
    const before = strips[i - 1];
    if (!strip.tied || (strip.kind === 'note' && before?.kind === 'note')) return strip;
    const { tied: _tied, ...free } = strip;
    return free;
  });
}

function changed(strips: readonly Strip[]): Changed {
  return { ok: true, strips: mended(strips) };
}

function refused(reason: string): Changed {
  return { ok: false, reason };
}

export function insertStrip(strips: readonly Strip[], at: number, strip: Strip, line: Fraction): Changed {
  const left = leftToFill(strips, line);
  if (compare(lengthOf(strip.value), left) > 0) return refused(t`there is not so much room left on the line`);
  return changed([...strips.slice(0, at), strip, ...strips.slice(at)]);
}

export function removeStrip(strips: readonly Strip[], at: number): Changed {
  return changed(strips.filter((_, i) => i !== at));
}

/** Cuts a strip in the middle: a plain one in two halves, a dotted one into the note and what the dot added. */
export function splitStrip(strips: readonly Strip[], at: number): Changed {
  const strip = strips[at]!;
  const first: NoteValue | undefined =
    strip.value.dots > 0 ? { base: strip.value.base, dots: 0 } : valueOfLength(mul(lengthOf(strip.value), HALF));
  const second = first && valueOfLength(sub(lengthOf(strip.value), lengthOf(first)));
  if (!first || !second) return refused(t`this is the shortest strip there is`);
  const { tied: _tied, ...rest } = strip;
  return changed([
    ...strips.slice(0, at),
    { ...strip, value: first },
    { ...rest, value: second },
    ...strips.slice(at + 1),
  ]);
}

/** Glues a strip and the next one together, when one value can write both. */
export function joinStrips(strips: readonly Strip[], at: number): Changed {
  const [one, two] = [strips[at]!, strips[at + 1]];
  if (!two) return refused(t`there is no strip after this one to join`);
  if (one.kind !== two.kind) return refused(t`a note and a rest cannot be joined`);
  const value = valueOfLength(add(lengthOf(one.value), lengthOf(two.value)));
  if (!value) return refused(t`no single note is as long as both: tie them instead`);
  return changed([...strips.slice(0, at), { ...one, value }, ...strips.slice(at + 2)]);
}

/** Ties a strip to the one before it, or unties it. */
export function tieStrip(strips: readonly Strip[], at: number): Changed {
  const strip = strips[at]!;
  if (strip.kind === 'rest' || strips[at - 1]?.kind !== 'note')
    return refused(t`a tie joins a note to the note before it`);
  const { tied, ...free } = strip;
  return changed(strips.map((other, i) => (i === at ? (tied ? free : { ...strip, tied: true }) : other)));
}

/** Adds a dot (the strip grows by half), or takes it away. */
export function dotStrip(strips: readonly Strip[], at: number, line: Fraction): Changed {
  const strip = strips[at]!;
  const value: NoteValue = { base: strip.value.base, dots: strip.value.dots === 0 ? 1 : 0 };
  const grows = sub(lengthOf(value), lengthOf(strip.value));
  if (compare(grows, ZERO) > 0 && compare(grows, leftToFill(strips, line)) > 0)
    return refused(t`the dot adds half, and there is not so much room left on the line`);
  return changed(strips.map((other, i) => (i === at ? { ...strip, value } : other)));
}

/** A note becomes a rest of the same length, and back. */
export function restStrip(strips: readonly Strip[], at: number): Changed {
  return changed(
    strips.map((strip, i) =>
      i === at ? { ...strip, kind: strip.kind === 'note' ? ('rest' as const) : ('note' as const) } : strip,
    ),
  );
}

export function colourStrip(strips: readonly Strip[], at: number): Changed {
  const { second, ...first } = strips[at]!;
  return changed(strips.map((strip, i) => (i === at ? (second ? first : { ...first, second: true }) : strip)));
}

export function moveStrip(strips: readonly Strip[], from: number, to: number): Changed {
  const others = strips.filter((_, i) => i !== from);
  return changed([...others.slice(0, to), strips[from]!, ...others.slice(to)]);
}

/** As many of them, from the first on, as a line has room for. */
export function stripsThatFit(strips: readonly Strip[], line: Fraction): readonly Strip[] {
  let fitting = strips;
  while (compare(leftToFill(fitting, line), ZERO) < 0) fitting = fitting.slice(0, -1);
  return fitting;
}

/** The strips that make a sound, in order: one for each sounded note of their pattern. */
export function soundingStrips(strips: readonly Strip[]): Strip[] {
  return strips.filter(({ kind, tied }) => kind === 'note' && !tied);
}

/**
 * The line as a pattern in a meter: strips that cross a bar are tied over it, what is left of the last measure is
 * rests.
 * @returns undefined while nothing lies on the line
 */
export function stripsPattern(strips: readonly Strip[], meter: Meter): Pattern | undefined {
  if (strips.length === 0) return undefined;
  const full = meterLength(meter);
  const sounds: SoundSpan[] = [];
  let at = ZERO;
  for (const { kind, value, tied } of strips) {
    const to = add(at, lengthOf(value));
    // A tied strip is a note of its own, so that the tie is seen; the one before goes on into it.
    if (tied) sounds.push({ ...sounds.pop()!, tiedOut: true });
    sounds.push({ kind, from: at, to });
    at = to;
  }
  const count = Math.ceil((at.n * full.d) / (at.d * full.n));
  const end = mul(full, frac(count));
  if (compare(at, end) < 0) sounds.push({ kind: 'rest', from: at, to: end });
  const measures = Array.from({ length: count }, (_, m) => {
    const from = mul(full, frac(m));
    const to = add(from, full);
    const inside = sounds
      .filter((sound) => compare(sound.from, to) < 0 && compare(sound.to, from) > 0)
      .map((sound): SoundSpan => {
        const over = compare(sound.to, to) > 0;
        return {
          kind: sound.kind,
          from: sub(compare(sound.from, from) < 0 ? from : sound.from, from),
          to: sub(over ? to : sound.to, from),
          tiedOut: sound.kind === 'note' && (over || sound.tiedOut === true),
        };
      });
    return writeMeasure(meter, inside);
  });
  return { pickup: false, measures };
}
