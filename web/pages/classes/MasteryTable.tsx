import { formatDistanceToNowStrict } from 'date-fns';
import { ELEMENTS } from '../../../core/rhythm/elements.ts';
import { type NamingId, inNaming } from '../../../core/wording/valueNames.ts';
import { StateMark } from './StateMark.tsx';
import { useMastery } from '../../api/hooks.ts';

/** What a child knows, element by element: the part of its measures that were right, and how long ago it was heard. */
export function MasteryTable({ classId, childId, naming }: { classId: string; childId: string; naming: NamingId }) {
  const { data } = useMastery(classId, childId);
  if (!data || data.length === 0) return null;
  return (
    <ul className="mastery" aria-label="What is known">
      {data.map(({ element, right, heard, state, lastSeen }) => (
        <li key={element} title={`${heard} measures heard`}>
          <span className="mastery-name">{inNaming(ELEMENTS[element].title, naming)}</span>
          <span className="mastery-bar" aria-hidden>
            <span style={{ width: `${Math.round(right * 100)}%` }} />
          </span>
          <span>{Math.round(right * 100)} %</span>
          <StateMark state={state} />
          <span className="mastery-seen">{formatDistanceToNowStrict(lastSeen)} ago</span>
        </li>
      ))}
    </ul>
  );
}
