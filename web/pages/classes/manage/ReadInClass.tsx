import { t } from '../../../../core/words/say.ts';
import { format } from '../../../words/dates.ts';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import ProgressBar from 'react-bootstrap/ProgressBar';
import { useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { ClassCopy } from '../../../../contract/classCopy.ts';
import { put, putSound } from '../../../api/client.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { useSave } from '../../../api/useSave.ts';
import { usePatterns } from '../../../api/hooks.ts';
import './manage.scss';
import { piecesOf, readCopy, renamed, soundIn } from './readCopy.ts';

interface ReadInProps {
  /** The school, where there are several. */
  readonly at: { readonly schoolId?: string };
  readonly onClose: () => void;
}

/** A class that was saved as a file, here or elsewhere: what is in it is shown first. */
export function ReadInClass({ at, onClose }: ReadInProps) {
  const [id, setId] = useState(() => uuid());
  const [copy, setCopy] = useState<ClassCopy | string>();
  const navigate = useNavigate();
  const choose = async (file: File | undefined) => {
    setId(uuid());
    setCopy(file && readCopy(await file.text()));
  };
  const { reading, done } = useReadingIn(id, at);
  const readIn = async (found: ClassCopy) => {
    if (await reading.save(found)) await navigate(`/classes/${id}`);
  };
  return (
    <section className="card-paper manage-form" aria-label={t`Read in a class`}>
      <h2>{t`Read in a class`}</h2>
      <Form.Label htmlFor="class-file">{t`A file that was saved under a class, More, Save all of it as a
        file`}</Form.Label>
      <Form.Control
        type="file"
        id="class-file"
        accept=".json,application/json"
        onChange={(event) => void choose((event.target as HTMLInputElement).files?.[0])}
      />
      <div role="status">
        {typeof copy === 'string' && <Notice problem={{ message: copy }} />}
        {typeof copy === 'object' && <p>{insideOf(copy)}</p>}
        {reading.saving && <ProgressBar now={done * 100} aria-label={t`Read in so far`} />}
      </div>
      {reading.problem && <Notice problem={reading.problem} />}
      <div className="class-form-actions">
        {typeof copy === 'object' && (
          <Button disabled={reading.saving} onClick={() => void readIn(copy)}>{t`Make this class here`}</Button>
        )}
        <Button variant="outline-dark" onClick={onClose}>{t`Cancel`}</Button>
      </div>
    </section>
  );
}

/** Puts a class of a file into a new one, step by step; tried again, each step is done once. */
function useReadingIn(id: string, at: ReadInProps['at']) {
  const [done, setDone] = useState(0);
  const patterns = usePatterns().data;
  const reading = useSave(
    async (found: ClassCopy) => {
      const own = renamed(found, id, patterns ?? []);
      const path = `/classes/${id}`;
      const steps = [
        () => put(path, { ...own.settings, ...at }),
        ...own.children.map(
          ({ id: childId, ...child }) =>
            () =>
              put(`${path}/children/${childId}`, child),
        ),
        ...own.patterns.map(
          ({ id: patternId, ...pattern }) =>
            () =>
              put(`/patterns/${patternId}`, pattern),
        ),
        ...piecesOf(own).map((pieces) => () => put(`${path}/copied`, pieces)),
        ...own.sounds.map((one) => () => putSound(`/takes/${one.takeId}/recording?until=${one.until}`, soundIn(one))),
      ];
      for (const [i, step] of steps.entries()) {
        await step();
        setDone((i + 1) / steps.length);
      }
    },
    '/classes',
    '/patterns',
  );
  return { reading, done };
}

function insideOf({ settings, children, takes, terms, savedAt }: ClassCopy): string {
  const closed = terms.length === 0 ? '' : t`, terms that are over: ${terms.length}`;
  const saved = format(savedAt, 'd MMMM yyyy');
  return t`${settings.name}: ${children.length} children, ${takes.length} takes${closed}; saved on ${saved}.`;
}
