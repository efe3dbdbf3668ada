import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import Button from 'react-bootstrap/Button';
import type { ClassSummary } from '../../../contract/schoolClass.ts';
import { whatNext, withUsual } from '../../../core/making/whatNext.ts';
import { classStanding } from '../../../core/records/classStanding.ts';
import { nextSentence } from '../../../core/wording/makingWords.ts';
import { namingOf } from '../../../core/wording/voice.ts';
import { useRecords } from '../../api/hooks.ts';
import { useTermPlan } from '../../api/planning.ts';
import { useMisread } from '../../api/misread.ts';
import { knownChildren } from '../../domain/knownChildren.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { type MakeSettings, focusText } from './makeSettings.ts';

interface WhatNextProps {
  readonly schoolClass: ClassSummary;
  readonly onChoose: (change: Partial<MakeSettings>) => void;
}

/** What the class needs next, by its records, and why. */
export function WhatNext({ schoolClass, onChoose }: WhatNextProps) {
  const records = useRecords(schoolClass.id).data;
  const misread = useMisread(schoolClass.id).data;
  const term = useTermPlan(schoolClass.id).data;
  const next =
    records &&
    misread &&
    term !== undefined &&
    whatNext(
      classStanding(knownChildren(records)),
      misread,
      records.children.length,
      withUsual(term ? term.order : []),
    );
  const choose = () => {
    if (!next) return;
    const { elements, focus, level } = next;
    onChoose({ elements: elements.filter((id) => id !== 'compound'), focus: focusText(focus), level });
  };
  useKeys({ n: choose });
  if (!next) return null;
  return (
    <section className="what-next" aria-label={t`What next for ${schoolClass.name}`}>
      <p>
        <strong>{t`What next for ${schoolClass.name}`}</strong> {nextSentence(next, namingOf(schoolClass))}
      </p>
      <Button variant="outline-dark" onClick={choose}>
        {rich`Make these ${<kbd>N</kbd>}`}
      </Button>
    </section>
  );
}
