import { useMemo } from 'react';
import { adviceOn } from '../../../core/judging/advice.ts';
import type { TakeResult } from '../../../contract/take.ts';
import type { CountOptions } from '../../../core/counting/count.ts';
import { type Ages, windowsFor } from '../../../core/judging/windows.ts';
import { unfold } from '../../../core/rhythm/place.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { MARK_NAMES, MarkSign, type MarkShape } from '../../ruler/HeardLane.tsx';
import { Ruler } from '../../ruler/Ruler.tsx';
import { heardMarks } from '../../ruler/heardMarks.ts';
import './take.scss';

export interface JudgedTake {
  readonly patternText: string;
  readonly bpm: number;
  readonly ages: Ages;
  readonly result: TakeResult;
}

/** What was right and the one thing to fix, on the same ruler as the rhythm. */
export function TakeResultView({ take, counts, mark }: { take: JudgedTake; counts: readonly CountOptions[]; mark: number }) {
  const { result, bpm, ages } = take;
  const advice = adviceOn(result);
  const unfolded = useMemo(() => {
    const parsed = parseRhythm(take.patternText);
    return parsed.ok ? unfold(parsed.pattern) : undefined;
  }, [take.patternText]);
  const heard = useMemo(() => (unfolded ? heardMarks(unfolded, bpm, result, windowsFor(ages)) : []), [unfolded, bpm, result, ages]);
  const heardPattern = useMemo(() => {
    const parsed = parseRhythm(result.heard);
    return parsed.ok && result.notes.some(({ verdict }) => verdict !== 'missed') ? parsed.pattern : undefined;
  }, [result]);
  const shapes = [...new Set(heard.map(({ shape }) => shape))];
  const [first, ...others] = advice.fix;
  return (
    <section className="take-result" aria-label="Result">
      <div className="result-head">
        <div className="mark-box">
          <span className="mark-number">{mark}</span>
          <span>of 4</span>
        </div>
        <div role="status">
          <p className="well">{advice.well}</p>
          <p className="fix-first">{first ?? 'Nothing to fix.'}</p>
          {others.map((sentence) => (
            <p key={sentence} className="fix-more">
              {sentence}
            </p>
          ))}
        </div>
      </div>
      {unfolded && <Ruler pattern={unfolded} counts={counts} heard={heard} heardNotes={heardPattern} />}
      <Legend shapes={shapes} />
      <Numbers take={take} />
    </section>
  );
}

function Legend({ shapes }: { shapes: readonly MarkShape[] }) {
  return (
    <ul className="legend" aria-label="Signs">
      {shapes.map((shape) => (
        <li key={shape}>
          <svg width="24" height="24" viewBox="-12 -12 24 24" aria-hidden>
            <MarkSign shape={shape} />
          </svg>
          {MARK_NAMES[shape]}
        </li>
      ))}
    </ul>
  );
}

/** The arithmetic behind the mark, folded until it is asked for. */
function Numbers({ take: { result, bpm } }: { take: JudgedTake }) {
  const { notes, extras, tempo, accuracy } = result;
  const count = (verdict: string) => notes.filter((note) => note.verdict === verdict).length;
  const half = count('early') + count('late');
  const ms = (value: number) => `${Math.abs(Math.round(value))} ms`;
  return (
    <details className="numbers">
      <summary>How the mark came about</summary>
      <p>
        ({count('on-time')} on time + half of {half} early or late − half of {extras.length} too many) ÷ {notes.length} notes = {Math.round(accuracy * 100)} %
      </p>
      <p>
        Click at {bpm}. {Math.abs(tempo.leadMs) < 1 ? 'With the click' : tempo.leadMs > 0 ? `${ms(tempo.leadMs)} ahead of the click` : `${ms(tempo.leadMs)} behind the click`} (taken off before judging);{' '}
        {tempo.driftPct === 0 ? 'tempo kept' : `${Math.abs(tempo.driftPct)} % ${tempo.driftPct > 0 ? 'faster' : 'slower'} by the end`}; unsteadiness {ms(tempo.spreadMs)}.
      </p>
      <p>4 from 95 % with the tempo kept within 4 %; 3 from 80 % within 8 %; 2 from 60 %; 1 below; 0 when nothing was heard.</p>
    </details>
  );
}
