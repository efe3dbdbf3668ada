import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { Together } from '../../../core/ear/together.ts';
import { add, sub } from '../../../core/rhythm/fraction.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { playPattern } from '../../../core/rhythm/place.ts';
import { togetherSentences } from '../../../core/wording/echoWords.ts';
import { Notice } from '../../ui/Notice.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { BeatRow } from './BeatRow.tsx';
import { HeardLine } from './HeardLine.tsx';
import { OpenedRuler } from './OpenedRuler.tsx';
import type { EarSettings } from './earSettings.ts';
import { useClassMicrophone } from './useClassMicrophone.ts';
import { useHear } from '../../audio/useHear.ts';

interface TurnProps {
  readonly pattern: Pattern;
  readonly plays: number;
  readonly mic: boolean;
  readonly settings: EarSettings;
  readonly step: string;
  readonly last: boolean;
  readonly judge: (heard: Together) => boolean;
  /** The next one: a step harder when it went well. */
  readonly onDone: (well: boolean) => void;
}

/** The notes and rests, one after the other as they are counted. */
function piecesOf(pattern: Pattern) {
  return playPattern(pattern).flatMap(({ at, measure }) =>
    measure.events.map(({ onset, length }) => ({ at: add(sub(at, measure.onset), onset), length })),
  );
}

type Stage = 'new' | 'going' | 'clapped';

/** Where an echo stands: not heard yet, going on, or clapped and being counted. */
function useEcho({ pattern, plays, mic, settings: { bpm }, judge }: TurnProps) {
  const hearing = useHear();
  const microphone = useClassMicrophone(pattern, bpm);
  const [stage, setStage] = useState<Stage>('new');
  const [shown, setShown] = useState(0);
  const pieces = piecesOf(pattern);
  const { heard } = microphone;
  const start = () => {
    setStage('going');
    setShown(0);
    microphone.stop();
    const play = () =>
      hearing.hear(pattern, bpm, {
        plays,
        turn: true,
        ...(mic ? { onStart: microphone.begin } : {}),
        onEnd: () => {
          setStage('clapped');
          if (mic) microphone.end();
        },
      });
    void (mic ? microphone.ready().then(play) : play());
  };
  return {
    hearing,
    microphone,
    stage,
    shown,
    pieces,
    all: shown >= pieces.length,
    well: heard ? judge(heard) : undefined,
    start,
    showNext: () => setShown(shown + 1),
    showAll: () => setShown(pieces.length),
  };
}

type Echo = ReturnType<typeof useEcho>;

/** One pattern: heard, clapped back over the beat, then counted sign by sign. */
export function EchoTurn(props: TurnProps) {
  const { pattern, plays, settings, step, last, onDone } = props;
  const { bpm, voice } = settings;
  const echo = useEcho(props);
  const { hearing, microphone, stage, shown, pieces, all, well, start } = echo;
  const clapped = stage === 'clapped';
  const main = !clapped ? start : all ? () => onDone(well ?? true) : echo.showNext;
  useKeys({
    ' ': () => stage !== 'going' && main(),
    a: start,
    ...(clapped ? { Enter: echo.showAll, g: () => onDone(true), s: () => onDone(false) } : {}),
  });
  const quiet =
    stage === 'new' ? t`Listen, then clap it back` : well === false ? t`Nearly: once more` : t`Now count it`;
  return (
    <section className="echo" aria-label={t`Echo`}>
      <p className="question-number">{step}</p>
      <HeardLine moment={hearing.moment} quiet={quiet} />
      <div className="echo-stage">
        {clapped ? (
          <OpenedRuler pattern={pattern} beats={pieces} opened={shown} counts={voice.counts} notes={all} />
        ) : (
          <BeatRow pattern={pattern} bpm={bpm} plays={plays} hearing={hearing} />
        )}
      </div>
      {microphone.heard && (
        <p className={`echo-heard ${well ? 'right' : ''}`} role="status">
          {togetherSentences(microphone.heard, voice.naming).join(' ')}
        </p>
      )}
      {microphone.problem && <Notice problem={microphone.problem} />}
      <div className="stage-actions">
        <Button size="lg" disabled={stage === 'going'} onClick={main}>
          {!clapped ? t`Hear it, clap it back` : all ? nextText(well, last) : t`Show the next count`}{' '}
          <kbd>{t`space`}</kbd>
        </Button>
        {clapped && <AfterClapping echo={echo} last={last} onDone={onDone} />}
      </div>
    </section>
  );
}

function AfterClapping({ echo, last, onDone }: { echo: Echo } & Pick<TurnProps, 'last' | 'onDone'>) {
  return (
    <>
      <Button size="lg" variant="outline-dark" onClick={echo.start}>
        {rich`Again ${<kbd>A</kbd>}`}
      </Button>
      <Button variant="outline-dark" onClick={echo.showAll} disabled={echo.all}>
        {rich`All counts ${<kbd>{t`enter`}</kbd>}`}
      </Button>
      <Button variant="outline-dark" onClick={() => onDone(true)}>
        {last ? t`It went well` : t`It went well: a step harder`} <kbd>G</kbd>
      </Button>
      <Button variant="outline-dark" onClick={() => onDone(false)}>
        {rich`Another as hard ${<kbd>S</kbd>}`}
      </Button>
    </>
  );
}

function nextText(well: boolean | undefined, last: boolean): string {
  if (well === false) return t`Another as hard`;
  return last ? t`The next one` : t`A step harder`;
}
