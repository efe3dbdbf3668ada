import { t } from '../../../core/words/say.ts';
import { type ReactNode, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import type { Room, RoomTask } from '../../../contract/room.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import { Notice } from '../../ui/Notice.tsx';
import { DoForm } from './DoForm.tsx';
import { RoomDoor } from './RoomDoor.tsx';
import { RoomSettingsPanel } from './RoomSettingsPanel.tsx';
import { RoundStage } from './RoundStage.tsx';
import { useRoomClock } from '../../room/useRoomClock.ts';
import { useRoomActs } from './useRoom.ts';

interface OpenRoomProps {
  readonly room: Room;
  readonly schoolClass: ClassDetail;
  readonly isThere: boolean;
  readonly onEnded: () => void;
}

/** The board of a room: how to come in, what all do, what came of it. */
export function OpenRoom({ room, schoolClass, isThere, onEnded }: OpenRoomProps) {
  const acts = useRoomActs(room.classId, room.id);
  const clock = useRoomClock();
  const [problem, setProblem] = useState<Error>();
  // The door stands open until something is done, and again when the teacher asks for it.
  const [atDoor, setAtDoor] = useState(room.round === null);
  const doing = async (act: () => Promise<unknown>) => {
    try {
      await act();
      setProblem(undefined);
      return true;
    } catch (error) {
      setProblem(error as Error);
      return false;
    }
  };
  const begin = async (task: RoomTask) => {
    const number = (room.round?.number ?? 0) + 1;
    if (await doing(() => acts.round({ number, task, phase: 'ready', startsAt: null }))) setAtDoor(false);
  };
  const end = async () => {
    if (confirm(t`End the room? All devices leave it; what was clapped stays.`) && (await doing(acts.end))) onEnded();
  };
  const voice = voiceOf(schoolClass);
  return (
    <div className="room-board">
      <Head schoolClass={schoolClass} onEnd={() => void end()}>
        {room.round && (
          <Button variant="outline-dark" aria-pressed={atDoor} onClick={() => setAtDoor(!atDoor)}>
            {atDoor ? t`Back to what is on` : t`Show the pictures`}
          </Button>
        )}
      </Head>
      <Warnings isThere={isThere} guessed={room.guessed} />
      {problem && <Notice problem={problem} />}
      {atDoor || !room.round ? (
        <>
          <RoomDoor room={room} />
          <DoForm schoolClass={schoolClass} voice={voice} onBegin={(task) => void begin(task)} />
        </>
      ) : (
        <RoundStage
          key={room.round.number}
          room={room}
          round={room.round}
          voice={voice}
          clock={clock}
          onRound={(round) => doing(() => acts.round(round))}
          onAgain={(task) => void begin(task)}
          onNext={() => setAtDoor(true)}
        />
      )}
      <RoomSettingsPanel room={room} acts={acts} doing={doing} />
    </div>
  );
}

interface HeadProps {
  readonly schoolClass: ClassDetail;
  readonly onEnd: () => void;
  readonly children: ReactNode;
}

function Head({ schoolClass: { id, name }, onEnd, children }: HeadProps) {
  return (
    <div className="page-head">
      <h1>{t`${name}: own devices`}</h1>
      <Link to={`/classes/${id}`}>{name}</Link>
      <span className="flex-grow-1" />
      {children}
      <Button variant="outline-dark" onClick={onEnd}>{t`End the room`}</Button>
    </div>
  );
}

/** What the teacher should know at once. */
function Warnings({ isThere, guessed }: { readonly isThere: boolean; readonly guessed: boolean }) {
  return (
    <>
      {!isThere && (
        <p className="room-away" role="status">
          {t`The server does not answer just now. Children stay in the room; it goes on by itself.`}
        </p>
      )}
      {guessed && (
        <p className="room-away" role="alert">
          {t`Somebody tries pictures that are nearly those of this room. “New pictures”
            below keeps them out; who is in stays in.`}
        </p>
      )}
    </>
  );
}
