import { useMemo } from 'react';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { NotesLane } from './NotesLane.tsx';
import { layoutRuler } from './layout.ts';
import './ruler.scss';

/** Room before the first head, which would else be cut in half. */
const BEFORE = 26;
/** Pixels of a whole note on a card: cards are as wide as they last. */
const WHOLE = 420;

/** The notes of a card alone: no meter, no end, as wide as its time. */
export function CardNotes({ pattern }: { pattern: Pattern }) {
  const { system, scale, from } = useMemo(() => {
    const length = pattern.measures.reduce((sum, { meter }) => sum + meter.upper / meter.lower, 0);
    const layout = layoutRuler(pattern, WHOLE * length + 140, 'desk');
    const measures = layout.systems.flatMap((line) => line.measures).slice(0, 1);
    const bare = measures.map((measure) => ({ ...measure, meterSign: false, last: false }));
    return {
      system: { measures: bare, width: (bare[0]?.x ?? 0) + (bare[0]?.width ?? 0) },
      scale: layout.scale,
      from: bare[0]?.x ?? 0,
    };
  }, [pattern]);
  return (
    <div className="card-notes" style={{ width: system.width - from + BEFORE }} aria-hidden>
      <div style={{ marginLeft: BEFORE - from }}>
        <NotesLane system={system} size="desk" scale={scale} />
      </div>
    </div>
  );
}
