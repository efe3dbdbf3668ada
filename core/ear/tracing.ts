import { type DrawnSign, type Point, type Stroke, strokesOf } from './strokes.ts';

/** What was wrong with a stroke. */
export type StrokeFault =
  | 'start'
  | 'backwards'
  | 'way'
  | 'short'
  | 'long'
  | 'end'
  | 'not-filled'
  | 'not-a-dot'
  | 'open';

export type Traced =
  /** So many strokes of the sign were drawn in one go, without lifting the pen. */
  { readonly ok: true; readonly strokes: number } | { readonly ok: false; readonly fault: StrokeFault };

/*
 * How far from the guide a child's hand may be, in staff spaces. Tuned on simulated hands (tracing.test.ts): good ones
 * tremble, lean and stop early; bad ones go the other way, to the other side, too short, or another stroke.
 */
const START = 0.75;
const END = 0.8;
const NEAR = 0.42;
const CLOSED = 0.55;
/** Of the way that must have been drawn, and how much longer it may be. */
const LEAST = 0.72;
const MOST = 1.6;
const COVERED = 0.78;
const SAMPLES = 48;
/** A dot is set, not drawn. */
const DOT_NEAR = 0.45;
const DOT_LONGEST = 1.3;
const FILLED = 0.7;
const FILL_NEAR = 0.34;
const INSIDE = 0.8;

const away = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);

function lengthOf(points: readonly Point[]): number {
  return points.slice(1).reduce((sum, point, i) => sum + away(point, points[i]!), 0);
}

/** Points at even distances along a line. */
function resampled(points: readonly Point[], count = SAMPLES): Point[] {
  const total = lengthOf(points);
  const first = points[0]!;
  if (total === 0) return Array.from({ length: count }, () => first);
  const step = total / (count - 1);
  const even: Point[] = [first];
  let walked = 0;
  for (let i = 1; i < points.length && even.length < count; i++) {
    const [from, to] = [points[i - 1]!, points[i]!];
    const leg = away(from, to);
    while (leg > 0 && even.length < count && walked + leg >= step * even.length - 1e-9) {
      const part = Math.min(1, (step * even.length - walked) / leg);
      even.push({ x: from.x + (to.x - from.x) * part, y: from.y + (to.y - from.y) * part });
    }
    walked += leg;
  }
  while (even.length < count) even.push(points.at(-1)!);
  return even;
}

/** A trembling hand draws a longer way than it goes. */
function smooth(points: readonly Point[]): Point[] {
  return points.map((point, i) => {
    if (i === 0 || i === points.length - 1) return point;
    const [a, b] = [points[i - 1]!, points[i + 1]!];
    return { x: (a.x + 2 * point.x + b.x) / 4, y: (a.y + 2 * point.y + b.y) / 4 };
  });
}

function nearest(point: Point, line: readonly Point[]): number {
  return Math.min(...line.map((other) => away(point, other)));
}

function mean(numbers: readonly number[]): number {
  return numbers.reduce((sum, one) => sum + one, 0) / numbers.length;
}

function covered(guide: readonly Point[], drawn: readonly Point[], near: number): number {
  return guide.filter((point) => nearest(point, drawn) <= near).length / guide.length;
}

/** How far two lines are apart when both are followed in their order; either may linger (dynamic time warping). */
function apart(guide: readonly Point[], drawn: readonly Point[]): number {
  const n = guide.length;
  let row = new Array<number>(drawn.length + 1).fill(Infinity);
  row[0] = 0;
  for (let i = 1; i <= n; i++) {
    const next = new Array<number>(drawn.length + 1).fill(Infinity);
    for (let j = 1; j <= drawn.length; j++) {
      const before = Math.min(row[j]!, next[j - 1]!, row[j - 1]!);
      next[j] = before + away(guide[i - 1]!, drawn[j - 1]!);
    }
    row = next;
  }
  return row[drawn.length]! / Math.max(n, drawn.length);
}

