import { t } from '../../../core/words/say.ts';
import Button from 'react-bootstrap/Button';
import { hardElements, needsOf } from '../../../core/records/classStanding.ts';
import { ELEMENTS, type ElementId } from '../../../core/rhythm/elements.ts';
import { listed } from '../../../core/wording/plurals.ts';
import { type NamingId, inNaming } from '../../../core/wording/valueNames.ts';
import { useRecords } from '../../api/hooks.ts';
import { knownChildren } from '../../domain/knownChildren.ts';

interface HardProps {
  readonly classId: string;
  readonly naming: NamingId;
  readonly onChoose: (elements: readonly ElementId[]) => void;
}

/** Makes the sheet about what the children of the class find hard, by their records. */
export function HardElements({ classId, naming, onChoose }: HardProps) {
  const { data } = useRecords(classId);
  if (!data) return null;
  const hard = hardElements(needsOf(knownChildren(data)).filter(({ element }) => element !== 'compound'));
  if (hard.length === 0) return null;
  const names = hard.map((id) => inNaming(ELEMENTS()[id].title, naming));
  return (
    <p className="sheet-hard">
      {t`They find hard: ${listed(names)}.`}{' '}
      <Button variant="outline-dark" size="sm" onClick={() => onChoose(hard)}>{t`Make it about these`}</Button>
    </p>
  );
}
