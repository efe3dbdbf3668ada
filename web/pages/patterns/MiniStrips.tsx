import { toNumber } from '../../../core/rhythm/fraction.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { playPattern } from '../../../core/rhythm/place.ts';
import '../../ruler/strips.scss';

const WIDTH = 320;
const HEIGHT = 16;
/** Longest stretch shown, in whole notes. */
const MOST = 4;

/** A pattern at a glance: its strips on one short line. */
export function MiniStrips({ pattern }: { pattern: Pattern }) {
  const played = playPattern(pattern);
  const first = played[0];
  if (!first) return null;
  const from = toNumber(first.at);
  const last = played.at(-1)!;
  const length = Math.min(MOST, toNumber(last.at) + toNumber(last.measure.length) - from);
  const scale = WIDTH / length;
  return (
    <svg className="mini-strips" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none" aria-hidden>
      {played.map(({ at, measure }, m) =>
        measure.events.map((event, i) => {
          const x = (toNumber(at) - from + toNumber(event.onset) - toNumber(measure.onset)) * scale;
          if (x >= WIDTH - 0.5) return null;
          return (
            <rect
              key={`${m}-${i}`}
              className={`strip strip-${event.kind}`}
              x={x + 0.5}
              y={1}
              width={Math.max(1, toNumber(event.length) * scale - (event.tiedToNext ? 0 : 2))}
              height={HEIGHT - 2}
            />
          );
        }),
      )}
    </svg>
  );
}
