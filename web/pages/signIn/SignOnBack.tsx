import { type FormEvent, useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import fitsDone from 'virtual:fits/sign-on-done';
import { t } from '../../../core/words/say.ts';
import type { SessionState, SignOnDone } from '../../../contract/session.ts';
import { post } from '../../api/client.ts';
import { useSave } from '../../api/useSave.ts';
import { Notice } from '../../ui/Notice.tsx';
import { TextField } from '../../ui/TextField.tsx';
import './signIn.scss';

interface SignOnBackProps {
  /** Of the address: what the other place says. */
  readonly query: string;
  readonly onSignedIn: (state: SessionState) => void;
  readonly onLeave: (to: string) => void;
}

/** Somebody comes back from the place that vouches for teachers. */
export default function SignOnBack({ query, onSignedIn, onLeave }: SignOnBackProps) {
  const [found, setFound] = useState<SignOnDone>();
  const asked = useRef(false);
  const asking = useSave(async () => {
    const answer = await post('/session/sign-on/answer', { query });
    if (!fitsDone(answer)) return onSignedIn(answer as SessionState);
    const done = answer as SignOnDone;
    if (done.kind === 'linked') onLeave('/account');
    else setFound(done);
  });
  const { save } = asking;
  useEffect(() => {
    // It is good for one answer.
    if (asked.current) return;
    asked.current = true;
    void save();
  }, [save]);
  return (
    <main className="sign-in">
      <section className="sign-in-card">
        <h1>{t`Clapboard`}</h1>
        {asking.problem && (
          <>
            <Notice problem={asking.problem} />
            <Button onClick={() => onLeave('/')}>{t`To the sign-in`}</Button>
          </>
        )}
        {!found && !asking.problem && <p role="status">{t`One moment.`}</p>}
        {found?.kind === 'new' && <NewHere name={found.name} query={query} onSignedIn={onSignedIn} onLeave={onLeave} />}
      </section>
    </main>
  );
}

/** Nobody here yet: an invitation makes an account. */
function NewHere({ name: first, query, onSignedIn, onLeave }: SignOnBackProps & { name: string }) {
  const [name, setName] = useState(first);
  const [code, setCode] = useState('');
  const state = new URLSearchParams(query).get('state') ?? '';
  const making = useSave(async () =>
    onSignedIn((await post('/session/sign-on/account', { name: name.trim(), code, state })) as SessionState),
  );
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void making.save();
  };
  return (
    <Form onSubmit={submit}>
      <p>{t`You are not known here yet. With an invitation of your school you make an account now. If you have one
        already, sign in with your password, and connect the two under your name.`}</p>
      <TextField id="new-name" label={t`Your name at the school`} value={name} maxLength={60} onValue={setName} />
      <TextField id="new-code" label={t`Code of the invitation`} value={code} maxLength={200} onValue={setCode} />
      {making.problem && <Notice problem={making.problem} />}
      <Button type="submit" className="w-100" disabled={making.saving}>{t`Make my account and sign in`}</Button>
      <div className="other-doors">
        <Button variant="link" size="sm" onClick={() => onLeave('/')}>{t`To the sign-in`}</Button>
      </div>
    </Form>
  );
}
