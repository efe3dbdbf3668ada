import type { Room } from '../../../contract/room.ts';
import { ROOM_TO_SPARE } from '../../../contract/roomPictures.ts';
import { PictureSign } from '../../room/pictures.tsx';
import { DotsPicture } from '../../ui/DotsPicture.tsx';

/** Where devices come in. */
export const joinAddress = (origin = location.origin) => `${origin}/join`;

/** What the class reads: where to go, the pictures in their order, and how many are in. */
export function RoomDoor({ room }: { readonly room: Room }) {
  const { pictures, seats, size, namesShown } = room;
  const address = joinAddress();
  const children = size - ROOM_TO_SPARE;
  return (
    <section className="room-door" aria-label="Come in">
      <div className="room-way">
        <DotsPicture address={`${address}#${pictures.join('-')}`} name="Picture of dots with the way into this room" />
        <p className="room-address">{address.replace(/^https?:\/\//, '')}</p>
      </div>
      <ol className="room-four" aria-label="Pictures">
        {pictures.map((picture) => (
          <li key={picture}>
            <PictureSign picture={picture} />
            <span>{picture}</span>
          </li>
        ))}
      </ol>
      <p className="room-in" role="status">
        <strong>{seats.length}</strong> of {children} are in
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
