import { useMemo } from 'react';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { NotesLane } from './NotesLane.tsx';
import { layoutRuler } from './layout.ts';
import './ruler.scss';

/** Room before the first head, which would else be cut in half. */
const BEFORE = 26;

/**
 * The notes of a card alone: no meter, no end, as wide as its time.
 * @param whole  pixels of a whole note
 */
export function CardNotes({ pattern, whole }: { pattern: Pattern; whole: number }) {
  const { system, scale, from } = useMemo(() => {
    const length = pattern.measures.reduce((sum, { meter }) => sum + meter.upper / meter.lower, 0);
    const layout = layoutRuler(pattern, whole * length + 140, 'desk');
    const measures = layout.systems.flatMap((line) => line.measures).slice(0, 1);
    const bare = measures.map((measure) => ({ ...measure, meterSign: false, last: false }));
    return {
      system: { measures: bare, width: (bare[0]?.x ?? 0) + (bare[0]?.width ?? 0) },
      scale: layout.scale,
      from: bare[0]?.x ?? 0,
    };
  }, [pattern, whole]);
  return (
    <div className="card-notes" style={{ width: system.width - from + BEFORE }} aria-hidden>
      <div style={{ marginLeft: BEFORE - from }}>
        <NotesLane system={system} size="desk" scale={scale} />
      </div>
    </div>
  );
}
