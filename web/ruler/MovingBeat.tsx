import { EPSILON } from '../../core/timing/tolerance.ts';
import { useEffect, useRef } from 'react';
import { bringInSight } from './inSight.ts';
import { scheduleOf } from '../../core/timing/schedule.ts';
import { toNumber } from '../../core/rhythm/fraction.ts';
import { beatOf } from '../../core/rhythm/meter.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import type { RulerLayout } from '../../drawing/layout.ts';
import type { RulerSystem } from '../../drawing/system.ts';

/** The mark that moves with the time; for those who want less motion it steps from beat to beat. */
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
  useEffect(() => {
    const { measures, whole } = scheduleOf(pattern, bpm);
    const calm = matchMedia('(prefers-reduced-motion: reduce)').matches;
    let frame = 0;
    let wasHere = false;
    const draw = () => {
      frame = requestAnimationFrame(draw);
      const here = mark.current;
      const time = now();
      if (!here) return;
      const x = time === undefined ? undefined : xNow(time / whole);
      here.style.visibility = x === undefined ? 'hidden' : 'visible';
      if (x !== undefined && !wasHere) bringInSight(here.closest('.ruler-system'));
      wasHere = x !== undefined;
      if (x !== undefined) here.style.transform = `translateX(${x}px)`;
    };
    const xNow = (at: number): number | undefined => {
      for (const measure of system.measures) {
        const played = measures[measure.index];
        if (!played) continue;
        let inside = at - toNumber(played.at);
        if (inside < 0 || inside >= toNumber(played.measure.length)) continue;
        const beat = toNumber(beatOf(played.measure.meter).length);
        if (calm) inside = Math.floor(inside / beat + EPSILON) * beat;
        return measure.x + inside * layout.scale;
      }
      return undefined;
    };
    draw();
    return () => cancelAnimationFrame(frame);
  }, [pattern, bpm, now, system, layout]);
  return <div ref={mark} className="moving-beat" aria-hidden style={{ visibility: 'hidden' }} />;
}
