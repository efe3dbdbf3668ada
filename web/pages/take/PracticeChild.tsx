import { t } from '../../../core/words/say.ts';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { MISREADING_CODES, type MisreadingCode } from '../../../core/judging/misreadings/table.ts';
import type { SimulatedChild } from '../../../core/judging/simulatedChild.ts';
import { misreadingTitle } from '../../../core/wording/misreadingSentences.ts';
import type { Voice } from '../../../core/wording/voice.ts';
import { Select } from '../../ui/Select.tsx';
import { useSave } from '../../api/useSave.ts';
import { Notice } from '../../ui/Notice.tsx';

/** A steady child of nine: seconds. */
const STEADY = { spread: 0.022, lead: 0.03 } as const;

interface PracticeChildProps {
  readonly voice: Voice;
  readonly onPractise: (child: SimulatedChild) => Promise<void>;
}

/** A stand-in for a real child, so that everything can be tried alone. */
export function PracticeChild({ voice, onPractise }: PracticeChildProps) {
  const [code, setCode] = useState<MisreadingCode | ''>('');
  const hear = useSave(() => onPractise({ ...STEADY, ...(code === '' ? {} : { misreads: [{ code }] }) }));
  return (
    <div className="practice-child">
      <Form.Label htmlFor="practice">{t`No child here? The practice child claps it`}</Form.Label>
      <Select
        id="practice"
        size="sm"
        value={code}
        options={[
          ['', t`right`],
          ...MISREADING_CODES.map((one) => [one, t`with: ${misreadingTitle(one, voice)}`] as const),
        ]}
        onChoose={setCode}
      />
      <Button size="sm" variant="outline-dark" disabled={hear.saving} onClick={() => void hear.save()}>
        {t`Hear the practice child`}
      </Button>
      {hear.problem && <Notice problem={hear.problem} />}
    </div>
  );
}
