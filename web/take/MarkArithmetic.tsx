import { t } from '../../core/words/say.ts';
import { Suspense, useMemo, useState } from 'react';
import { tempoLine } from '../../core/judging/tempoLine.ts';
import { toNumber } from '../../core/rhythm/fraction.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { scheduleOf } from '../../core/timing/schedule.ts';
import { type Marking, markArithmetic } from '../../core/wording/markArithmetic.ts';
import type { Voice } from '../../core/wording/voice.ts';
import { lazyAgain } from '../ui/lazyAgain.ts';
import type { ShownTake } from './shownTake.ts';

const TempoChart = lazyAgain(() => import('./TempoChart.tsx'));

interface MarkArithmeticProps {
  readonly take: ShownTake;
  readonly pattern: Pattern;
  readonly voice: Voice;
  readonly marking: Marking;
}

/** The arithmetic behind the mark, folded until it is asked for. */
export function MarkArithmetic({ take, pattern, voice, marking }: MarkArithmeticProps) {
  const [open, setOpen] = useState(false);
  const { result, bpm, free } = take;
  return (
    <details className="numbers" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>{t`How the mark came about`}</summary>
      {markArithmetic(result, free ? undefined : bpm, marking, voice).map((line) => (
        <p key={line}>{line}</p>
      ))}
      {open && <Tempo take={take} pattern={pattern} />}
    </details>
  );
}

function Tempo({ take: { result, bpm, free, onsets }, pattern }: { take: ShownTake; pattern: Pattern }) {
  const line = useMemo(() => tempoLine(pattern, bpm, result, onsets), [pattern, bpm, result, onsets]);
  const ticks = useMemo(() => {
    const { measures, whole } = scheduleOf(pattern, bpm);
    return measures.map(({ at, measure }) => ({
      at: toNumber(at) * whole,
      name: measure.number === 0 ? '' : String(measure.number),
    }));
  }, [pattern, bpm]);
  if (line.length <= 2) return null;
  return (
    <Suspense fallback={null}>
      <TempoChart points={line} bpm={free ? result.tempo.bpm : bpm} ticks={ticks} />
    </Suspense>
  );
}
