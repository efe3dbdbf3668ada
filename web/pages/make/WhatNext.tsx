import Button from 'react-bootstrap/Button';
import type { ClassSummary } from '../../../contract/schoolClass.ts';
import { whatNext } from '../../../core/making/whatNext.ts';
import { classStanding } from '../../../core/records/classStanding.ts';
import { nextSentence } from '../../../core/wording/makingWords.ts';
import { namingOf } from '../../../core/wording/voice.ts';
import { useRecords } from '../../api/hooks.ts';
import { useMisread } from '../../api/misread.ts';
import { knownChildren } from '../../ui/knownChildren.ts';
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
  if (!records || !misread) return null;
  const next = whatNext(classStanding(knownChildren(records)), misread, records.children.length);
  const { elements, focus, level } = next;
  const choose = () =>
    onChoose({ elements: elements.filter((id) => id !== 'compound'), focus: focusText(focus), level });
  return (
    <section className="what-next" aria-label={`What next for ${schoolClass.name}`}>
      <p>
        <strong>What next for {schoolClass.name}</strong> {nextSentence(next, namingOf(schoolClass))}
      </p>
      <Button variant="outline-dark" onClick={choose}>
        Make these <kbd>N</kbd>
      </Button>
      <NextKey press={choose} />
    </section>
  );
}

/** Its key, once there is something to choose. */
function NextKey({ press }: { press: () => void }) {
  useKeys({ n: press });
  return null;
}
