import { useMemo } from 'react';
import { toNumber } from '../../core/rhythm/fraction.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { placePattern } from '../../core/rhythm/place.ts';
import { END_GAP } from '../../drawing/layout.ts';
import { layoutPaper } from '../../drawing/paperLayout.ts';
import { BAR_BEFORE, type RulerSize, ZOOM } from '../../drawing/system.ts';
import { NotesLane } from './NotesLane.tsx';
import './ruler.scss';

/** A card whose whole note is as wide is read from afar: its notes are as large as on the board. */
const LARGE = 620;
/** Room before the first head, and after the last bar line. */
const BEFORE = 26;
const AFTER = 2;
/** Where no bar line stands at the end, it is drawn beyond the edge. */
const BEYOND = 6;

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
  const { system, width, size } = useMemo(() => {
    const [placed] = placePattern(pattern);
    const size: RulerSize = whole >= LARGE ? 'board' : 'desk';
    const before = (BEFORE * ZOOM[size]) / ZOOM.desk;
    const wide = toNumber(placed!.length) * whole + before / 2;
    const barAt = bar ? wide - AFTER : wide + BEYOND;
    const fill = barAt + BAR_BEFORE * ZOOM[size] + END_GAP;
    const [line] = layoutPaper(pattern, { size, width: fill, before, widest: Infinity });
    const measures = line!.measures.map((measure) => ({ ...measure, meterSign: false, last: false }));
    return { system: { ...line!, measures }, width: wide, size };
  }, [pattern, whole, bar]);
  return (
    <div className="card-notes" style={{ width }} aria-hidden>
      <NotesLane system={system} size={size} />
    </div>
  );
}
