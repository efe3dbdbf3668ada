import { useEffect, useMemo, useRef, useState } from 'react';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { NotesLane } from './NotesLane.tsx';
import { layoutRuler } from '../../drawing/layout.ts';
import './ruler.scss';

/** Pixels: the cards of a list are as wide as each other, and the drawing shrinks with them. */
const WIDTH = 360;

interface MiniNotesProps {
  readonly pattern: Pattern;
  /** Drawn at once, in sight or not: for paper. */
  readonly atOnce?: boolean;
}

/** A pattern at a glance: its first line of notes, small. */
export function MiniNotes({ pattern, atOnce = false }: MiniNotesProps) {
  const [ref, inSight] = useSeen();
  const seen = atOnce || inSight;
  const { systems, scale } = useMemo(() => layoutRuler(pattern, WIDTH, 'card'), [pattern]);
  const first = systems[0];
  return (
    <div ref={ref} className={`mini-notes ${systems.length > 1 ? 'mini-notes-more' : ''}`} aria-hidden>
      {seen && first && <NotesLane system={first} size="card" scale={scale} />}
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
