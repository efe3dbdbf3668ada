import { counted, t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { ClassSummary } from '../../../contract/schoolClass.ts';
import { listed } from '../../../core/wording/plurals.ts';
import { useWaitingTakes } from '../../api/useOutbox.ts';
import { isOpen, progressOf } from '../../domain/openLineUps.ts';
import { useChanges } from '../../store/changes.ts';
import { tornTakes } from '../../store/torn.ts';
import { useChooseClass } from '../../domain/currentClass.ts';
import type { ClassFacts } from './useDay.ts';

interface LeftOverProps {
  readonly teacherId: string;
  readonly classes: readonly ClassSummary[];
  readonly facts: ReadonlyMap<string, ClassFacts>;
}

/** One thing that was left, and where it goes on. */
interface Left {
  readonly key: string;
  readonly room?: ClassSummary;
  readonly says: string;
  readonly to?: string;
  readonly go?: string;
}

/** How many takes of each class were broken off on this device. */
function useTorn(teacherId: string, classes: readonly ClassSummary[]): ReadonlyMap<string, number> {
  const [torn, setTorn] = useState<ReadonlyMap<string, number>>(new Map());
  const ids = classes.map(({ id }) => id).join(' ');
  useEffect(() => {
    let gone = false;
    const look = async () => {
      const found = await Promise.all(
        ids.split(' ').map(async (id) => [id, (await tornTakes(teacherId, id)).length] as const),
      );
      if (!gone) setTorn(new Map(found));
    };
    void look();
    return () => {
      gone = true;
    };
  }, [teacherId, ids]);
  return torn;
}

function leftOf(room: ClassSummary, { lineUps }: ClassFacts, torn: number): Left[] {
  const line = (id: string) => `/take/line-up/${room.id}/${id}`;
  const clashes = lineUps.filter(({ turns }) => turns.some(({ clash }) => clash !== null));
  return [
    ...lineUps.filter(isOpen).map((one) => ({
      key: one.id,
      room,
      says: `${one.title}, ${progressOf(one)}`,
      to: line(one.id),
      go: t`Go on`,
    })),
    ...clashes.map((one) => ({
      key: `${one.id} clash`,
      room,
      says: t`${one.title}: two different things are said of a child`,
      to: line(one.id),
      go: t`Look`,
    })),
    ...(torn > 0
      ? [{ key: `${room.id} torn`, room, says: `${counted(torn, 'take')} broken off`, to: '/take', go: t`Look` }]
      : []),
  ];
}

/** Line-ups that are not finished, takes that were broken off, what waits to be sent, who was away. */
export function LeftOver({ teacherId, classes, facts }: LeftOverProps) {
  const torn = useTorn(teacherId, classes);
  const choose = useChooseClass();
  const [waiting, changes] = [useWaitingTakes(teacherId).length, useChanges(teacherId).length];
  const left = classes.flatMap((room) => leftOf(room, facts.get(room.id)!, torn.get(room.id) ?? 0));
  const unsent = [
    ...(waiting > 0 ? [counted(waiting, 'take')] : []),
    ...(changes > 0 ? [counted(changes, 'change')] : []),
  ];
  const away = classes.filter(({ id }) => facts.get(id)!.away.length > 0);
  if (left.length + unsent.length + away.length === 0) return null;
  return (
    <section aria-labelledby="today-left">
      <h2 id="today-left">{t`Left over`}</h2>
      <ul className="today-left">
        {left.slice(0, MOST_SHOWN).map(({ key, room, says, to, go }) => (
          <li key={key}>
            <span>
              {room && <strong>{room.name}: </strong>}
              {says}
            </span>
            {to && room && (
              <Link className="btn btn-sm btn-outline-dark" to={to} onClick={() => choose(room.id)}>
                {go}
              </Link>
            )}
          </li>
        ))}
        {left.length > MOST_SHOWN && <li>{t`and ${left.length - MOST_SHOWN} more, each under Take in its class`}</li>}
        {unsent.length > 0 && (
          <li>{t`${listed(unsent)} not sent yet: they go by themselves when the server answers.`}</li>
        )}
        {away.map((room) => (
          <li key={`${room.id} away`}>
            <span>{rich`${<strong>{room.name}: </strong>}away last time: ${listed(facts.get(room.id)!.away)}`}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** More would push the rest off the screen. */
const MOST_SHOWN = 5;
