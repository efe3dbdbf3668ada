import { perLanguage, t } from '../../../core/words/say.ts';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { echoPattern, echoSteps, nextEchoStep } from '../../../core/ear/echoChain.ts';
import { MOST_PLAYS } from '../../../core/ear/hearTimes.ts';
import { wentWell } from '../../../core/ear/together.ts';
import { echoStepText } from '../../../core/wording/echoWords.ts';
import { useStored } from '../../store/stored.ts';
import { EchoTurn } from './EchoTurn.tsx';
import { timesText } from './HeardLine.tsx';
import { KeepScore } from './KeepScore.tsx';
import { ToggleRow } from './ToggleRow.tsx';
import { type EarSettings, newSeed } from './earSettings.ts';

/** Where the chain stands, and how it went so far. */
function useChain({ met, meter }: EarSettings) {
  const steps = useMemo(() => echoSteps({ elements: met, meter }), [met, meter]);
  const [step, setStep] = useState(0);
  const [seed, setSeed] = useState(newSeed);
  const [score, setScore] = useState({ well: 0, all: 0 });
  const at = Math.min(step, steps.length - 1);
  const pattern = useMemo(() => echoPattern({ elements: met, meter }, at, seed), [met, meter, at, seed]);
  const goTo = (next: number) => setStep(Math.max(0, Math.min(steps.length - 1, next)));
  const goOn = (well: boolean) => {
    setScore({ well: score.well + Number(well), all: score.all + 1 });
    goTo(nextEchoStep(at, well));
    setSeed(newSeed());
  };
  return { steps, at, seed, score, pattern, goTo, goOn };
}

const PLAYS = perLanguage(() => [1, 2, 3].map((count) => [count, t`Played ${timesText(count)}`] as const));

/** A chain of short patterns: heard, clapped back, counted; a step harder as they succeed. */
export function EchoView({ settings }: { settings: EarSettings }) {
  const { steps, at, seed, score, pattern, goTo, goOn } = useChain(settings);
  const [stored, setPlays] = useStored('ear.plays', '1');
  const [mic, setMic] = useStored('ear.mic', 'off');
  const plays = Math.max(1, Math.min(MOST_PLAYS, Number(stored) || 1));
  const on = mic === 'on';
  if (!pattern)
    return (
      <div className="empty">{t`From these elements no such measure can be made. Choose more of them above.`}</div>
    );
  return (
    <>
      <EchoTurn
        key={`${seed} ${at} ${settings.meterName}`}
        pattern={pattern}
        plays={plays}
        mic={on}
        settings={settings}
        step={t`Step ${at + 1} of ${steps.length}: ${echoStepText(steps[at]!, settings.voice.naming)}`}
        last={at === steps.length - 1}
        judge={wentWell}
        onDone={goOn}
      />
      <div className="ear-below">
        <ToggleRow label={t`How often`} value={plays} options={PLAYS()} onChoose={(count) => setPlays(String(count))} />
        <Button variant={on ? 'dark' : 'outline-dark'} aria-pressed={on} onClick={() => setMic(on ? 'off' : 'on')}>
          {on ? t`The microphone listens` : t`Listen by microphone`}
        </Button>
        <label className="echo-step">
          {t`Step`}{' '}
          <input
            type="number"
            min={1}
            max={steps.length}
            value={at + 1}
            onChange={({ target }) => goTo(Number(target.value) - 1)}
          />
        </label>
        {score.all > 0 && (
          <span className="echo-score" role="status">
            {t`${score.well} of ${score.all} went well`}
          </span>
        )}
      </div>
      {score.all > 0 && (
        <KeepScore
          key={score.all}
          run={{ kind: 'echo', right: score.well, asked: score.all, mistakes: {} }}
          settings={settings}
        />
      )}
    </>
  );
}
