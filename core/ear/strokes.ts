import { STEM_SPACES } from '../exercises/signs.ts';

/**
 * How signs are drawn by hand, stroke by stroke (rules §7). Lengths are in staff spaces; x goes right from the
 * middle of the head, y up from the first line, so that the fifth line is at 4.
 */
export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface Stroke {
  /** A `path` has a start and a way; a `loop` is closed and may begin anywhere; a `fill` is rubbed in, a `dot` set. */
  readonly kind: 'path' | 'loop' | 'fill' | 'dot';
  /** Close together: what the moving pen follows. */
  readonly points: readonly Point[];
  readonly says: StrokeWords;
}

/** What a stroke is called; the words are made where it is shown. */
export type StrokeWords =
  | 'open-head'
  | 'fill-head'
  | 'stem-up'
  | 'flag'
  | 'beam'
  | 'block-below'
  | 'block-above'
  | 'zig'
  | 'zag'
  | 'zig-hook'
  | 'rest-hook'
  | 'rest-stem'
  | 'treble-dot'
  | 'treble-round'
  | 'treble-down'
  | 'treble-up'
  | 'treble-over'
  | 'treble-through'
  | 'treble-hook'
  | 'bass-dot'
  | 'bass-bow'
  | 'bass-upper-dot'
  | 'bass-lower-dot';

const p = (x: number, y: number): Point => ({ x, y });
const SAMPLES = 16;

function straight(...corners: readonly Point[]): Point[] {
  return corners.slice(0, -1).flatMap((from, i) => {
    const to = corners[i + 1]!;
    const last = i === corners.length - 2 ? 1 : 0;
    return Array.from({ length: SAMPLES + last }, (_, k) => {
      const part = k / SAMPLES;
      return p(from.x + (to.x - from.x) * part, from.y + (to.y - from.y) * part);
    });
  });
}

/** A smooth curve through points (Catmull-Rom). */
function curve(...through: readonly Point[]): Point[] {
  const at = (i: number) => through[Math.max(0, Math.min(through.length - 1, i))]!;
  const blend = (a: number, b: number, c: number, d: number, t: number) =>
    0.5 * (2 * b + (c - a) * t + (2 * a - 5 * b + 4 * c - d) * t * t + (3 * b - a - 3 * c + d) * t * t * t);
  return through.slice(0, -1).flatMap((_, i) => {
    const [a, b, c, d] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
    const last = i === through.length - 2 ? 1 : 0;
    return Array.from({ length: SAMPLES + last }, (__, k) => {
      const t = k / SAMPLES;
      return p(blend(a.x, b.x, c.x, d.x, t), blend(a.y, b.y, c.y, d.y, t));
    });
  });
}

/** A head around a middle; it leans a little, as written heads do. */
function head(middle: Point, width: number): Point[] {
  return Array.from({ length: 49 }, (_, i) => {
    const angle = Math.PI + (i / 48) * 2 * Math.PI;
    const [x, y] = [(Math.cos(angle) * width) / 2, Math.sin(angle) * 0.5];
    return p(middle.x + x * 0.95 - y * 0.3, middle.y + y * 0.95 + x * 0.2);
  });
}

/** Back and forth inside a box around a middle. */
function rubbed(middle: Point, width: number, height: number): Point[] {
  const rows = [0.3, 0, -0.3].map((part) => middle.y + part * height);
  return straight(
    p(middle.x - width / 3, rows[0]!),
    p(middle.x + width / 3, rows[0]!),
    p(middle.x - width / 3, rows[1]!),
    p(middle.x + width / 3, rows[1]!),
    p(middle.x - width / 3, rows[2]!),
    p(middle.x + width / 3, rows[2]!),
  );
}

const HEAD = 1.35;
/** In the second space: the stem goes up, on the right. */
const HEAD_AT = p(0, 1.5);
const SECOND_HEAD = p(2.6, 1.5);
const stemFrom = ({ x, y }: Point) => p(x + HEAD / 2, y + 0.15);
const stemTo = (at: Point) => p(stemFrom(at).x, at.y + STEM_SPACES);

const loop = (at: Point): Stroke => ({ kind: 'loop', points: head(at, HEAD), says: 'open-head' });
const filled = (at: Point): readonly Stroke[] => [
  loop(at),
  { kind: 'fill', points: rubbed(at, HEAD, 0.9), says: 'fill-head' },
];
const stem = (at: Point): Stroke => ({ kind: 'path', points: straight(stemFrom(at), stemTo(at)), says: 'stem-up' });

function flag(): Stroke {
  const { x, y } = stemTo(HEAD_AT);
  const points = curve(p(x, y), p(x + 0.25, y - 0.7), p(x + 0.9, y - 1.4), p(x + 0.95, y - 2), p(x + 0.7, y - 2.6));
  return { kind: 'path', points, says: 'flag' };
}

