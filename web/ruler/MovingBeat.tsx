import { EPSILON } from '../../core/timing/tolerance.ts';
import { useEffect, useRef } from 'react';
import { bringInSight } from './inSight.ts';
import { scheduleOf } from '../../core/timing/schedule.ts';
import { toNumber } from '../../core/rhythm/fraction.ts';
import { beatOf } from '../../core/rhythm/meter.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import type { RulerLayout } from '../../drawing/layout.ts';
import type { RulerSystem } from '../../drawing/system.ts';
import { dueSpan } from './dueSpan.ts';

/**
 * The mark that moves with the time, and a frame round the beat that is due, which a class sees from the back. For
 * those who want less motion the mark steps from beat to beat; the frame always does.
 */
export function MovingBeat({
  pattern,
  bpm,
  now,
  system,
  layout,
}: {
  pattern: Pattern;
  bpm: number;
  now: () => number | undefined;
  system: RulerSystem;
  layout: RulerLayout;
}) {
  const mark = useRef<HTMLDivElement>(null);
  const frame = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const { measures, whole } = scheduleOf(pattern, bpm);
    const calm = matchMedia('(prefers-reduced-motion: reduce)').matches;
    let asked = 0;
    let shown = '';
    let wasHere = false;
    const draw = () => {
      asked = requestAnimationFrame(draw);
      const here = mark.current;
      const time = now();
      const due = frame.current;
      if (!here || !due) return;
      const place =
        time === undefined ? undefined : placeNow(time / whole, { measures, whole, system, scale: layout.scale, calm });
      const x = place?.x;
      for (const one of [here, due]) one.style.visibility = place ? 'visible' : 'hidden';
      const at = place ? `${place.from} ${place.width}` : shown;
      if (place && at !== shown) {
        due.style.transform = `translateX(${place.from}px)`;
        due.style.width = `${place.width}px`;
        shown = at;
      }
      if (x !== undefined && !wasHere) bringInSight(here.closest('.ruler-system'));
      wasHere = x !== undefined;
      if (x !== undefined) here.style.transform = `translateX(${x}px)`;
    };
    draw();
    return () => cancelAnimationFrame(asked);
  }, [pattern, bpm, now, system, layout]);
  return (
    <>
      <div ref={frame} className="due-beat" aria-hidden style={{ visibility: 'hidden' }} />
      <div ref={mark} className="moving-beat" aria-hidden style={{ visibility: 'hidden' }} />
    </>
  );
}

interface Drawn {
  readonly measures: ReturnType<typeof scheduleOf>['measures'];
  /** Seconds of a whole note. */
  readonly whole: number;
  readonly system: RulerSystem;
  readonly scale: number;
  /** From beat to beat. */
  readonly calm: boolean;
}

/** Where the mark and its frame stand on this line, in pixels; undefined while another line sounds. */
function placeNow(at: number, { measures, whole, system, scale, calm }: Drawn) {
  for (const measure of system.measures) {
    const played = measures[measure.index];
    if (!played) continue;
    const inside = at - toNumber(played.at);
    const { onset, length, meter } = played.measure;
    if (inside < 0 || inside >= toNumber(length)) continue;
    const beat = toNumber(beatOf(meter).length);
    const span = dueSpan(inside, toNumber(onset), toNumber(length), beat, whole);
    const x = (time: number) => measure.x + time * scale;
    const mark = calm ? Math.floor(inside / beat + EPSILON) * beat : inside;
    return { x: x(mark), from: x(span.from), width: (span.to - span.from) * scale };
  }
  return undefined;
}
