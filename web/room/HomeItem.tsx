import { t } from '../../core/words/say.ts';
import { RoomRuler } from './RoomRuler.tsx';
import { ArrowLeft } from 'lucide-react';
import { useCallback, useMemo, useState, useSyncExternalStore } from 'react';
import { v4 as uuid } from 'uuid';
import type { HomeWeek } from '../../contract/home.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { unfold } from '../../core/rhythm/place.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { type Voice, voiceOf } from '../../core/wording/voice.ts';
import { startClicks } from '../audio/clickClock.ts';
import { listenLive, readyToListen } from '../audio/microphone.ts';
import { useHear } from '../audio/useHear.ts';
import { deviceDelay } from '../take/inputs/calibration.ts';
import { TakeRunner } from '../take/takeRunner.ts';
import type { Taken } from '../take/taken.ts';
import { Drum } from './Drum.tsx';
import { OwnResult } from './OwnResult.tsx';
import { keepFromHome } from './keptAtHome.ts';
import { prepareSound } from './sound.ts';

interface HomeItemProps {
  readonly secret: string;
  readonly index: number;
  readonly item: HomeWeek['items'][number];
  readonly week: HomeWeek;
  readonly onDone: () => void;
  readonly onBack: () => void;
}

/** One pattern of the week: hear it, count along, try it. */
export default function HomeItem(props: HomeItemProps) {
  const { item, onBack } = props;
  const parsed = useMemo(() => parseRhythm(item.text), [item.text]);
  return (
    <>
      <header className="room-head">
        <button type="button" className="room-quiet" onClick={onBack}>
          <ArrowLeft aria-hidden /> {t`All`}
        </button>
        <strong>{item.title}</strong>
      </header>
      {parsed.ok && <Practising {...props} pattern={parsed.pattern} voice={voiceOf(props.week.voice)} />}
    </>
  );
}

type PractisingProps = HomeItemProps & { readonly pattern: Pattern; readonly voice: Voice };

/** A take that begins when the child says so. */
function useOwnRun(pattern: Pattern, bpm: number, onDone: (taken: Taken) => void): TakeRunner {
  return useMemo(() => {
    const plan = { pattern, bpm, method: 'tap', task: 'claps', free: false, keepSound: false } as const;
    const devices = {
      startClicks,
      readyToListen,
      listenLive,
      delay: deviceDelay,
      pageTime: () => performance.now(),
      later: (action: () => void, ms: number) => void setTimeout(action, ms),
    };
    return new TakeRunner(plan, devices, onDone);
  }, [pattern, bpm, onDone]);
}

/** Hearing it and trying it, one at a time. */
function usePractice({ secret, index, item, pattern, onDone }: PractisingProps) {
  const { bpm } = item;
  const [taken, setTaken] = useState<Taken>();
  const { hear, stop, moment: heard, now } = useHear();
  const finished = useCallback(
    (what: Taken) => {
      setTaken(what);
      if (what.onsets.length === 0) return;
      onDone();
      const take = { item: index, onsets: [...what.onsets], source: 'tap' as const };
      void keepFromHome({ secret, id: uuid(), take });
    },
    // The same for as long as this pattern is open.
    // oxlint-disable-next-line react/exhaustive-deps
    [secret, index],
  );
  const run = useOwnRun(pattern, bpm, finished);
  const moment = useSyncExternalStore(run.subscribe, run.moment);
  const isRunning = moment.state === 'count-in' || moment.state === 'playing';
  const isHeard = heard.state !== 'quiet';
  const start = () => {
    stop();
    prepareSound();
    setTaken(undefined);
    run.start();
  };
  const play = () => {
    prepareSound();
    if (isHeard) stop();
    else void hear(pattern, bpm, { plays: 1, turn: false });
  };
  return { run, moment, isRunning, isHeard, word: heard.word, now, taken, start, play };
}

function Practising(props: PractisingProps) {
  const { item, week, pattern, voice } = props;
  const { bpm, text } = item;
  const { run, moment, isRunning, isHeard, word, now, taken, start, play } = usePractice(props);
  const unfolded = useMemo(() => unfold(pattern), [pattern]);
  const counts = useMemo(() => [voice.counts], [voice]);
  const time = isHeard ? now : run.now;
  if (taken && !isRunning)
    return (
      <>
        <OwnResult room={week} task={{ text, bpm }} pattern={pattern} voice={voice} taken={taken} mark={null} />
        <button type="button" className="room-button" onClick={start}>{t`Once more`}</button>
      </>
    );
  const waiting = isHeard ? (word ?? t`Count along.`) : t`Hear it, count along, then try it.`;
  return (
    <>
      <Drum {...{ run, moment, pattern, bpm, isRunning, waiting }} byTouch lit={false}>
        <RoomRuler pattern={unfolded} counts={counts} bpm={bpm} now={time} />
      </Drum>
      {!isRunning && (
        <div className="home-buttons">
          <button type="button" className="room-button" aria-pressed={isHeard} onClick={play}>
            {isHeard ? t`Stop` : t`Hear it and count`}
          </button>
          <button type="button" className="room-button" onClick={start}>{t`Try it`}</button>
        </div>
      )}
    </>
  );
}
