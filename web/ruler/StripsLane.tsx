import { toNumber } from '../../core/rhythm/fraction.ts';
import { STRIPS_HEIGHTS } from '../../drawing/heights.ts';
import { type RulerSize, type RulerSystem, xOf } from '../../drawing/system.ts';
import './strips.scss';

/** Each note a strip of paper as long as its time, each rest an open outline; a tied-on note goes on without a seam. */
interface StripsProps {
  readonly system: RulerSystem;
  readonly size: RulerSize;
  readonly scale: number;
  /** Of several parts the how manieth: each has a colour and a shape of its own. */
  readonly part?: number | undefined;
}

/** Round ends for every other part. */
const ROUND = 9;

export function StripsLane({ system, size, scale, part }: StripsProps) {
  const height = STRIPS_HEIGHTS[size];
  return (
    <svg className="lane-strips" width={system.width} height={height} aria-hidden>
      {part !== undefined && part >= 2 && <PatternedPaper />}
      {system.measures.map((measure) =>
        measure.placed.events.map((event, i) => {
          const x = xOf(measure, event.onset, scale);
          const width = toNumber(event.length) * scale;
          const end = event.tiedToNext ? 0 : 2.5;
          const start = event.kind === 'tied' ? -1 : 0.75;
          return (
            <rect
              key={`${measure.index}-${i}`}
              className={`strip strip-${event.kind}${part === undefined ? '' : ` strip-of-${part}`}`}
              x={x + start}
              y={1.5}
              width={Math.max(2, width - end - start)}
              height={height - 3}
              rx={event.kind === 'tied' || event.tiedToNext ? 0 : part !== undefined && part % 2 === 1 ? ROUND : 2}
            />
          );
        }),
      )}
    </svg>
  );
}

interface PaperProps {
  readonly part: number;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** A piece of the paper that a part has for its strips. */
export function StripPaper({ part, ...box }: PaperProps) {
  return (
    <>
      {part >= 2 && <PatternedPaper />}
      <rect className={`strip strip-note strip-of-${part}`} {...box} rx={part % 2 === 1 ? ROUND : 2} />
    </>
  );
}

/** Paper with lines and with dots, for a third and a fourth part. */
function PatternedPaper() {
  return (
    <defs>
      <pattern id="strip-lines" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect className="paper-ground" width="7" height="7" />
        <line className="paper-mark" x1="0" x2="0" y1="0" y2="7" />
      </pattern>
      <pattern id="strip-dots" width="9" height="9" patternUnits="userSpaceOnUse">
        <rect className="paper-ground-second" width="9" height="9" />
        <circle className="paper-spot" cx="4.5" cy="4.5" r="1.9" />
      </pattern>
    </defs>
  );
}
