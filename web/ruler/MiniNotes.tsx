import { useEffect, useMemo, useRef, useState } from 'react';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { placePattern } from '../../core/rhythm/place.ts';
import type { Part } from '../../core/rhythm/score.ts';
import { layoutRuler } from '../../drawing/layout.ts';
import { NOTES_HEIGHTS } from '../../drawing/heights.ts';
import { type RulerSystem, withPlaced } from '../../drawing/system.ts';
import { NotesLane } from './NotesLane.tsx';
import { layoutPaper } from '../../drawing/paperLayout.ts';
import './ruler.scss';

/** Pixels: the cards of a list are as wide as each other, and the drawing shrinks with them. */
const WIDTH = 360;
/** In front of the first note: the meter sign. */
export const BEFORE = 34;

interface MiniNotesProps {
  readonly pattern: Pattern;
  /** Several that sound together stand one under the other, on one axis. */
  readonly parts?: readonly Part[];
  /** All of it, drawn at once, in sight or not: for paper. */
  readonly whole?: boolean;
}

const CARD = { size: 'card', width: WIDTH, before: BEFORE } as const;

/** The lines of a score, each a system of every part. */
function scoreLines(parts: readonly Part[]): RulerSystem[][] {
  const placed = parts.map(({ pattern }) => placePattern(pattern));
  const beside = placed.slice(1).map((own) => ({ placed: own }));
  const { systems, scale } = layoutRuler(parts[0]!.pattern, WIDTH, 'card', [], undefined, beside);
  return systems.map((system) => placed.map((own) => withPlaced(system, own, { scale, size: 'card' })));
}

/** A pattern at a glance, small: its first line of notes, or all of them. */
export function MiniNotes({ pattern, parts, whole = false }: MiniNotesProps) {
  const [ref, inSight] = useSeen();
  const several = parts !== undefined && parts.length > 1;
  const seen = whole || inSight;
  const lines = useMemo(
    () => (several ? scoreLines(parts) : layoutPaper(pattern, CARD).map((system) => [system])),
    [pattern, several, parts],
  );
  return (
    <div ref={ref} className={`mini-notes ${lines.length > 1 && !whole ? 'mini-notes-more' : ''}`} aria-hidden>
      {seen &&
        lines
          .slice(0, whole ? lines.length : 1)
          .flatMap((systems, i) =>
            systems.map((system, k) => (
              <NotesLane
                key={`${i}-${k}`}
                system={system}
                size="card"
                barsDown={k === 0 ? (systems.length - 1) * NOTES_HEIGHTS.card : 0}
              />
            )),
          )}
    </div>
  );
}

/** True from when the element was first near the window: long lists are drawn as they come. */
function useSeen() {
  const ref = useRef<HTMLDivElement>(null);
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    const element = ref.current;
    if (!element || seen) return;
    const observer = new IntersectionObserver(
      (entries) => entries.some(({ isIntersecting }) => isIntersecting) && setSeen(true),
      { rootMargin: '200px' },
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, [seen]);
  return [ref, seen] as const;
}
