import { toNumber } from '../../core/rhythm/fraction.ts';
import { STRIPS_HEIGHTS } from '../../drawing/heights.ts';
import { type RulerSize, type RulerSystem, xOf } from '../../drawing/system.ts';
import './strips.scss';

/** Each note a strip of paper as long as its time, each rest an open outline; a tied-on note goes on without a seam. */
export function StripsLane({ system, size, scale }: { system: RulerSystem; size: RulerSize; scale: number }) {
  const height = STRIPS_HEIGHTS[size];
  return (
    <svg className="lane-strips" width={system.width} height={height} aria-hidden>
      {system.measures.map((measure) =>
        measure.placed.events.map((event, i) => {
          const x = xOf(measure, event.onset, scale);
          const width = toNumber(event.length) * scale;
          const end = event.tiedToNext ? 0 : 2.5;
          const start = event.kind === 'tied' ? -1 : 0.75;
          return (
            <rect
              key={`${measure.index}-${i}`}
              className={`strip strip-${event.kind}`}
              x={x + start}
              y={1.5}
              width={Math.max(2, width - end - start)}
              height={height - 3}
              rx={event.kind === 'tied' || event.tiedToNext ? 0 : 2}
            />
          );
        }),
      )}
    </svg>
  );
}
