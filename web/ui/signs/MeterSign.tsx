import type { Meter } from '../../../core/rhythm/meter.ts';

const ZERO = 0xe080;

/** In the figures of the music font, one above the other. */
export function MeterSign({ meter: { upper, lower } }: { meter: Meter }) {
  return (
    <span className="meter-sign">
      <span className="visually-hidden">
        {upper}/{lower}
      </span>
      {[upper, lower].map((number, i) => (
        <span key={i} aria-hidden>
          {[...String(number)].map((figure) => String.fromCodePoint(ZERO + Number(figure))).join('')}
        </span>
      ))}
    </span>
  );
}
