import { t } from '../../../core/words/say.ts';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { v4 as uuid } from 'uuid';
import type { HearingEdit } from '../../../contract/together.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { put } from '../../api/client.ts';
import { useSave } from '../../api/useSave.ts';
import { mayHear } from '../../domain/currentClass.ts';
import { Notice } from '../../ui/Notice.tsx';

interface KeepProps {
  readonly schoolClass: ClassDetail;
  readonly hearing: Omit<HearingEdit, 'takenAt'>;
}

/** Puts what is shown beside the other weeks of the class; once. */
export function KeepHearing({ schoolClass, hearing }: KeepProps) {
  const [id] = useState(() => uuid());
  const [kept, setKept] = useState(false);
  const keeping = useSave(
    () => put(`/classes/${schoolClass.id}/together/${id}`, { ...hearing, takenAt: Date.now() }),
    '/classes',
  );
  if (!mayHear(schoolClass)) return null;
  if (kept) return <span role="status">{t`Kept with ${schoolClass.name}: it is in this week.`}</span>;
  return (
    <>
      <Button
        variant="outline-dark"
        disabled={keeping.saving}
        onClick={() => void keeping.save().then((done) => setKept(done))}
      >
        {t`Keep it with the class`}
      </Button>
      {keeping.problem && <Notice problem={keeping.problem} />}
    </>
  );
}
