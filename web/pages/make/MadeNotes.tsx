import { useMemo } from 'react';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { layoutPaper } from '../../../drawing/paperLayout.ts';
import { BEFORE } from '../../ruler/MiniNotes.tsx';
import { NotesLane } from '../../ruler/NotesLane.tsx';
import { useWidth } from '../../ruler/useWidth.ts';
import '../../ruler/ruler.scss';

/** All of a made pattern as small notes: it is chosen by what it looks like to its end. */
export function MadeNotes({ pattern }: { pattern: Pattern }) {
  const [frame, width] = useWidth();
  const systems = useMemo(() => layoutPaper(pattern, { size: 'card', width, before: BEFORE }), [pattern, width]);
  return (
    <div ref={frame} className="made-notes" aria-hidden>
      {width > 0 && systems.map((system, i) => <NotesLane key={`${i} ${width}`} system={system} size="card" />)}
    </div>
  );
}
