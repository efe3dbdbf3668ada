import { decimal, t } from '../../core/words/say.ts';
import { type KeyboardEvent, type MouseEvent, type PointerEvent, useRef } from 'react';
import { type RulerSystem, xOf } from '../../drawing/system.ts';
import type { Correction, EditedClap } from './useCorrection.ts';

/** What an arrow key moves a clap by, seconds; with shift. */
const STEP = { one: 0.01, far: 0.05 };
/** Pixels a finger may slip before it moves a clap instead of choosing it. */
const SLIP = 4;

interface HandlesProps {
  readonly correction: Correction;
  readonly system: RulerSystem;
  readonly scale: number;
}

/** The claps over one line of the ruler, to be struck out, moved, and added between. */
export function ClapHandles({ correction, system, scale }: HandlesProps) {
  const { claps, places, add } = correction;
  if (!places) return null;
  const here = claps.flatMap((clap) => {
    const { measure, onset } = places.placeOf(clap.time);
    const on = system.measures.find(({ index }) => index === measure);
    return on ? [{ clap, x: xOf(on, onset, scale) }] : [];
  });
  const addHere = (event: MouseEvent<HTMLDivElement>) => {
    if (event.target !== event.currentTarget) return;
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left;
    const on = system.measures.findLast((measure) => measure.x <= x) ?? system.measures[0]!;
    const onset = (x - on.x) / scale + xOnset(on);
    add(places.timeOf({ measure: on.index, onset }));
  };
  return (
    <div className="clap-lane" onClick={addHere} role="presentation">
      {here.map(({ clap, x }) => (
        <ClapHandle key={clap.id} correction={correction} clap={clap} x={x} secondsPerPixel={places.whole / scale} />
      ))}
    </div>
  );
}

const xOnset = ({ placed: { onset } }: RulerSystem['measures'][number]) => onset.n / onset.d;

interface HandleProps {
  readonly correction: Correction;
  readonly clap: EditedClap;
  readonly x: number;
  readonly secondsPerPixel: number;
}

function ClapHandle({ correction: { strike, move }, clap: { id, time, struck }, x, secondsPerPixel }: HandleProps) {
  const drag = useRef<{ readonly from: number; readonly time: number; moved: boolean }>(undefined);
  const down = (event: PointerEvent<HTMLButtonElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { from: event.clientX, time, moved: false };
  };
  const dragged = ({ clientX }: PointerEvent) => {
    const now = drag.current;
    if (!now || (!now.moved && Math.abs(clientX - now.from) < SLIP)) return;
    now.moved = true;
    move(id, now.time + (clientX - now.from) * secondsPerPixel);
  };
  const up = () => {
    if (drag.current && !drag.current.moved) strike(id);
    drag.current = undefined;
  };
  const key = (event: KeyboardEvent) => {
    const by = event.shiftKey ? STEP.far : STEP.one;
    const actions: Readonly<Record<string, () => void>> = {
      ArrowLeft: () => move(id, time - by),
      ArrowRight: () => move(id, time + by),
      Delete: () => strike(id),
      Backspace: () => strike(id),
      Enter: () => strike(id),
      ' ': () => strike(id),
    };
    const action = actions[event.key];
    if (!action) return;
    event.preventDefault();
    event.stopPropagation();
    action();
  };
  return (
    <button
      type="button"
      className={struck ? 'clap struck' : 'clap'}
      style={{ left: x }}
      aria-pressed={struck}
      aria-label={t`Clap at ${decimal(time.toFixed(2))} seconds${struck ? t`, struck out` : ''}`}
      onPointerDown={down}
      onPointerMove={dragged}
      onPointerUp={up}
      onPointerCancel={() => (drag.current = undefined)}
      onKeyDown={key}
    />
  );
}
