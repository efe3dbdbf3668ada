import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Download } from 'lucide-react';
import fitsErased from 'virtual:fits/child-erased';
import { t } from '../../../../core/words/say.ts';
import type { Child } from '../../../../contract/child.ts';
import type { ChildErased } from '../../../../contract/childData.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { changeNow } from '../../../api/client.ts';
import { useSave } from '../../../api/useSave.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { fileName } from '../../../ui/saveFile.ts';
import { HoldForm } from '../manage/HoldForm.tsx';

interface KeptProps {
  readonly schoolClass: ClassDetail;
  readonly child: Child;
  /** Told before the page knows that the child is gone. */
  readonly onErased: (erased: ChildErased) => void;
}

/** What is kept of a child: held for longer, all of it in a file, or all of it deleted. */
export default function KeptOfChild({ schoolClass, child, onErased }: KeptProps) {
  const path = `/classes/${schoolClass.id}/children/${child.id}`;
  const [typed, setTyped] = useState('');
  const erasing = useSave(async () => {
    const answer = await changeNow(`${path}/everything`, undefined);
    if (fitsErased(answer)) onErased(answer as ChildErased);
  });
  return (
    <section className="card-paper kept-of-child" aria-label={t`What is kept of ${child.name}`}>
      <div>
        <h2>{t`Keep for longer`}</h2>
        <HoldForm path={path} />
      </div>
      <div>
        <h2>{t`All of it as a file`}</h2>
        <p>{t`For parents who ask: everything that is kept of ${child.name}, with the sound of takes.`}</p>
        <a className="btn btn-outline-dark" href={`/api${path}/everything`} download={fileName(`${child.name}.json`)}>
          <Download size={16} aria-hidden /> {t`Save everything of ${child.name}`}
        </a>
      </div>
      <div>
        <h2>{t`Delete all of it`}</h2>
        <p>{t`At once and for good: no bin, no way back. Closed terms lose this child too.`}</p>
        <Form.Label htmlFor="erase-name">{t`Write ${child.name} to say so`}</Form.Label>
        <div className="erase-row">
          <Form.Control
            id="erase-name"
            value={typed}
            autoComplete="off"
            onChange={({ target }) => setTyped(target.value)}
          />
          <Button
            variant="outline-dark"
            disabled={typed.trim() !== child.name || erasing.saving}
            onClick={() => void erasing.save()}
          >
            {t`Delete everything`}
          </Button>
        </div>
        {erasing.problem && <Notice problem={erasing.problem} />}
      </div>
    </section>
  );
}
