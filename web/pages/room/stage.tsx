import type { Room, RoomTask, RoundEdit } from '../../../contract/room.ts';
import type { Voice } from '../../../core/wording/voice.ts';
import type { RoomClock } from '../../room/roomClock.ts';

/** What every stage is given. */
export interface StageProps {
  readonly room: Room;
  readonly round: RoundEdit;
  readonly voice: Voice;
  readonly clock: RoomClock | undefined;
  /** The next step of the round. */
  readonly onRound: (round: RoundEdit) => Promise<boolean>;
  /** The same, or another of its kind, once more. */
  readonly onAgain: (task: RoomTask) => void;
  readonly onNext: () => void;
}

/** How many of those who are in have done something, in words. */
export function Tally({ count, of, what }: { readonly count: number; readonly of: number; readonly what: string }) {
  return (
    <p className="room-tally" role="status">
      <strong>
        {count} of {of}
      </strong>{' '}
      {what}
    </p>
  );
}
