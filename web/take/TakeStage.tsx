import { type ReactNode, useEffect, useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import type { Child } from '../../contract/child.ts';
import type { Marking } from '../../core/wording/markArithmetic.ts';
import type { Voice } from '../../core/wording/voice.ts';
import { useKeys } from '../ui/useKeys.ts';
import { NothingHeard } from './NothingHeard.tsx';
import { Playing, type ShownParts } from './Playing.tsx';
import type { Pair } from './PartPads.tsx';
import { TogetherLine } from './TogetherLine.tsx';
import { TakeResultView } from './TakeResultView.tsx';
import type { RunPlan } from './takeRunner.ts';
import type { NewTake } from './useJudgedTake.ts';
import { useHeld } from './useHeld.ts';
import type { TakeRun } from './useTakeRun.ts';

interface StageProps {
  readonly run: TakeRun;
  readonly plan: RunPlan;
  readonly child: Child;
  readonly title: string;
  readonly shown?: ShownParts | undefined;
  readonly pair?: Pair | undefined;
  readonly voice: Voice;
  readonly take: NewTake | undefined;
  /** Nothing was heard. */
  readonly nothing: { readonly keep: () => void } | undefined;
  readonly marking: Marking;
  readonly nextChild: Child | undefined;
  /** Where the take is found once it is stored. */
  readonly takePath: string | undefined;
  /** What comes next for this child with this pattern. */
  readonly step: ReactNode;
  readonly onAgain: () => void;
  readonly onNext: () => void;
}

/** From the count-in to the result: what the child sees. */
export function TakeStage(props: StageProps) {
  const { run, plan, child, title, voice, take, nothing, shown, pair } = props;
  const both = pair && pair.names[0] !== pair.names[1] ? pair.names.join(' and ') : child.name;
  return (
    <div className="stage">
      <div className="page-head">
        <h1>{both}</h1>
        <span className="stage-title">
          {title} · {plan.bpm}
        </span>
      </div>
      {run.state !== 'done' && <Playing run={run} plan={plan} voice={voice} shown={shown} pair={pair} />}
      {run.state === 'done' && take && <Done {...props} take={take} />}
      {run.state === 'done' && nothing && <NothingHeard onAgain={props.onAgain} onZero={nothing.keep} />}
    </div>
  );
}

function Done({
  take,
  voice,
  marking,
  takePath,
  step,
  nextChild,
  onAgain,
  onNext,
  pair,
}: Omit<StageProps, 'take'> & { take: NewTake }) {
  const held = useHeld();
  useKeys({ ' ': held(onNext), a: held(onAgain) });
  useEffect(() => void scrollTo({ top: 0 }), []);
  return (
    <>
      {!take.kept && <p className="practice-note">This was the practice child: nothing of it is kept.</p>}
      {pair ? (
        <PairResult {...{ take, voice, marking, pair }} />
      ) : (
        <TakeResultView take={take} voice={voice} mark={take.mark} marking={marking} />
      )}
      {step}
      <div className="stage-actions">
        <Button size="lg" onClick={onNext}>
          {nextChild ? `Next: ${nextChild.name}` : 'Ready'} <kbd>space</kbd>
        </Button>
        <Button size="lg" variant="outline-dark" onClick={onAgain}>
          Again <kbd>A</kbd>
        </Button>
        {takePath && (
          <Link className="btn btn-outline-dark" to={takePath}>
            Correct the claps, or the mark
          </Link>
        )}
      </div>
    </>
  );
}

/** Of two parts that were clapped at once a result each, and how together they were. */
function PairResult({
  take,
  voice,
  marking,
  pair,
}: Pick<StageProps, 'voice' | 'marking'> & { take: NewTake; pair: Pair }) {
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
      {silent && <p className="practice-note">Nothing was heard of {silent.name}: no take of it is kept.</p>}
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
