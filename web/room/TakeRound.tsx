import { t } from '../../core/words/say.ts';
import { RoomRuler } from './RoomRuler.tsx';
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { v4 as uuid } from 'uuid';
import type { ChildRoom, ChildTask } from '../../contract/room.ts';
import { echoRound } from '../../core/ear/echoRound.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { unfold } from '../../core/rhythm/place.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { type Voice, voiceOf } from '../../core/wording/voice.ts';
import { startClicks } from '../audio/clickClock.ts';
import { closeMicrophone, listenLive, readyToListen } from '../audio/microphone.ts';
import { deviceDelay } from '../take/inputs/calibration.ts';
import { type RunPlan, TakeRunner } from '../take/takeRunner.ts';
import type { Taken } from '../take/taken.ts';
import { Drum } from './Drum.tsx';
import { OwnResult } from './OwnResult.tsx';
import { keepTake } from './keptTakes.ts';
import type { RoomClock } from './roomClock.ts';

type Round = NonNullable<ChildRoom['round']>;
type TakeTask = Extract<ChildTask, { kind: 'take' }>;

interface TakeRoundProps {
  readonly room: ChildRoom;
  readonly round: Round;
  readonly task: TakeTask;
  /** Undefined until it is known. */
  readonly clock: RoomClock | undefined;
  readonly silent: boolean;
}

/** Who comes later than this after the first beat waits for the next one, milliseconds. */
const TOO_LATE_MS = 150;

/** All clap at once: what it is, then the count-in and the drum, then what this child did. */
export default function TakeRound(props: TakeRoundProps) {
  const { room, task } = props;
  const parsed = useMemo(() => parseRhythm(task.text), [task.text]);
  if (!parsed.ok) return <div className="room-still" />;
  return <Clapping {...props} pattern={parsed.pattern} voice={voiceOf(room.voice)} />;
}

type Hearing = { readonly by: RunPlan['method']; readonly said?: string };

interface ClappingProps extends TakeRoundProps {
  readonly pattern: Pattern;
  readonly voice: Voice;
}

function Clapping({ room, round, task, clock, silent, pattern, voice }: ClappingProps) {
  const [taken, setTaken] = useState<Taken>();
  const [mark, setMark] = useState<number | null>(null);
  const [missed, setMissed] = useState(false);
  const hearing = useHearing(task.heardBy);
  const id = useRef(uuid());
  const done = useCallback(
    (what: Taken) => {
      setTaken(what);
      const onsets = [...what.onsets];
      const source = hearing.by === 'microphone' ? ('microphone' as const) : ('tap' as const);
      if (onsets.length > 0) keepTake(id.current, { round: round.number, onsets, source }, (_id, own) => setMark(own));
    },
    [hearing.by, round.number],
  );
  const runner = useRunner({ task, pattern, by: hearing.by, clock, startsAt: round.startsAt, done });
  const moment = useSyncExternalStore(runner.subscribe, runner.moment);
  const hasClapped = taken !== undefined || room.done.takeId !== null;
  useEffect(() => {
    if (round.phase !== 'going' || round.startsAt === null || hasClapped) return undefined;
    const here = clock?.here(round.startsAt);
    // Back in the room a moment ago: it has to find the clock first.
    if (here === undefined) return undefined;
    if (performance.now() > here + TOO_LATE_MS) {
      setMissed(true);
      return undefined;
    }
    runner.start();
    return undefined;
    // Once begun it goes on, whatever is told meanwhile.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [runner, round.phase, round.startsAt, clock]);
  useEffect(() => {
    if (round.phase === 'answer') runner.finish();
  }, [runner, round.phase]);
  useEffect(() => () => runner.cancel(), [runner]);
  if (taken)
    return <OwnResult room={room} task={task} pattern={pattern} voice={voice} taken={taken} mark={mark ?? room.mark} />;
  if (room.done.takeId !== null) return <Still text={t`You have clapped this one. Look at the board.`} />;
  if (missed) return <Still text={t`This one has begun. Wait for the next one.`} />;
  const running = moment.state === 'count-in' || moment.state === 'playing';
  return (
    <Drum
      run={runner}
      moment={moment}
      pattern={pattern}
      bpm={task.bpm}
      isRunning={running}
      byTouch={hearing.by === 'tap'}
      lit={silent}
      waiting={waitingText(round, hearing)}
    >
      {task.echo ? (
        <p className="room-listen">{t`Listen, then clap it back.`}</p>
      ) : (
        <Rhythm pattern={pattern} voice={voice} bpm={task.bpm} runner={runner} />
      )}
      {task.part !== null && <p className="room-part">{t`Your part: ${task.part}`}</p>}
    </Drum>
  );
}

const Still = ({ text }: { readonly text: string }) => (
  <div className="room-still">
    <h1>{text}</h1>
  </div>
);

function waitingText({ phase }: Round, { by, said }: Hearing): string {
  if (said) return said;
  if (phase === 'going') return '…';
  return by === 'microphone' ? t`Ready? Clap when it begins.` : t`Ready? Tap anywhere when it begins.`;
}

/** The rhythm as it stands on the board, with the beat that is due. */
function Rhythm({
  pattern,
  voice,
  bpm,
  runner,
}: Pick<ClappingProps, 'pattern' | 'voice'> & { readonly bpm: number; readonly runner: TakeRunner }) {
  const unfolded = useMemo(() => unfold(pattern), [pattern]);
  const counts = useMemo(() => [voice.counts], [voice]);
  return <RoomRuler pattern={unfolded} counts={counts} bpm={bpm} now={runner.now} />;
}

/** The microphone is asked for before the round begins; where there is none, the child taps. */
function useHearing(wanted: TakeTask['heardBy']): Hearing {
  const [hearing, setHearing] = useState<Hearing>({ by: wanted });
  useEffect(() => {
    if (wanted !== 'microphone') return undefined;
    readyToListen().catch((error: Error) => setHearing({ by: 'tap', said: error.message }));
    return () => void closeMicrophone();
  }, [wanted]);
  return hearing;
}

interface RunnerSettings {
  readonly task: TakeTask;
  readonly pattern: Pattern;
  readonly by: RunPlan['method'];
  readonly clock: RoomClock | undefined;
  readonly startsAt: number | null;
  readonly done: (taken: Taken) => void;
}

/** A take whose beat 1 comes when the room says. */
function useRunner({ task, pattern, by, clock, startsAt, done }: RunnerSettings): TakeRunner {
  const { bpm, echo } = task;
  return useMemo(() => {
    const others = echo ? echoRound(pattern, bpm).sounds : [];
    const plan: RunPlan = { pattern, bpm, method: by, task: 'claps', free: false, keepSound: false, others };
    const devices = {
      startClicks: (beats: Parameters<typeof startClicks>[0], sounds: Parameters<typeof startClicks>[1]) =>
        startClicks(beats, sounds, startsAt === null ? undefined : clock?.here(startsAt)),
      readyToListen,
      listenLive,
      delay: deviceDelay,
      pageTime: () => performance.now(),
      later: (action: () => void, ms: number) => void setTimeout(action, ms),
    };
    return new TakeRunner(plan, devices, done);
  }, [pattern, bpm, echo, by, clock, startsAt, done]);
}
