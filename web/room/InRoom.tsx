import { t } from '../../core/words/say.ts';
import { Sun, Volume2 } from 'lucide-react';
import { Suspense, useEffect, useState } from 'react';
import type { ChildRoom } from '../../contract/room.ts';
import { lazyAgain } from '../ui/lazyAgain.ts';
import { ready } from './roomApi.ts';
import { fillScreen, prepareSound, watchAwake } from './sound.ts';
import { useDim } from './useDim.ts';
import { useRoomClock } from './useRoomClock.ts';
import { useReadied } from './useReadied.ts';

const TakeRound = lazyAgain(() => import('./TakeRound.tsx'));
const QuestionRound = lazyAgain(() => import('./QuestionRound.tsx'));
const WriteRound = lazyAgain(() => import('./WriteRound.tsx'));

interface InRoomProps {
  readonly room: ChildRoom;
  readonly isThere: boolean;
  readonly onOut: () => Promise<void>;
}

/** What all do now, or nothing yet. */
export function InRoom({ room, isThere, onOut }: InRoomProps) {
  const clock = useRoomClock();
  const [silent, setSilent] = useState(false);
  const { round } = room;
  const isDim = useDim(`${round?.number} ${round?.phase} ${round?.startsAt}`);
  useEffect(watchAwake, []);
  // What the first round needs is fetched while nothing is asked.
  useEffect(() => void import('./TakeRound.tsx'), []);
  useReadied(round?.number, clock !== undefined && round?.phase === 'ready', ready);
  return (
    <main className={`room-page ${isDim ? 'room-dim' : ''}`} onPointerDown={prepareSound}>
      <header className="room-head">
        <strong>{room.name}</strong>
        {!isThere && (
          <span className="room-gone" role="status">{t`The room does not answer. It goes on by itself.`}</span>
        )}
        <SoundSwitch silent={silent} onTurn={() => setSilent(!silent)} />
      </header>
      <Suspense fallback={<div className="room-still" />}>
        {!round && <Waiting name={room.name} onOut={onOut} />}
        {round?.task.kind === 'take' && (
          <TakeRound key={round.number} room={room} round={round} task={round.task} clock={clock} silent={silent} />
        )}
        {round?.task.kind === 'question' && (
          <QuestionRound key={round.number} room={room} round={round} task={round.task} />
        )}
        {round?.task.kind === 'write' && <WriteRound key={round.number} room={room} round={round} task={round.task} />}
      </Suspense>
    </main>
  );
}

/** Click, or light and a push of the device: for rooms in which one click is enough. */
function SoundSwitch({ silent, onTurn }: { readonly silent: boolean; readonly onTurn: () => void }) {
  const name = silent ? t`Light instead of the click` : t`Click`;
  return (
    <button type="button" className="room-quiet" aria-pressed={silent} onClick={onTurn}>
      {silent ? <Sun aria-hidden /> : <Volume2 aria-hidden />} <span>{name}</span>
    </button>
  );
}

function Waiting({ name, onOut }: { readonly name: string; readonly onOut: () => Promise<void> }) {
  return (
    <div className="room-still">
      <h1>{t`Look at the board.`}</h1>
      <button type="button" className="room-quiet" onClick={fillScreen}>{t`Whole screen`}</button>
      <button type="button" className="room-quiet" onClick={() => void onOut()}>
        {t`I am not ${name}`}
      </button>
    </div>
  );
}
