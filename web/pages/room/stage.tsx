import { t } from '../../../core/words/say.ts';
import { useEffect } from 'react';
import type { Room, RoomTask, RoundEdit } from '../../../contract/room.ts';
import type { Voice } from '../../../core/wording/voice.ts';
import type { RoomClock } from '../../room/roomClock.ts';
import { useKeys } from '../../ui/useKeys.ts';

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

/**
 * A round that is answered and then opened: devices may answer as soon as it is there, one key shows the answer and
 * then goes on, another plays what is asked.
 */
export function useAnswering({ round, onRound, onNext }: StageProps, play: () => void) {
  useEffect(() => {
    if (round.phase === 'ready') void onRound({ ...round, phase: 'going' });
    // Once for each round.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [round.number]);
  const isOpen = round.phase === 'answer';
  const goOn = isOpen ? onNext : () => void onRound({ ...round, phase: 'answer' });
  useKeys({ ' ': goOn, p: play });
  return { isOpen, goOn };
}

/** How many of those who are in have done something, in words. */
export function Tally({ count, of, what }: { readonly count: number; readonly of: number; readonly what: string }) {
  return (
    <p className="room-tally" role="status">
      <strong>{t`${count} of ${of}`}</strong> {what}
    </p>
  );
}
