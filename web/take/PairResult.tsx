import { t } from '../../core/words/say.ts';
import { useMemo } from 'react';
import type { Marking } from '../../core/wording/markArithmetic.ts';
import type { Voice } from '../../core/wording/voice.ts';
import type { Pair } from './PartPads.tsx';
import { TakeResultView } from './TakeResultView.tsx';
import { TogetherLine } from './TogetherLine.tsx';
import type { NewTake } from './useJudgedTake.ts';

interface PairProps {
  readonly take: NewTake;
  readonly voice: Voice;
  readonly marking: Marking;
  readonly pair: Pair;
}

/** Of two parts that were clapped at once a result each, and how together they were. */
export function PairResult({ take, voice, marking, pair }: PairProps) {
  const same = pair.names[0] === pair.names[1];
  const named = useMemo(() => {
    const all = take.beside ? [take, take.beside] : [take];
    return all.map((one) => {
      const at = pair.parts.findIndex(({ saved }) => saved.text === one.patternText && saved.title === one.title);
      const part = pair.parts[Math.max(0, at)]!.name ?? '';
      return {
        ...one,
        who: same ? part : pair.names[Math.max(0, at)]!,
        heading: same ? part : `${pair.names[Math.max(0, at)]!}: ${part}`,
      };
    });
  }, [take, pair, same]);
  const [first, second] = named;
  const takes = useMemo(() => (first && second ? ([first, second] as const) : undefined), [first, second]);
  const silent = pair.parts.find(({ saved }) => !named.some(({ title }) => title === saved.title));
  return (
    <>
      {takes && <TogetherLine takes={takes} naming={voice.naming} />}
      {silent && (
        <p className="practice-note">
          {t`Nothing was heard of`} {silent.name}
          {t`: no take of it is kept.`}
        </p>
      )}
      <div className="pair-results">
        {named.map((one) => (
          <div key={one.takeId}>
            <h2>{one.heading}</h2>
            <TakeResultView take={one} voice={voice} mark={one.mark} marking={marking} />
          </div>
        ))}
      </div>
    </>
  );
}
