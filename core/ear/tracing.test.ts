import { describe, expect, it } from 'vitest';
import { type Random, randomFrom } from '../random.ts';
import { DRAWN_SIGN_IDS, type DrawnSign, type Point, strokesOf } from './strokes.ts';
import { traceStroke } from './tracing.ts';

/** A line as a hand draws it: it leans, is a little larger or smaller, wanders, trembles, and stops early or late. */
function byHand(line: readonly Point[], random: Random): Point[] {
  const middle = { x: mean(line.map(({ x }) => x)), y: mean(line.map(({ y }) => y)) };
  const scale = 0.9 + random.next() * 0.2;
  const lean = (random.next() - 0.5) * 0.14;
  const shift = { x: (random.next() - 0.5) * 0.4, y: (random.next() - 0.5) * 0.3 };
  const waves = [1, 2, 3].map((k) => ({
    k,
    x: random.normal() * 0.05,
    y: random.normal() * 0.05,
    at: random.next() * 6,
  }));
  const skip = Math.floor(line.length * random.next() * 0.05);
  const step = 1 + random.below(3);
  const drawn = line.slice(skip, line.length - Math.floor(line.length * random.next() * 0.05));
  return drawn
    .filter((_, i) => i % step === 0 || i === drawn.length - 1)
    .map(({ x, y }, i) => {
      const wander = waves.reduce(
        (sum, { k, x: wx, y: wy, at }) => {
          const wave = Math.sin(at + (k * Math.PI * i * step) / line.length);
          return { x: sum.x + wx * wave, y: sum.y + wy * wave };
        },
        { x: 0, y: 0 },
      );
      const [dx, dy] = [(x - middle.x) * scale, (y - middle.y) * scale];
      return {
        x: middle.x + dx - dy * lean + shift.x + wander.x + random.normal() * 0.03,
        y: middle.y + dy + dx * lean + shift.y + wander.y + random.normal() * 0.03,
      };
    });
}

const mean = (numbers: readonly number[]) => numbers.reduce((sum, one) => sum + one, 0) / numbers.length;

/** What goes wrong with one stroke of a sign. */
const BAD: Readonly<Record<string, (sign: DrawnSign, at: number, random: Random) => readonly Point[] | undefined>> = {
  backwards: (sign, at) => {
    const { kind, points } = strokesOf(sign)[at]!;
    return kind === 'path' ? [...points].reverse() : undefined;
  },
  short: (sign, at, random) => {
    const { kind, points } = strokesOf(sign)[at]!;
    if (kind === 'dot') return undefined;
    // Rubbed in half the rows, a head may be black already.
    const part = kind === 'fill' ? 0.1 + random.next() * 0.1 : 0.35 + random.next() * 0.2;
    return points.slice(0, Math.max(2, Math.floor(points.length * part)));
  },
  /** A space too high or too low. */
  elsewhere: (sign, at, random) => {
    const { points } = strokesOf(sign)[at]!;
    const up = random.next() < 0.5 ? 1.2 : -1.2;
    return points.map(({ x, y }) => ({ x, y: y + up }));
  },
  /** To the other side of the sign. */
  mirrored: (sign, at) => {
    const all = strokesOf(sign).flatMap(({ points }) => points);
    const middle = (Math.min(...all.map(({ x }) => x)) + Math.max(...all.map(({ x }) => x))) / 2;
    const { points } = strokesOf(sign)[at]!;
    const off = mean(points.map(({ x }) => Math.abs(x - middle)));
    return off < 0.8 ? undefined : points.map(({ x, y }) => ({ x: 2 * middle - x, y }));
  },
  'another stroke': (sign, at) => {
    const strokes = strokesOf(sign);
    return (strokes[at + 1] ?? strokes[at - 1])?.points;
  },
};

const HANDS = 20;

describe('tracing a sign by hand', () => {
  it.each(DRAWN_SIGN_IDS)('%s: good hands and bad hands are told apart', (sign) => {
    const random = randomFrom(DRAWN_SIGN_IDS.indexOf(sign) * 7 + 1);
    const good = Array.from({ length: HANDS }, () =>
      strokesOf(sign).every(({ points }, at) => traceStroke(sign, at, byHand(points, random)).ok),
    );
    const bad = Array.from({ length: HANDS }, (_, hand) => {
      for (let tries = 0; tries < 100; tries++) {
        const names = Object.keys(BAD);
        const at = random.below(strokesOf(sign).length);
        const line = BAD[names[(hand + tries) % names.length]!]!(sign, at, random);
        if (line) return !traceStroke(sign, at, byHand(line, random)).ok;
      }
      throw new Error('nothing to do wrong');
    });
    const told = [...good, ...bad].filter(Boolean).length;
    expect(told / (2 * HANDS), sign).toBeGreaterThanOrEqual(0.95);
  });

  const line = (sign: DrawnSign, at: number) => strokesOf(sign)[at]!.points;
  const up = (points: readonly Point[], by: number) => points.map(({ x, y }) => ({ x, y: y + by }));

  it.each<[string, DrawnSign, number, readonly Point[], string]>([
    ['a stem from the top', 'half', 1, [...line('half', 1)].reverse(), 'backwards'],
    ['half a stem', 'half', 1, line('half', 1).slice(0, 8), 'short'],
    ['a stem that starts elsewhere', 'half', 1, up(line('half', 1), 2), 'start'],
    ['a head that is left open', 'half', 0, line('half', 0).slice(0, 39), 'open'],
    ['a half rest for a whole rest', 'whole-rest', 0, up(line('half-rest', 0), 1), 'way'],
    ['a head that is hardly filled', 'quarter', 1, line('quarter', 1).slice(0, 10), 'not-filled'],
    ['a long line for a dot', 'bass', 2, line('bass', 1), 'not-a-dot'],
    ['nothing at all', 'half', 0, [], 'short'],
    ['a stem far beyond its end', 'half', 1, [...line('half', 1), ...up(line('half', 1), 3.5)], 'long'],
  ])('%s', (_what, sign, at, points, fault) => expect(traceStroke(sign, at, points)).toEqual({ ok: false, fault }));

  it('a clef may be drawn in one go', () => {
    const strokes = strokesOf('treble').slice(1);
    const whole = strokes.flatMap(({ points }) => [...points]);
    expect(traceStroke('treble', 1, whole)).toEqual({ ok: true, strokes: strokes.length });
    expect(traceStroke('treble', 1, line('treble', 1))).toEqual({ ok: true, strokes: 1 });
  });

  it('a dot is a touch', () => expect(traceStroke('bass', 0, [{ x: -0.8, y: 3.1 }])).toEqual({ ok: true, strokes: 1 }));
});
