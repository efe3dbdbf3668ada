import { counted, t } from '../../../../core/words/say.ts';
import { formatDistanceToNowStrict } from '../../../words/ago.ts';
import { useState } from 'react';
import type { ChildMastery } from '../../../../contract/records.ts';
import { ELEMENTS } from '../../../../core/rhythm/elements.ts';
import { type NamingId, inNaming } from '../../../../core/wording/valueNames.ts';
import { useMastery } from '../../../api/hooks.ts';
import { ElementPlaceList } from './ElementPlaceList.tsx';
import { StateMark } from '../grid/StateMark.tsx';

interface MasteryTableProps {
  readonly classId: string;
  readonly childId: string;
  readonly naming: NamingId;
}

/** What a child knows, element by element: how it stands, and from which places that is told. */
export function MasteryTable({ classId, childId, naming }: MasteryTableProps) {
  const { data } = useMastery(classId, childId);
  const [opened, setOpened] = useState<string>();
  if (!data || data.length === 0) return null;
  return (
    <ul className="mastery" aria-label={t`What is known`}>
      {data.map((one) => {
        const isOpen = opened === one.element;
        return (
          <li key={one.element} className={isOpen ? 'mastery-open' : undefined}>
            <button
              type="button"
              className="mastery-row"
              aria-expanded={isOpen}
              onClick={() => setOpened(isOpen ? undefined : one.element)}
            >
              <Standing mastery={one} naming={naming} />
            </button>
            {isOpen && <ElementPlaceList classId={classId} childId={childId} element={one.element} naming={naming} />}
          </li>
        );
      })}
    </ul>
  );
}

function Standing({ mastery, naming }: { mastery: ChildMastery[number]; naming: NamingId }) {
  const { element, state, places, lastSeen } = mastery;
  const told = places ? places.right + places.misread : 0;
  return (
    <>
      <span className="mastery-name">{inNaming(ELEMENTS()[element].title, naming)}</span>
      <span className="mastery-bar" aria-hidden>
        <span style={{ width: `${told > 0 ? Math.round((100 * places!.right) / told) : 0}%` }} />
      </span>
      <span>{told > 0 ? t`${places!.right} of ${counted(told, 'place')}` : t`nothing told`}</span>
      <StateMark state={state} />
      <span className="mastery-seen">{t`${formatDistanceToNowStrict(lastSeen)} ago`}</span>
    </>
  );
}
