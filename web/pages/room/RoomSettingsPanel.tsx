import { perLanguage, t } from '../../../core/words/say.ts';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { Room, RoomSettings } from '../../../contract/room.ts';
import { type useRoomActs, useRoomCodes } from './useRoom.ts';

interface PanelProps {
  readonly room: Room;
  readonly acts: ReturnType<typeof useRoomActs>;
  readonly doing: (act: () => Promise<unknown>) => Promise<boolean>;
}

const SWITCHES = perLanguage((): readonly (readonly [key: keyof RoomSettings, name: string])[] => [
  ['namesShown', t`Names on the board`],
  ['marksShown', t`Each child sees its mark`],
  ['codes', t`Codes instead of names`],
]);

/** What is set while the room is open, and who is in: folded, for it is not for the class. */
export function RoomSettingsPanel({ room, acts, doing }: PanelProps) {
  const { codes, marksShown, namesShown, seats } = room;
  // Turned at once, and turned back where it did not arrive.
  const [turned, setTurned] = useState<Partial<RoomSettings>>({});
  const now = { codes, marksShown, namesShown, ...turned };
  const set = async (change: Partial<RoomSettings> & { newPictures?: boolean }) => {
    const { newPictures: _pictures, ...switches } = change;
    setTurned((before) => ({ ...before, ...switches }));
    if (!(await doing(() => acts.set({ ...now, ...change })))) setTurned({});
  };
  return (
    <details className="room-settings">
      <summary>{t`For the teacher: who is in, names, codes, pictures`}</summary>
      <div className="room-switches">
        {SWITCHES().map(([key, name]) => (
          <Form.Check
            key={key}
            type="switch"
            id={`room-${key}`}
            label={name}
            checked={now[key]}
            onChange={({ target }) => void set({ [key]: target.checked })}
          />
        ))}
        <Button variant="outline-dark" onClick={() => void set({ newPictures: true })}>{t`New pictures`}</Button>
      </div>
      {seats.length === 0 ? (
        <p>{t`Nobody is in yet.`}</p>
      ) : (
        <ul className="room-seats" aria-label={t`Who is in`}>
          {seats.map(({ childId, name, away }) => (
            <li key={childId}>
              {name} {away && <em>{t`away`}</em>}
              <Button size="sm" variant="outline-dark" onClick={() => void doing(() => acts.free(childId))}>
                {t`Free the name`}
              </Button>
            </li>
          ))}
        </ul>
      )}
      {codes && <Codes classId={room.classId} />}
    </details>
  );
}

function Codes({ classId }: { readonly classId: string }) {
  const [shown, setShown] = useState(false);
  const { data } = useRoomCodes(classId, shown);
  if (!shown) return <Button variant="outline-dark" onClick={() => setShown(true)}>{t`Show the codes`}</Button>;
  return (
    <table className="room-codes" aria-label={t`Codes`}>
      <tbody>
        {data?.map(({ childId, name, code }) => (
          <tr key={childId}>
            <th scope="row">{name}</th>
            <td>{code}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
