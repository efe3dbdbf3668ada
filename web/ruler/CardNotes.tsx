import { useMemo } from 'react';
import { toNumber } from '../../core/rhythm/fraction.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { NotesLane } from './NotesLane.tsx';
import { layoutRuler } from '../../drawing/layout.ts';
import './ruler.scss';

/** Room before the first head, which would else be cut in half. */
const BEFORE = 26;
/** A bar line stands so far before the end of its measure. */
const BAR = 15;

interface CardNotesProps {
  /** One measure, as long as the card. */
  readonly pattern: Pattern;
  /** Pixels of a whole note. */
  readonly whole: number;
  /** A bar line at its end. */
  readonly bar: boolean;
}

/** The notes of a card alone: no meter, and as wide as its time. */
export function CardNotes({ pattern, whole, bar }: CardNotesProps) {
  const { system, width } = useMemo(() => {
    const [measure] = layoutRuler(pattern, whole, 'desk').systems[0]!.measures;
    const long = toNumber(measure!.placed.length) * whole;
    const bare = { ...measure!, x: BEFORE, width: long, meterSign: false, last: false };
    return { system: { measures: [bare], width: long + BEFORE }, width: long + BEFORE };
  }, [pattern, whole]);
  return (
    <div className="card-notes" style={{ width: bar ? width : width - BAR }} aria-hidden>
      <NotesLane system={system} size="desk" scale={whole} />
    </div>
  );
}
