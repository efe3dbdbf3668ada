import { useEffect, useRef, useState } from 'react';
import { NOTES_HEIGHTS } from './heights.ts';
import type { RulerSize, RulerSystem } from './layout.ts';

type Engraver = typeof import('./engrave.ts');

let loaded: Engraver | undefined;

/** The engraver comes when the first notes are to be shown. */
function useEngraver(): Engraver | undefined {
  const [engraver, setEngraver] = useState(loaded);
  useEffect(() => {
    if (engraver) return;
    void import('./engrave.ts').then(async (found) => {
      await found.engravingReady();
      loaded = found;
      setEngraver(found);
    });
  }, [engraver]);
  return engraver;
}

/** What is drawn depends on nothing else: a line is drawn again only when this changes. */
function drawingKey(system: RulerSystem, size: RulerSize, scale: number): string {
  const measures = system.measures.map(({ placed, x, meterSign, repeatStart, repeatEnd, last }) => [
    x.toFixed(1),
    meterSign && placed.meter.upper,
    meterSign && placed.meter.lower,
    repeatStart,
    repeatEnd,
    last,
    placed.events.map(
      ({ kind, value, onset, tiedToNext, tuplet, wholeMeasure }) =>
        `${kind}${value.base}${value.dots}@${onset.n}/${onset.d}${tiedToNext}${tuplet?.n ?? ''}${wholeMeasure ?? ''}`,
    ),
  ]);
  return JSON.stringify([size, scale, system.width, measures]);
}

export function NotesLane({ system, size, scale }: { system: RulerSystem; size: RulerSize; scale: number }) {
  const engraver = useEngraver();
  const element = useRef<HTMLDivElement>(null);
  const key = drawingKey(system, size, scale);
  useEffect(() => {
    const here = element.current;
    if (!engraver || !here) return;
    here.replaceChildren();
    engraver.engrave(here, system, size, scale);
    // Everything the drawing shows is in the key.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [engraver, key]);
  return <div ref={element} className="lane-notes" style={{ height: NOTES_HEIGHTS[size] }} aria-hidden />;
}
