import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import type { TakeTask } from '../../../contract/room.ts';
import { countInFrom, echoRound } from '../../../core/ear/echoRound.ts';
import { classPicture } from '../../../core/judging/classPicture.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { unfold } from '../../../core/rhythm/place.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { scheduleOf } from '../../../core/timing/schedule.ts';
import { classPictureLines } from '../../../core/wording/classPictureWords.ts';
import { measureName } from '../../../core/wording/valueNames.ts';
import { MovingBeat } from '../../ruler/MovingBeat.tsx';
import { Ruler } from '../../ruler/Ruler.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { MissedMarks } from './MissedMarks.tsx';
import { type StageProps, Tally } from './stage.tsx';
import { useBoardRun } from './useBoardRun.ts';
import { useResults } from './useRoom.ts';

/** Devices are told so long before anything sounds, milliseconds. */
const TOLD_BEFORE_MS = 2_500;
/** A late last clap, and the way of the take to the server. */
const AFTER_MS = 2_500;

/** All clap at once: who is ready, the rhythm in step with every device, then the picture of the class. */
export function TakeStage(props: StageProps & { readonly task: TakeTask }) {
  const { task } = props;
  const pattern = useMemo(() => {
    const read = parseRhythm(task.text);
    return read.ok ? read.pattern : undefined;
  }, [task.text]);
  return pattern ? <Clapping {...props} pattern={pattern} /> : <p>{t`This rhythm cannot be read.`}</p>;
}

type ClappingProps = StageProps & { readonly task: TakeTask; readonly pattern: Pattern };

/** Where a round stands on the board, and what its keys do. */
function useTakeRound(props: ClappingProps) {
  const { room, round, task, clock, pattern, onRound, onAgain, onNext } = props;
  const isOver = useIsOver(props);
  const results = useResults(room);
  const isReady = round.phase === 'ready';
  const start = () => {
    const now = clock?.room(performance.now());
    if (now === undefined || !isReady) return;
    const lead = task.echo ? echoRound(pattern, task.bpm).from : countInFrom(pattern, task.bpm);
    void onRound({ ...round, phase: 'going', startsAt: Math.round(now + TOLD_BEFORE_MS - lead * 1000) });
  };
  const again = () => {
    if (isOver) onAgain(task);
  };
  useKeys({ ' ': isReady ? start : isOver ? onNext : () => undefined, a: again });
  const isOne = results && results.length > 0 && task.parts.length === 0;
  const picture = isOne ? classPicture(results.map(({ result }) => result)) : undefined;
  return { isOver, isReady, results, picture, start, again };
}

function Clapping(props: ClappingProps) {
  const { round, task, voice, clock, pattern } = props;
  const unfolded = useMemo(() => unfold(pattern), [pattern]);
  const counts = useMemo(() => [voice.counts], [voice]);
  const here = useTakeRound(props);
  const { isOver, isReady, results, picture } = here;
  const run = useBoardRun({ pattern, bpm: task.bpm, echo: task.echo, startsAt: round.startsAt, clock });
  return (
    <section className="room-round" aria-label={task.title}>
      <h2 className="room-asked">
        {task.echo && !isOver ? t`Listen, then clap it back` : task.title} <small>{t`at ${task.bpm}`}</small>
      </h2>
      {(!task.echo || isOver) && (
        <div className="room-board-ruler">
          <Ruler
            pattern={unfolded}
            size="board"
            fit
            counts={counts}
            overlay={(system, layout) =>
              isOver ? (
                picture && <MissedMarks picture={picture} pattern={unfolded} system={system} layout={layout} />
              ) : (
                <MovingBeat pattern={unfolded} bpm={task.bpm} now={run.now} system={system} layout={layout} />
              )
            }
          />
        </div>
      )}
      {!isReady && !isOver && (
        <p className="room-board-word" role="status">
          {run.word ?? ''}
        </p>
      )}
      {isOver && picture && <Picture lines={classPictureLines(picture, voice)} />}
      {isOver && results && task.parts.length > 0 && <PartPictures results={results} voice={voice} />}
      <Foot {...props} here={here} />
    </section>
  );
}

