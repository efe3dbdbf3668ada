import { t } from '../../core/words/say.ts';
import { ArrowLeft, Delete } from 'lucide-react';
import { useState } from 'react';
import type { RoomDoor, TakeSeat } from '../../contract/room.ts';
import { CODE_LENGTH } from '../../contract/roomPictures.ts';
import { prepareSound } from './sound.ts';

interface ChooseNameProps {
  readonly door: RoomDoor;
  readonly said: string | undefined;
  readonly onName: (as: TakeSeat) => Promise<void>;
  readonly onBack: () => Promise<void>;
}

/** Its own name, or its code: that touch also lets the page make sound. */
export function ChooseName({ door, said, onName, onBack }: ChooseNameProps) {
  const [asking, setAsking] = useState(false);
  const take = async (as: TakeSeat) => {
    prepareSound();
    setAsking(true);
    await onName(as);
    setAsking(false);
  };
  return (
    <main className="room-page">
      <h1>{door.codes ? t`Your code` : t`Who are you?`}</h1>
      <p className="room-said" role="status">
        {said ?? (!door.codes && door.names.length === 0 ? t`All names are taken. Tell your teacher.` : '')}
      </p>
      {door.codes ? (
        <Code asking={asking} onCode={(code) => void take({ code })} />
      ) : (
        <div className="room-names">
          {door.names.map(({ id, name }) => (
            <button key={id} type="button" disabled={asking} onClick={() => void take({ childId: id })}>
              {name}
            </button>
          ))}
        </div>
      )}
      <button type="button" className="room-quiet" onClick={() => void onBack()}>
        <ArrowLeft aria-hidden /> {t`Other pictures`}
      </button>
    </main>
  );
}

const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '', '0'];

function Code({ asking, onCode }: { readonly asking: boolean; readonly onCode: (code: string) => void }) {
  const [code, setCode] = useState('');
  const press = (key: string) => {
    const now = code + key;
    setCode(now.length < CODE_LENGTH ? now : '');
    if (now.length === CODE_LENGTH) onCode(now);
  };
  return (
    <div className="room-code">
      <output aria-label={t`Code`}>{code.padEnd(CODE_LENGTH, '·')}</output>
      <div className="room-keys">
        {KEYS.map((key) =>
          key === '' ? (
            <span key="none" />
          ) : (
            <button key={key} type="button" disabled={asking} onClick={() => press(key)}>
              {key}
            </button>
          ),
        )}
        <button type="button" aria-label={t`Take the last one back`} onClick={() => setCode(code.slice(0, -1))}>
          <Delete aria-hidden />
        </button>
      </div>
    </div>
  );
}
