import type { CountOptions } from '../../core/counting/count.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { MovingBeat } from '../ruler/MovingBeat.tsx';
import { Ruler } from '../ruler/Ruler.tsx';

interface RoomRulerProps {
  /** Its repeats written out. */
  readonly pattern: Pattern;
  readonly counts: readonly CountOptions[];
  readonly bpm: number;
  readonly now: () => number | undefined;
}

/** A rhythm as it stands on the board, with the beat that is due. */
export function RoomRuler({ pattern, counts, bpm, now }: RoomRulerProps) {
  return (
    <div className="room-ruler">
      <Ruler
        pattern={pattern}
        size="board"
        fit
        strips={false}
        counts={counts}
        overlay={(system, layout) => (
          <MovingBeat pattern={pattern} bpm={bpm} now={now} system={system} layout={layout} />
        )}
      />
    </div>
  );
}
