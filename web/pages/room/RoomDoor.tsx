import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import type { Room } from '../../../contract/room.ts';
import { ROOM_TO_SPARE } from '../../../contract/roomPictures.ts';
import { PictureSign } from '../../room/pictures.tsx';
import { DotsPicture } from '../../ui/DotsPicture.tsx';

/** The teacher's page is on the machine of the server itself: that address means another machine to everybody else. */
const ON_THIS_MACHINE = /^(localhost|127\.[\d.]+|\[::1\])$/;

/**
 * Where devices come in: as the teacher's page, or where that is on the server's own machine by an address of its
 * network.
 * @param addresses  those that the server knows of itself
 * @returns `reached` is false where no other device gets in
 */
export function wayIn(
  addresses: readonly string[],
  { hostname, origin }: Pick<Location, 'hostname' | 'origin'> = location,
): { readonly address: string; readonly reached: boolean } {
  if (!ON_THIS_MACHINE.test(hostname)) return { address: `${origin}/join`, reached: true };
  return { address: addresses[0] ?? `${origin}/join`, reached: addresses.length > 0 };
}

/** What the class reads: where to go, the pictures in their order, and how many are in. */
export function RoomDoor({ room }: { readonly room: Room }) {
  const { pictures, seats, size, namesShown } = room;
  const { address, reached } = wayIn(room.addresses);
  const children = size - ROOM_TO_SPARE;
  return (
    <section className="room-door" aria-label={t`Come in`}>
      <div className="room-way">
        <DotsPicture
          address={`${address}#${pictures.join('-')}`}
          name={t`Picture of dots with the way into this room`}
        />
        <p className="room-address">{address.replace(/^https?:\/\//, '')}</p>
        {!reached && (
          <p className="room-alone">{t`No other device gets in: the server listens to this machine alone
            (HOST=0.0.0.0).`}</p>
        )}
      </div>
      <ol className="room-four" aria-label={t`Pictures`}>
        {pictures.map((picture) => (
          <li key={picture}>
            <PictureSign picture={picture} />
            <span>{picture}</span>
          </li>
        ))}
      </ol>
      <p className="room-in" role="status">
        {rich`${<strong>{seats.length}</strong>} of ${children} are in`}
      </p>
      {namesShown && seats.length > 0 && (
        <ul className="room-who">
          {seats.map(({ childId, name }) => (
            <li key={childId}>{name}</li>
          ))}
        </ul>
      )}
    </section>
  );
}
