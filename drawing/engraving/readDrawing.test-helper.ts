import type { Shape } from '../strokes.ts';

/** Where something stands, in tenths of a space; y from the line of the rhythm, down. */
export interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

interface Sign extends Box {
  readonly sign: string;
}

/** What an engraver would point at in a drawing of one line. */
export interface Drawn {
  /** Heads and rests from left to right. */
  readonly events: readonly Sign[];
  readonly flags: readonly Sign[];
  readonly dots: readonly Sign[];
  readonly numbers: readonly Sign[];
  readonly figures: readonly Sign[];
  readonly beams: readonly Box[];
  /** The level parts of brackets. */
  readonly brackets: readonly Box[];
  readonly bars: readonly Box[];
  readonly words: readonly Sign[];
}

const within =
  (from: number, to: number) =>
  ({ sign }: Sign) => {
    const code = sign.codePointAt(0)!;
    return code >= from && code <= to;
  };
const isRest = within(0xe4e3, 0xe4e8);
const isHead = within(0xe0a2, 0xe0a4);

function boxOf(shape: Shape, zoom: number, line: number): Sign {
  const xs = shape.path.flatMap(({ args }) => args.filter((_, i) => i % 2 === 0));
  const ys = shape.path.flatMap(({ args }) => args.filter((_, i) => i % 2 === 1));
  return {
    sign: shape.sign ?? '',
    left: Math.min(...xs) / zoom,
    right: Math.max(...xs) / zoom,
    top: Math.min(...ys) / zoom - line,
    bottom: Math.max(...ys) / zoom - line,
  };
}

/**
 * Reads a drawing by its shapes: what they are and where.
 * @param line  units from the top of the drawing to the line of the rhythm
 */
export function readDrawing(shapes: readonly Shape[], zoom: number, line: number): Drawn {
  const all = shapes.filter(({ fill }) => fill !== undefined).map((shape) => boxOf(shape, zoom, line));
  const signs = all.filter(({ sign }) => sign !== '');
  const plain = all.filter(({ sign }) => sign === '');
  const high = ({ top, bottom }: Box) => bottom - top;
  const wide = ({ left, right }: Box) => right - left;
  return {
    events: signs.filter((sign) => isHead(sign) || isRest(sign)).toSorted((a, b) => a.left - b.left),
    flags: signs.filter(within(0xe240, 0xe244)),
    dots: signs.filter(within(0xe1e7, 0xe1e7)).toSorted((a, b) => a.left - b.left),
    numbers: signs.filter(within(0xe880, 0xe88a)),
    figures: signs.filter(within(0xe080, 0xe089)),
    beams: plain.filter((box) => Math.abs(high(box) - 5) < 0.5 && wide(box) > 5),
    brackets: plain.filter((box) => Math.abs(high(box) - 1) < 0.2 && box.bottom < -25),
    bars: plain.filter((box) => Math.abs(high(box) - 40) < 0.5),
    words: signs.filter(({ sign }) => sign.codePointAt(0)! < 0xe000),
  };
}

const middle = ({ left, right }: Box) => (left + right) / 2;

/** The event whose stem stands at x, by its index. */
function stemAt({ events }: Drawn, x: number): number {
  return events.findIndex((event) => isHead(event) && Math.abs(event.right - 0.7 - x) < 1.2);
}

/** "0-3 4-7 / 1< 4>": beams by their first and last note, a level after the other; hooks by the side they point to. */
function beamsText(drawn: Drawn): string {
  const levels: string[][] = [];
  for (const beam of drawn.beams.toSorted((a, b) => a.left - b.left)) {
    const [from, to] = [stemAt(drawn, beam.left + 0.7), stemAt(drawn, beam.right - 0.2)];
    const over = drawn.beams.filter(({ left, right }) => left < beam.right && right > beam.left);
    const level = Math.round((beam.top - Math.min(...over.map(({ top }) => top))) / 7.5);
    (levels[level] ??= []).push(from >= 0 && to >= 0 ? `${from}-${to}` : from >= 0 ? `${from}>` : `${to}<`);
  }
  return levels.map((level) => level.join(' ')).join(' / ');
}

/** "[0-2 3] 4-8 5:4": numbers over what they group, in brackets where a bracket is drawn. */
function tupletsText(drawn: Drawn): string {
  const { events, brackets, beams } = drawn;
  const over = (box: Box) => {
    const under = events.flatMap((event, i) =>
      middle(event) > box.left - 8 && middle(event) < box.right + 2 ? [i] : [],
    );
    return `${under[0]}-${under.at(-1)}`;
  };
  return drawn.numbers
    .map((number) => {
      const says = [...number.sign].map((sign) => (sign === '\uE88A' ? ':' : sign.codePointAt(0)! - 0xe880)).join('');
      const sides = brackets.filter(({ left, right }) => right < middle(number) + 40 && left > middle(number) - 400);
      const left = sides.filter(({ right }) => right <= middle(number)).toSorted((a, b) => b.right - a.right)[0];
      const right = brackets.filter((one) => one.left >= middle(number)).toSorted((a, b) => a.left - b.left)[0];
      const near = left && right && middle(number) - left.right < 15 && right.left - middle(number) < 15;
      if (near) return `[${over({ ...left, right: right.right })} ${says}]`;
      const beam = beams.find((one) => Math.abs(middle(one) - middle(number)) < 8);
      return `${beam ? over(beam) : '?'} ${says}`;
    })
    .join(' ');
}

/** "1 1 4": the events that dots belong to; each must stand in the space over the line, clear of all before it. */
function dotsText({ events, dots }: Drawn): string {
  return dots
    .map((dot) => {
      const owner = events.findLastIndex((event) => event.right <= dot.left);
      return Math.abs((dot.top + dot.bottom) / 2 + 5) < 0.5 ? String(owner) : `${owner}?`;
    })
    .join(' ');
}

/** "2 4c": rests by their place, with c where one stands in the middle between two bar lines. */
function restsText({ events, bars }: Drawn): string {
  return events
    .flatMap((event, i) => {
      if (!isRest(event)) return [];
      const right = Math.min(...bars.filter(({ left }) => left > event.right).map(({ left }) => left));
      const before = bars.filter((bar) => bar.right < event.left).map((bar) => bar.left);
      const left = before.length > 0 ? Math.max(...before) : undefined;
      const centred = left !== undefined && Math.abs((left + right) / 2 - middle(event)) < 1;
      return [`${i}${centred ? 'c' : ''}`];
    })
    .join(' ');
}

/** All of it in a line; what is not there is not said. */
export function described(drawn: Drawn): string {
  const parts = { beams: beamsText(drawn), groups: tupletsText(drawn), dots: dotsText(drawn), rests: restsText(drawn) };
  return Object.entries(parts)
    .filter(([, text]) => text !== '')
    .map(([name, text]) => `${name} ${text}`)
    .join('; ');
}
