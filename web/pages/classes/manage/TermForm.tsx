import { t } from '../../../../core/words/say.ts';
import { rich } from '../../../ui/rich.tsx';
import { format } from '../../../words/dates.ts';
import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { put } from '../../../api/client.ts';
import { useTerms } from '../../../api/hooks.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { useSave } from '../../../api/useSave.ts';

/** The terms that are over, to be read; and how the one of now is closed. */
export function TermForm({ schoolClass, onClose }: { schoolClass: ClassDetail; onClose: () => void }) {
  const { data, error } = useTerms(schoolClass.id);
  const [id] = useState(() => uuid());
  const [title, setTitle] = useState(() => t`Until ${format(new Date(), 'MMMM yyyy')}`);
  const closing = useSave(() => put(`/classes/${schoolClass.id}/terms/${id}`, { title: title.trim() }), '/classes');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (await closing.save()) onClose();
  };
  const problem = closing.problem ?? error;
  return (
    <section className="card-paper manage-form" aria-label={t`Terms`}>
      <h2>{t`Terms`}</h2>
      <ul className="terms">
        {data?.map(({ id: termId, title: closed, untilAt }) => (
          <li key={termId}>
            {rich`${<Link to={`/classes/${schoolClass.id}/terms/${termId}`}>{closed}</Link>},
              closed on ${format(untilAt, 'd MMMM yyyy')}`}
          </li>
        ))}
      </ul>
      {schoolClass.role === 'owner' ? (
        <Form onSubmit={(event) => void submit(event)}>
          <p>{t`Closing a term keeps the grid of marks as it is, to be read later, and
              begins an empty one. What the children know and all their takes stay.`}</p>
          <div className="share-line">
            <Form.Control
              aria-label={t`Name of the term`}
              value={title}
              required
              maxLength={60}
              onChange={(event) => setTitle(event.target.value)}
            />
            <Button type="submit" disabled={closing.saving}>{t`Close this term`}</Button>
            <Button variant="outline-dark" onClick={onClose}>{t`Cancel`}</Button>
          </div>
        </Form>
      ) : (
        <Button variant="outline-dark" onClick={onClose}>{t`Done`}</Button>
      )}
      {problem && <Notice problem={problem} />}
    </section>
  );
}
