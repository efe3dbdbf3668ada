import { t } from '../../../../core/words/say.ts';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useNavigate } from 'react-router';
import type { TakeDetail } from '../../../../contract/take.ts';
import { remove } from '../../../api/client.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { useSave } from '../../../api/useSave.ts';

interface RemoveTakeProps {
  readonly classId: string;
  readonly take: TakeDetail;
  readonly childName: string;
}

/** Somebody else clapped, or nobody meant it: the take is taken away from the child, after asking. */
export function RemoveTake({ classId, take, childName }: RemoveTakeProps) {
  const navigate = useNavigate();
  const [asked, setAsked] = useState(false);
  const removal = useSave(() => remove(`/takes/${take.id}`), '/classes', '/bin');
  const go = async () => {
    if (await removal.save()) void navigate(`/classes/${classId}/children/${take.childId}`);
  };
  if (!asked)
    return (
      <Button size="sm" variant="outline-dark" className="remove-take no-print" onClick={() => setAsked(true)}>
        {t`Remove this take`}
      </Button>
    );
  return (
    <div className="alert alert-warning remove-take no-print" role="alert">
      <p>{t`Was this not ${childName}, or not meant? It goes into the bin, with its mark and
          what it says of ${childName}, and can be taken out for 30 days under Classes by
          whose class it is.`}</p>
      <div className="notice-actions">
        <Button size="sm" onClick={() => void go()}>{t`Remove it`}</Button>
        <Button size="sm" variant="outline-dark" onClick={() => setAsked(false)}>{t`Keep it`}</Button>
      </div>
      {removal.problem && <Notice problem={removal.problem} />}
    </div>
  );
}
