import { useEffect, useMemo, useRef, useState } from 'react';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { NotesLane } from './NotesLane.tsx';
import { layoutPaper } from '../../drawing/paperLayout.ts';
import './ruler.scss';

/** Pixels: the cards of a list are as wide as each other, and the drawing shrinks with them. */
const WIDTH = 360;
/** In front of the first note: the meter sign. */
export const BEFORE = 34;

interface MiniNotesProps {
  readonly pattern: Pattern;
  /** All of it, drawn at once, in sight or not: for paper. */
  readonly whole?: boolean;
}

/** A pattern at a glance, small: its first line of notes, or all of them. */
export function MiniNotes({ pattern, whole = false }: MiniNotesProps) {
  const [ref, inSight] = useSeen();
  const seen = whole || inSight;
  const systems = useMemo(() => layoutPaper(pattern, { size: 'card', width: WIDTH, before: BEFORE }), [pattern]);
  return (
    <div ref={ref} className={`mini-notes ${systems.length > 1 && !whole ? 'mini-notes-more' : ''}`} aria-hidden>
      {seen &&
        systems
          .slice(0, whole ? systems.length : 1)
          .map((system, i) => <NotesLane key={i} system={system} size="card" />)}
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
