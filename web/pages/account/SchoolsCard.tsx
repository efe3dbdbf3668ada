import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { t } from '../../../core/words/say.ts';
import type { Teacher } from '../../../contract/session.ts';
import { post } from '../../api/client.ts';
import { useSave } from '../../api/useSave.ts';
import { Notice } from '../../ui/Notice.tsx';
import { TextField } from '../../ui/TextField.tsx';

/** Where a teacher is, and the way into another school. */
export function SchoolsCard({ teacher: { name, schools } }: { teacher: Teacher }) {
  const [joining, setJoining] = useState(false);
  const [code, setCode] = useState('');
  const [as, setAs] = useState(name);
  const joined = useSave(async () => {
    await post('/account/schools', { code, name: as.trim() });
    // Where she is belongs to what is known of who is signed in.
    location.reload();
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void joined.save();
  };
  return (
    <section className="card-paper">
      <h2>{schools.length === 1 ? t`Your school` : t`Schools`}</h2>
      <ul className="devices">
        {schools.map(({ id, name: school, as: known, administrator }) => (
          <li key={id}>
            <span>
              <Link to={`/school?at=${id}`}>
                <strong>{school}</strong>
              </Link>
              {known !== name && `, ${t`there as ${known}`}`}
              {administrator && `, ${t`administrator`}`}
            </span>
            <Link to={`/shelf?at=${id}`}>{t`Shelf`}</Link>
          </li>
        ))}
      </ul>
      {joining ? (
        <Form onSubmit={submit}>
          <TextField id="join-code" label={t`Code of the invitation`} value={code} maxLength={200} onValue={setCode} />
          <TextField id="join-as" label={t`Your name at that school`} value={as} maxLength={60} onValue={setAs} />
          {joined.problem && <Notice problem={joined.problem} />}
          <Button type="submit" disabled={joined.saving}>{t`Join this school`}</Button>{' '}
          <Button variant="outline-dark" onClick={() => setJoining(false)}>{t`Cancel`}</Button>
        </Form>
      ) : (
        <Button variant="outline-dark" onClick={() => setJoining(true)}>{t`I teach at another school too`}</Button>
      )}
    </section>
  );
}
