import { perLanguage, t } from '../../core/words/say.ts';
import { HEARD_HEIGHTS } from '../../drawing/heights.ts';
import { type RulerSize, type RulerSystem, xOf } from '../../drawing/system.ts';

export type MarkShape = 'on-time' | 'early' | 'late' | 'missed' | 'extra';

/**
 * Something heard, or not heard, at a place: measure among the placed ones, onset from the bar line as part of a whole
 * note.
 */
export interface HeardMark {
  readonly measure: number;
  readonly onset: number;
  readonly shape: MarkShape;
  /** Where the note is written, when there is one, and its on-time window, all parts of a whole note. */
  readonly written?: number;
  readonly window?: { readonly early: number; readonly late: number };
}

/** Each verdict has a shape of its own; colour only repeats it. */
const PATHS: Readonly<Record<MarkShape, string>> = {
  'on-time': 'M0 -9 L9 0 L0 9 L-9 0 Z',
  early: 'M6 -9 L-8 0 L6 9 Z',
  late: 'M-6 -9 L8 0 L-6 9 Z',
  missed: 'M-8 0 A8 8 0 1 0 8 0 A8 8 0 1 0 -8 0',
  extra: 'M-7 -7 L7 7 M7 -7 L-7 7',
};

export const MARK_NAMES = perLanguage((): Readonly<Record<MarkShape, string>> => ({
  'on-time': t`on time`,
  early: t`too early`,
  late: t`too late`,
  missed: t`not heard`,
  extra: t`a clap too many`,
}));

export function MarkSign({ shape }: { shape: MarkShape }) {
  return <path className={`heard-sign heard-${shape}`} d={PATHS[shape]} />;
}

/** What was heard, each clap at its own time: a late one stands to the right of its note. */
export function HeardLane({
  system,
  size,
  scale,
  marks,
}: {
  system: RulerSystem;
  size: RulerSize;
  scale: number;
  marks: readonly HeardMark[];
}) {
  const height = HEARD_HEIGHTS[size];
  return (
    <svg className="lane-heard" width={system.width} height={height} aria-hidden>
      {system.measures.map((measure) =>
        marks
          .filter((mark) => mark.measure === measure.index)
          .map((mark, i) => {
            const x = xOf(measure, mark.onset, scale);
            const written = mark.written === undefined ? undefined : xOf(measure, mark.written, scale);
            return (
              <g key={`${measure.index}-${i}`}>
                {written !== undefined && mark.window && (
                  <rect
                    className="heard-window"
                    x={written - mark.window.early * scale}
                    y={4}
                    width={(mark.window.early + mark.window.late) * scale}
                    height={height - 8}
                    rx={3}
                  />
                )}
                <g transform={`translate(${x} ${height / 2}) scale(${size === 'board' ? 1.6 : 1})`}>
                  <MarkSign shape={mark.shape} />
                </g>
              </g>
            );
          }),
      )}
    </svg>
  );
}
