import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { SessionState } from '../../../contract/session.ts';
import { post } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';
import { useSave } from '../../ui/useSave.ts';
import { Cover } from './Cover.tsx';
import './signIn.scss';

interface SignInPageProps {
  readonly demo: boolean;
  readonly onSignedIn: (state: SessionState) => void;
}

interface Door {
  readonly path: '/session' | '/session/visit';
  readonly body?: { readonly name: string; readonly password: string };
}

/** The door: with name and password, or into the demo. */
export function SignInPage({ demo, onSignedIn }: SignInPageProps) {
  const door = useSave(async ({ path, body }: Door) => onSignedIn((await post(path, body)) as SessionState));
  return (
    <main className="sign-in">
      <Cover />
      <section className="sign-in-card">
        <h1>Clapboard</h1>
        <p>Write a rhythm, count it, hear each child clap it, and keep the mark.</p>
        {demo && (
          <>
            <Button
              size="lg"
              className="w-100"
              disabled={door.saving}
              onClick={() => void door.save({ path: '/session/visit' })}
            >
              Look around Marrow Lane School
            </Button>
            <p className="or">or sign in</p>
          </>
        )}
        <SignInForm
          quiet={demo}
          busy={door.saving}
          problem={door.problem}
          onSubmit={(body) => void door.save({ path: '/session', body })}
        />
      </section>
    </main>
  );
}

interface FormProps {
  /** Another button on the page is the main one. */
  readonly quiet: boolean;
  readonly busy: boolean;
  readonly problem: Error | undefined;
  readonly onSubmit: (who: { name: string; password: string }) => void;
}

function SignInForm({ quiet, busy, problem, onSubmit }: FormProps) {
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onSubmit({ name, password });
  };
  return (
    <Form onSubmit={submit}>
      <Form.Group controlId="name" className="mb-3">
        <Form.Label>Name</Form.Label>
        <Form.Control
          value={name}
          autoComplete="username"
          required
          maxLength={60}
          onChange={(event) => setName(event.target.value)}
        />
      </Form.Group>
      <Form.Group controlId="password" className="mb-3">
        <Form.Label>Password</Form.Label>
        <Form.Control
          type="password"
          value={password}
          autoComplete="current-password"
          required
          onChange={(event) => setPassword(event.target.value)}
        />
      </Form.Group>
      {problem && <Notice problem={problem} />}
      <Button type="submit" variant={quiet ? 'outline-dark' : 'primary'} className="w-100" disabled={busy}>
        Sign in
      </Button>
    </Form>
  );
}