/** @param line  the line it is drawn along, and to which side of it the block goes */
function block(line: number, side: 1 | -1): Stroke {
  const far = line + side * 0.6;
  const points = straight(p(-0.8, line), p(-0.8, far), p(0.8, far), p(0.8, line));
  return { kind: 'path', points, says: side === 1 ? 'block-above' : 'block-below' };
}

const dot = (x: number, y: number, says: StrokeWords): Stroke => ({
  kind: 'dot',
  points: straight(p(x - 0.08, y), p(x + 0.08, y)),
  says,
});
const path = (points: readonly Point[], says: StrokeWords): Stroke => ({ kind: 'path', points, says });

/** One line without corners, cut into the strokes it is learned in: at each of them it goes on. */
const TREBLE_LINE: readonly (readonly [StrokeWords, ...Point[]])[] = [
  ['treble-round', p(0, 1), p(-0.42, 1.4), p(-0.1, 1.88), p(0.45, 1.95), p(0.98, 1.65), p(1.15, 1.05)],
  ['treble-down', p(1, 0.45), p(0.55, 0.05), p(-0.1, -0.02), p(-0.75, 0.22)],
  ['treble-up', p(-1.2, 0.75), p(-1.32, 1.45), p(-1, 2.25), p(-0.4, 3), p(0.25, 3.7), p(0.66, 4.5), p(0.76, 5.2)],
  ['treble-over', p(0.64, 5.75), p(0.38, 5.8), p(0.14, 5.4), p(0.03, 4.8)],
  ['treble-through', p(0.12, 3.6), p(0.24, 2.4), p(0.36, 1.2), p(0.48, 0), p(0.56, -0.9)],
  ['treble-hook', p(0.5, -1.5), p(0.15, -1.85), p(-0.3, -1.8), p(-0.55, -1.4)],
];

function trebleStrokes(): Stroke[] {
  const whole = curve(...TREBLE_LINE.flatMap(([, ...points]) => points));
  let from = 0;
  return TREBLE_LINE.map(([says, ...points], i) => {
    const to = from + (points.length - (i === 0 ? 1 : 0)) * SAMPLES;
    const stroke: Stroke = { kind: 'path', points: whole.slice(from, to + 1), says };
    from = to;
    return stroke;
  });
}

const TREBLE: readonly Stroke[] = [dot(0, 1, 'treble-dot'), ...trebleStrokes()];

const BASS: readonly Stroke[] = [
  dot(-0.9, 3, 'bass-dot'),
  path(
    curve(p(-0.9, 3), p(-0.85, 3.6), p(-0.2, 4), p(0.6, 3.7), p(0.95, 2.9), p(0.6, 1.9), p(-0.2, 1.1), p(-1, 0.6)),
    'bass-bow',
  ),
  dot(1.7, 3.5, 'bass-upper-dot'),
  dot(1.7, 2.5, 'bass-lower-dot'),
];

/** Every sign that can be drawn; to add one, its strokes here and its name in the words. */
export const DRAWN_SIGNS = {
  whole: [{ kind: 'loop', points: head(HEAD_AT, 1.7), says: 'open-head' }],
  half: [loop(HEAD_AT), stem(HEAD_AT)],
  quarter: [...filled(HEAD_AT), stem(HEAD_AT)],
  eighth: [...filled(HEAD_AT), stem(HEAD_AT), flag()],
  pair: [
    ...filled(HEAD_AT),
    stem(HEAD_AT),
    ...filled(SECOND_HEAD),
    stem(SECOND_HEAD),
    path(straight(stemTo(HEAD_AT), stemTo(SECOND_HEAD)), 'beam'),
  ],
  'whole-rest': [block(3, -1)],
  'half-rest': [block(2, 1)],
  'quarter-rest': [
    path(straight(p(-0.4, 3.6), p(0.4, 2.7)), 'zig'),
    path(straight(p(0.4, 2.7), p(-0.3, 1.9)), 'zag'),
    path(curve(p(-0.3, 1.9), p(0.5, 1), p(-0.2, 1.1), p(-0.45, 0.7), p(0.15, 0.1)), 'zig-hook'),
  ],
  'eighth-rest': [
    path(curve(p(-0.5, 2.7), p(-0.2, 2.45), p(0.2, 2.5), p(0.65, 2.9)), 'rest-hook'),
    path(straight(p(0.65, 2.9), p(-0.05, 0.9)), 'rest-stem'),
  ],
  treble: TREBLE,
  bass: BASS,
} as const satisfies Readonly<Record<string, readonly Stroke[]>>;

export type DrawnSign = keyof typeof DRAWN_SIGNS;
export const DRAWN_SIGN_IDS = Object.keys(DRAWN_SIGNS) as readonly DrawnSign[];

/** The strokes of a sign, in the order in which they are drawn. */
export function strokesOf(sign: DrawnSign): readonly Stroke[] {
  return DRAWN_SIGNS[sign];
}
