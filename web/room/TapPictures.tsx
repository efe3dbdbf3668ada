import { t } from '../../core/words/say.ts';
import { Delete } from 'lucide-react';
import { useState } from 'react';
import { PICTURES, PICTURES_OF_A_ROOM, type Picture } from '../../contract/roomPictures.ts';
import { PictureSign } from './pictures.tsx';

interface TapPicturesProps {
  readonly said: string | undefined;
  readonly onPictures: (pictures: readonly Picture[]) => Promise<void>;
}

/** Four pictures, in the order in which they stand on the board. */
export function TapPictures({ said, onPictures }: TapPicturesProps) {
  const [tapped, setTapped] = useState<readonly Picture[]>([]);
  const [asking, setAsking] = useState(false);
  const tap = async (picture: Picture) => {
    if (asking) return;
    const now = [...tapped, picture];
    setTapped(now);
    if (now.length < PICTURES_OF_A_ROOM) return;
    setAsking(true);
    await onPictures(now);
    setAsking(false);
    setTapped([]);
  };
  return (
    <main className="room-page">
      <h1>{t`Tap the pictures on the board`}</h1>
      <div className="room-tapped">
        <ol aria-label={t`Tapped`}>
          {Array.from({ length: PICTURES_OF_A_ROOM }, (_, i) => {
            const picture = tapped[i];
            return (
              <li key={i} className={picture ? 'room-slot room-slot-full' : 'room-slot'}>
                {picture && <PictureSign picture={picture} />}
                <span className="said-only">{picture ?? t`nothing yet`}</span>
              </li>
            );
          })}
        </ol>
        <button
          type="button"
          className="room-back"
          aria-label={t`Take the last one back`}
          disabled={tapped.length === 0 || asking}
          onClick={() => setTapped(tapped.slice(0, -1))}
        >
          <Delete aria-hidden />
        </button>
      </div>
      <p className="room-said" role="status">
        {said && tapped.length === 0 ? said : ''}
      </p>
      <div className="room-pictures">
        {PICTURES.map((picture) => (
          <button key={picture} type="button" disabled={asking} onClick={() => void tap(picture)}>
            <PictureSign picture={picture} />
            <span>{picture}</span>
          </button>
        ))}
      </div>
    </main>
  );
}
