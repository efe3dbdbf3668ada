import { t } from '../../../core/words/say.ts';
import { type PointerEvent as Pointing, useEffect, useRef, useState } from 'react';
import type { Point, Stroke } from '../../../core/ear/strokes.ts';
import { useKeys } from '../../ui/useKeys.ts';

/** Units of the drawing for one staff space, and what of the staff is shown, in spaces. */
const SPACE = 40;
const LEFT = -5;
const RIGHT = 7;
const TOP = 6.3;
const BOTTOM = -2.4;
const LINES = [0, 1, 2, 3, 4] as const;
/** A stroke is shown as fast as a teacher draws: spaces a second. */
const PEN_SPEED = 4;
const STEP = 0.1;
const LONG_STEP = 0.4;

const toX = (x: number) => (x - LEFT) * SPACE;
const toY = (y: number) => (TOP - y) * SPACE;
const pathOf = (points: readonly Point[]) =>
  points.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${toX(x).toFixed(1)} ${toY(y).toFixed(1)}`).join(' ');

interface BoardProps {
  readonly strokes: readonly Stroke[];
  /** The stroke that is to be drawn. */
  readonly at: number;
  /** The last try, where it was not right. */
  readonly tried: readonly Point[] | undefined;
  readonly shows: number;
  readonly onDrawn: (points: readonly Point[]) => void;
}

/** Where a finger or the mouse is, in staff spaces. */
function placeOf(svg: SVGSVGElement, { clientX, clientY }: { clientX: number; clientY: number }): Point {
  const box = svg.getBoundingClientRect();
  return {
    x: LEFT + ((clientX - box.left) / box.width) * (RIGHT - LEFT),
    y: TOP - ((clientY - box.top) / box.height) * (TOP - BOTTOM),
  };
}

/** A pen that is moved by keys: arrows move it, enter puts it down and lifts it. */
function useKeyPen(from: Point | undefined, onDrawn: BoardProps['onDrawn']) {
  const [pen, setPen] = useState<Point>();
  const [line, setLine] = useState<readonly Point[]>();
  const move = (dx: number, dy: number) => (event: KeyboardEvent) => {
    const by = event.shiftKey ? LONG_STEP : STEP;
    const here = pen ?? from ?? { x: 0, y: 2 };
    const next = { x: here.x + dx * by, y: here.y + dy * by };
    setPen(next);
    if (line) setLine([...line, next]);
  };
  const press = () => {
    const here = pen ?? from;
    if (!here) return;
    setPen(here);
    if (line) {
      setLine(undefined);
      onDrawn(line);
    } else setLine([here]);
  };
  useKeys({
    ArrowLeft: move(-1, 0),
    ArrowRight: move(1, 0),
    ArrowUp: move(0, 1),
    ArrowDown: move(0, -1),
    Enter: press,
  });
  return { pen, line };
}

/** Five lines with a faint guide, the pen that shows the stroke, and what is drawn. */
export function DrawBoard({ strokes, at, tried, shows, onDrawn }: BoardProps) {
  const svg = useRef<SVGSVGElement>(null);
  const [drawing, setDrawing] = useState<readonly Point[]>();
  const stroke = strokes[at];
  const keyPen = useKeyPen(stroke?.points[0], onDrawn);
  const begin = (event: Pointing<SVGSVGElement>) => {
    if (!stroke || !event.isPrimary) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    setDrawing([placeOf(event.currentTarget, event)]);
  };
  const move = (event: Pointing<SVGSVGElement>) => {
    if (!drawing) return;
    // The browser puts several movements into one event; a curve needs them all.
    const all = event.nativeEvent.getCoalescedEvents?.() ?? [];
    const places = (all.length > 0 ? all : [event]).map((one) => placeOf(svg.current!, one));
    setDrawing([...drawing, ...places]);
  };
  const end = () => {
    if (!drawing) return;
    setDrawing(undefined);
    onDrawn(drawing);
  };
  const live = drawing ?? keyPen.line;
  return (
    <svg
      ref={svg}
      className="draw-board"
      viewBox={`0 0 ${(RIGHT - LEFT) * SPACE} ${(TOP - BOTTOM) * SPACE}`}
      role="img"
      aria-label={stroke ? t`Stroke ${at + 1} of ${strokes.length} is to be drawn` : t`All strokes are drawn`}
      onPointerDown={begin}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={() => setDrawing(undefined)}
    >
      {LINES.map((line) => (
        <line key={line} className="draw-line" x1={0} x2={(RIGHT - LEFT) * SPACE} y1={toY(line)} y2={toY(line)} />
      ))}
      {strokes.map(({ points, kind }, i) => (
        <path
          key={i}
          d={pathOf(points)}
          className={`draw-stroke draw-${kind} ${i < at ? 'drawn' : i === at ? 'next' : 'later'}`}
        />
      ))}
      {stroke && <Ends stroke={stroke} />}
      {stroke && <MovingPen key={`${at} ${shows}`} points={stroke.points} />}
      {tried && !live && <path className="draw-tried" d={pathOf(tried)} />}
      {live && <path className="draw-live" d={pathOf(live)} />}
      {keyPen.pen && <circle className="draw-key-pen" cx={toX(keyPen.pen.x)} cy={toY(keyPen.pen.y)} r={9} />}
    </svg>
  );
}

/** Where a stroke begins, and where it ends: an arrow in its direction. */
function Ends({ stroke: { points, kind } }: { stroke: Stroke }) {
  const [first, last, before] = [points[0]!, points.at(-1)!, points.at(-4)!];
  const angle = (Math.atan2(toY(last.y) - toY(before.y), toX(last.x) - toX(before.x)) * 180) / Math.PI;
  return (
    <>
      <circle className="draw-start" cx={toX(first.x)} cy={toY(first.y)} r={11} />
      {kind === 'path' && (
        <path
          className="draw-end"
          d="M-15 -11 L3 0 L-15 11"
          transform={`translate(${toX(last.x)} ${toY(last.y)}) rotate(${angle})`}
        />
      )}
    </>
  );
}

/** Runs once along the stroke; for those who want less motion the marks at its ends have to do. */
function MovingPen({ points }: { points: readonly Point[] }) {
  const pen = useRef<SVGCircleElement>(null);
  const trail = useRef<SVGPathElement>(null);
  useEffect(() => {
    if (matchMedia('(prefers-reduced-motion: reduce)').matches) return undefined;
    const length = points
      .slice(1)
      .reduce((sum, point, i) => sum + Math.hypot(point.x - points[i]!.x, point.y - points[i]!.y), 0);
    const seconds = Math.max(0.5, length / PEN_SPEED);
    let frame = 0;
    let begun: number | undefined;
    const step = (now: number) => {
      begun ??= now;
      const part = Math.min(1, (now - begun) / 1000 / seconds);
      const upTo = Math.round(part * (points.length - 1));
      const here = points[upTo]!;
      pen.current?.setAttribute('cx', String(toX(here.x)));
      pen.current?.setAttribute('cy', String(toY(here.y)));
      pen.current?.setAttribute('visibility', part < 1 ? 'visible' : 'hidden');
      trail.current?.setAttribute('d', part < 1 ? pathOf(points.slice(0, upTo + 1)) : '');
      if (part < 1) frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [points]);
  return (
    <>
      <path ref={trail} className="draw-trail" d="" />
      <circle ref={pen} className="draw-pen" r={15} visibility="hidden" />
    </>
  );
}
