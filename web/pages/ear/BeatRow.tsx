import { t } from '../../../core/words/say.ts';
import { type CSSProperties, useEffect, useState } from 'react';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { beatTimes } from '../../../core/timing/pulses.ts';
import { scheduleOf } from '../../../core/timing/schedule.ts';
import { type HearTimes, hearTimes } from '../../../core/ear/hearTimes.ts';
import type { Hearing } from '../../audio/useHear.ts';

interface BeatRowProps {
  readonly pattern: Pattern;
  readonly bpm: number;
  readonly plays: number;
  readonly hearing: Pick<Hearing, 'now' | 'moment'>;
}

/** More beats than these go on a second row. */
const IN_A_ROW = 8;

/** When the time through began that is going on; undefined in the count-in. */
function startOf({ plays, turn }: HearTimes, now: number): number | undefined {
  return [...plays, ...(turn === undefined ? [] : [turn])].findLast((start) => now >= start - 0.02);
}

/** The beats of the pattern, the one that is heard filled; in the class's turn what the hands do. */
export function BeatRow({ pattern, bpm, plays, hearing }: BeatRowProps) {
  const [at, setAt] = useState(-1);
  const [apart, setApart] = useState(false);
  const { now, moment } = hearing;
  const beats = beatTimes(pattern, bpm);
  useEffect(() => {
    const times = hearTimes(pattern, bpm, plays, true);
    const own = beatTimes(pattern, bpm);
    const { events } = scheduleOf(pattern, bpm);
    let frame = 0;
    const look = () => {
      frame = requestAnimationFrame(look);
      const time = now();
      const start = time === undefined ? undefined : startOf(times, time);
      if (time === undefined || start === undefined) {
        setAt(-1);
        return;
      }
      const inside = time - start + 0.03;
      setAt(own.findLastIndex((beat) => beat.time <= inside));
      setApart(events.findLast((one) => one.time <= inside)?.event.kind === 'rest');
    };
    look();
    return () => cancelAnimationFrame(frame);
  }, [pattern, bpm, plays, now]);
  return (
    <div className={`beat-row beat-row-${moment.state}`} aria-hidden>
      <div className="beat-boxes" style={{ '--beats': Math.min(beats.length, IN_A_ROW) } as CSSProperties}>
        {beats.map(({ accent }, i) => (
          <span key={i} className={`${accent ? 'first' : ''} ${i === at ? 'now' : ''}`} />
        ))}
      </div>
      <p className={apart ? 'apart' : ''}>{handsText(moment.state, apart)}</p>
    </div>
  );
}

function handsText(state: Hearing['moment']['state'], apart: boolean): string {
  if (state === 'turn') return apart ? t`hands apart` : t`clap`;
  return state === 'listen' ? t`hands still` : '';
}
