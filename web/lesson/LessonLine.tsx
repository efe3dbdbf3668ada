import './lessonLine.scss';

interface LessonLineProps {
  readonly blocks: readonly {
    readonly key: number;
    readonly title: string;
    readonly seconds: number;
    readonly leftOut?: boolean;
  }[];
  /** How long the lesson is. */
  readonly minutes: number;
  /** Seconds since it began, while it is held. */
  readonly now?: number;
  /** The index of the block that is on. */
  readonly current?: number;
  /** Without words. */
  readonly thin?: boolean;
}

const MINUTE = 60;
/** A mark for every so many minutes. */
const MARKED = 5;

/** A lesson as a ruler of minutes: each block as long as it takes; what does not fit stands beyond the end. */
export function LessonLine({ blocks, minutes, now, current, thin = false }: LessonLineProps) {
  const planned = blocks.reduce((all, { seconds }) => all + seconds, 0);
  const whole = Math.max(planned, minutes * MINUTE, now ?? 0);
  const percent = (seconds: number) => `${(100 * seconds) / whole}%`;
  const marks = Array.from({ length: Math.ceil(whole / MINUTE / MARKED) }, (_, i) => i * MARKED);
  return (
    <div className={thin ? 'lesson-line lesson-line-thin' : 'lesson-line'} aria-hidden>
      <div className="lesson-blocks">
        {blocks.map(({ key, title, seconds, leftOut }, i) => (
          <span
            key={key}
            className={[i === current && 'now', leftOut && 'left-out'].filter(Boolean).join(' ') || undefined}
            style={{ width: percent(seconds) }}
          >
            {!thin && <b>{title}</b>}
          </span>
        ))}
      </div>
      {!thin && (
        <div className="lesson-marks">
          {marks.map((minute) => (
            <span key={minute} style={{ left: percent(minute * MINUTE) }}>
              {minute}
            </span>
          ))}
        </div>
      )}
      <i className="lesson-end" style={{ left: percent(minutes * MINUTE) }} />
      {now !== undefined && <i className="lesson-hand" style={{ left: percent(now) }} />}
    </div>
  );
}