function pathFault(guide: readonly Point[], drawn: readonly Point[]): StrokeFault | undefined {
  const [start, end] = [guide[0]!, guide.at(-1)!];
  const [from, to] = [drawn[0]!, drawn.at(-1)!];
  const [length, own] = [lengthOf(guide), lengthOf(drawn)];
  // A short stroke leaves less room for a hand to be off.
  const [nearStart, nearEnd] = [Math.min(START, length * 0.45), Math.min(END, length * 0.45)];
  if (away(from, end) <= nearEnd && away(to, start) <= nearStart && away(from, start) > away(from, end))
    return 'backwards';
  if (away(from, start) > nearStart) return 'start';
  if (own < length * LEAST) return 'short';
  if (own > length * MOST + END) return 'long';
  if (apart(guide, drawn) > NEAR || covered(guide, drawn, NEAR * 1.5) < COVERED) return 'way';
  return away(to, end) > nearEnd ? 'end' : undefined;
}

/** A loop may begin anywhere and go either way round, but it closes. */
function loopFault(guide: readonly Point[], drawn: readonly Point[]): StrokeFault | undefined {
  const [length, own] = [lengthOf(guide), lengthOf(drawn)];
  if (mean(drawn.map((point) => nearest(point, guide))) > NEAR * 0.8) return 'way';
  if (own < length * LEAST) return 'short';
  if (covered(guide, drawn, NEAR) < COVERED) return 'way';
  return away(drawn[0]!, drawn.at(-1)!) > CLOSED ? 'open' : undefined;
}

function dotFault(guide: readonly Point[], drawn: readonly Point[]): StrokeFault | undefined {
  const middle = guide[Math.floor(guide.length / 2)]!;
  if (drawn.some((point) => away(point, middle) > DOT_NEAR + 0.3))
    return lengthOf(drawn) > DOT_LONGEST ? 'not-a-dot' : 'start';
  const centre = { x: mean(drawn.map(({ x }) => x)), y: mean(drawn.map(({ y }) => y)) };
  return away(centre, middle) > DOT_NEAR ? 'start' : undefined;
}

function fillFault(guide: readonly Point[], drawn: readonly Point[]): StrokeFault | undefined {
  const inside = drawn.filter((point) => nearest(point, guide) <= FILL_NEAR * 1.6).length / drawn.length;
  if (inside < INSIDE) return 'way';
  return covered(guide, drawn, FILL_NEAR) < FILLED ? 'not-filled' : undefined;
}

function faultOf(
  kind: Stroke['kind'],
  guidePoints: readonly Point[],
  drawnPoints: readonly Point[],
): StrokeFault | undefined {
  if (kind === 'dot') return dotFault(guidePoints, drawnPoints);
  const count = kind === 'fill' ? SAMPLES * 2 : SAMPLES;
  const [guide, drawn] = [resampled(guidePoints, count), resampled(smooth(drawnPoints), count)];
  if (kind === 'fill') return fillFault(guide, drawn);
  return kind === 'loop' ? loopFault(guide, drawn) : pathFault(guide, drawn);
}

/** Strokes that go on from where the one before ended may be drawn without lifting the pen. */
function goesOn(before: Stroke, next: Stroke): boolean {
  return before.kind !== 'fill' && next.kind === 'path' && away(before.points.at(-1)!, next.points[0]!) < 0.2;
}

/**
 * Whether a stroke started, went and ended where it should. Several strokes that follow on one another may be drawn in
 * one go.
 * @param at     which stroke of the sign comes next, from 0
 * @param drawn  where the finger was, in staff spaces as in `strokesOf`, in order
 */
export function traceStroke(sign: DrawnSign, at: number, drawn: readonly Point[]): Traced {
  const strokes = strokesOf(sign);
  const first = strokes[at]!;
  if (drawn.length === 0) return { ok: false, fault: 'short' };
  const points = drawn.length === 1 ? [drawn[0]!, drawn[0]!] : drawn;
  const fault = faultOf(first.kind, first.points, points);
  if (!fault) return { ok: true, strokes: 1 };
  let guide = first.kind === 'path' ? [...first.points] : [first.points[0]!];
  for (let next = at + 1; next < strokes.length && goesOn(strokes[next - 1]!, strokes[next]!); next++) {
    guide = [...guide, ...strokes[next]!.points];
    if (!faultOf('path', guide, points)) return { ok: true, strokes: next - at + 1 };
  }
  return { ok: false, fault };
}
