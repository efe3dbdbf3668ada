import { t } from '../../core/words/say.ts';
import { rich } from '../ui/rich.tsx';
import { type ReactNode, useEffect } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import type { Child } from '../../contract/child.ts';
import type { Marking } from '../../core/wording/markArithmetic.ts';
import type { Voice } from '../../core/wording/voice.ts';
import { useKeys } from '../ui/useKeys.ts';
import { NothingHeard } from './NothingHeard.tsx';
import { Playing, type ShownParts } from './Playing.tsx';
import type { Pair } from './PartPads.tsx';
import { PairResult } from './PairResult.tsx';
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
      {!take.kept && <p className="practice-note">{t`This was the practice child: nothing of it is kept.`}</p>}
      {pair ? (
        <PairResult {...{ take, voice, marking, pair }} />
      ) : (
        <TakeResultView take={take} voice={voice} mark={take.mark} marking={marking} />
      )}
      {step}
      <div className="stage-actions">
        <Button size="lg" onClick={onNext}>
          {nextChild ? t`Next: ${nextChild.name}` : t`Ready`} <kbd>{t`space`}</kbd>
        </Button>
        <Button size="lg" variant="outline-dark" onClick={onAgain}>
          {rich`Again ${<kbd>A</kbd>}`}
        </Button>
        {takePath && <Link className="btn btn-outline-dark" to={takePath}>{t`Correct the claps, or the mark`}</Link>}
      </div>
    </>
  );
}