/** How many are ready or have clapped, and what comes next. */
function Foot({
  room: { seats },
  task,
  voice,
  clock,
  onNext,
  here,
}: ClappingProps & { readonly here: ReturnType<typeof useTakeRound> }) {
  const { isReady, isOver, picture, start, again } = here;
  const hardest = picture?.hardest;
  return (
    <div className="room-foot">
      {isReady ? (
        <Tally count={count(seats, ({ ready }) => ready)} of={seats.length} what={t`are ready`} />
      ) : (
        <Tally count={count(seats, ({ takeId }) => takeId !== null)} of={seats.length} what={t`have clapped`} />
      )}
      {isReady && (
        <Button size="lg" onClick={start} disabled={!clock}>
          {rich`Start ${<kbd>{t`space`}</kbd>}`}
        </Button>
      )}
      {isOver && hardest && task.patternId && (
        <Link className="btn btn-outline-dark btn-lg" to={leadPath(task.patternId, hardest.measure, task.bpm)}>
          {t`Lead just ${measureName(voice.naming)} ${hardest.measure}`}
        </Link>
      )}
      {isOver && (
        <Button size="lg" variant="outline-dark" onClick={again}>
          {rich`Again ${<kbd>A</kbd>}`}
        </Button>
      )}
      {isOver && (
        <Button size="lg" onClick={onNext}>
          {rich`Go on ${<kbd>{t`space`}</kbd>}`}
        </Button>
      )}
    </div>
  );
}

type Seats = StageProps['room']['seats'];
const count = (seats: Seats, fits: (done: Seats[number]['done']) => boolean) =>
  seats.filter(({ done }) => fits(done)).length;

/** A measure is practised no faster than this. */
const PRACTICE_BPM = 60;

function leadPath(patternId: string, measure: number, bpm: number): string {
  const from = Math.max(1, measure);
  return `/lead?pattern=${patternId}&from=${from}&to=${from}&bpm=${Math.min(PRACTICE_BPM, bpm)}`;
}

/** All have clapped, or the time for it is over. */
function useIsOver({ room, round, task, pattern, clock }: ClappingProps): boolean {
  const [late, setLate] = useState(false);
  const { phase, startsAt } = round;
  const endsAt = startsAt === null ? undefined : startsAt + scheduleOf(pattern, task.bpm).end * 1000 + AFTER_MS;
  useEffect(() => {
    const now = clock?.room(performance.now());
    if (endsAt === undefined || now === undefined) return undefined;
    const timer = setTimeout(() => setLate(true), Math.max(0, endsAt - now));
    return () => clearTimeout(timer);
  }, [endsAt, clock]);
  const { seats } = room;
  const all = seats.length > 0 && seats.every(({ done, away }) => away || done.takeId !== null);
  const some = seats.some(({ done }) => done.takeId !== null);
  return phase !== 'ready' && (late || (all && some));
}

function Picture({ lines }: { readonly lines: readonly string[] }) {
  return (
    <div className="room-picture" role="status" aria-label={t`The class`}>
      {lines.map((line) => (
        <p key={line}>{line}</p>
      ))}
    </div>
  );
}

type Results = NonNullable<ReturnType<typeof useResults>>;

/** Of parts that were clapped at once, what each group did. */
function PartPictures({ results, voice }: { readonly results: Results; readonly voice: StageProps['voice'] }) {
  const parts = [...new Set(results.map(({ part }) => part))];
  return (
    <div className="room-picture" role="status" aria-label={t`The class`}>
      {parts.map((part) => {
        const own = classPicture(results.filter((one) => one.part === part).map(({ result }) => result));
        return (
          <p key={part}>
            <strong>{part}</strong>: {classPictureLines(own, voice).join(' ')}
          </p>
        );
      })}
    </div>
  );
}
