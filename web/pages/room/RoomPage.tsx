import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useParams } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { changeNow } from '../../api/client.ts';
import { useClass } from '../../api/hooks.ts';
import { mayHear } from '../../domain/currentClass.ts';
import { Loading } from '../../ui/Loading.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { OpenRoom } from './OpenRoom.tsx';
import { roomPath, useOpenRooms, useRoom } from './useRoom.ts';
import './room.scss';

/** A class at its own devices. */
export default function RoomPage() {
  const { classId = '' } = useParams();
  const schoolClass = useClass(classId);
  const rooms = useOpenRooms(classId);
  const problem = schoolClass.error ?? rooms.error;
  if (!schoolClass.data || !rooms.data) return <Loading title={t`Own devices`} problem={problem} />;
  if (!mayHear(schoolClass.data))
    return (
      <Notice problem={{ message: t`This class is shared with you to look at. A room is opened by who hears it.` }} />
    );
  return <Rooms key={classId} schoolClass={schoolClass.data} known={rooms.data[0]?.id} />;
}

interface RoomsProps {
  readonly schoolClass: ClassDetail;
  /** A room that is open already: from before a reload, or on another device. */
  readonly known: string | undefined;
}

function Rooms({ schoolClass, known }: RoomsProps) {
  const [roomId, setRoomId] = useState(known);
  const [problem, setProblem] = useState<Error>();
  const { room, problem: over, isThere } = useRoom(schoolClass.id, roomId);
  const open = async () => {
    const id = uuid();
    try {
      await changeNow(roomPath(schoolClass.id, id), { codes: false, marksShown: false, namesShown: false });
      setProblem(undefined);
      setRoomId(id);
    } catch (error) {
      setProblem(error as Error);
    }
  };
  const isClosed = roomId === undefined || over !== undefined;
  if (!isClosed && room)
    return <OpenRoom room={room} schoolClass={schoolClass} isThere={isThere} onEnded={() => setRoomId(undefined)} />;
  if (!isClosed) return <Loading title={t`Own devices`} problem={undefined} />;
  return <Closed schoolClass={schoolClass} problem={problem ?? over} onOpen={() => void open()} />;
}

interface ClosedProps {
  readonly schoolClass: ClassDetail;
  readonly problem: Error | undefined;
  readonly onOpen: () => void;
}

function Closed({ schoolClass, problem, onOpen }: ClosedProps) {
  const { id, name, children } = schoolClass;
  useKeys({ ' ': children.length > 0 ? onOpen : () => undefined });
  return (
    <div className="room-closed">
      <div className="page-head">
        <h1>{t`${name}: own devices`}</h1>
        <Link to={`/classes/${id}`}>{name}</Link>
      </div>
      {problem && <Notice problem={problem} />}
      {children.length === 0 ? (
        <div className="empty">{rich`A room needs children. Write the names of the class under
            ${<Link to={`/classes/${id}`}>{name}</Link>} first.`}</div>
      ) : (
        <>
          <p>{t`Every child opens one address, taps four pictures and its name. Then all
              clap, choose or write at the same time, and each is judged.`}</p>
          <Button size="lg" onClick={onOpen}>
            {rich`Open the room ${<kbd>{t`space`}</kbd>}`}
          </Button>
        </>
      )}
    </div>
  );
}
