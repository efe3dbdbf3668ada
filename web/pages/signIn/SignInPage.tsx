import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { SessionState } from '../../../contract/school.ts';
import { post } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';
import './signIn.scss';

/** The strips of the rhythm on the cover: lengths in eighths, a rest where negative. */
const COVER = [2, 1, 1, 2, -2, 3, 1, 4];

export function SignInPage({ demo, onSignedIn }: { demo: boolean; onSignedIn: (state: SessionState) => void }) {
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<Error>();
  const [busy, setBusy] = useState(false);
  const begin = async (path: string, body?: object) => {
    setBusy(true);
    setProblem(undefined);
    try {
      onSignedIn((await post(path, body)) as SessionState);
    } catch (error) {
      setProblem(error as Error);
    } finally {
      setBusy(false);
    }
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void begin('/session', { name, password });
  };
  return (
    <main className="sign-in">
      <section className="cover" aria-hidden>
        <div className="cover-strips">
          {COVER.map((length, i) => (
            <span key={i} className={length < 0 ? 'rest' : 'note'} style={{ flexGrow: Math.abs(length) }} />
          ))}
        </div>
        <div className="cover-counts">
          {['1', '2', '&', '3', '(4)', '1-₂', '&', '3-4'].map((count, i) => (
            <span key={i} style={{ flexGrow: Math.abs(COVER[i]!) }}>
              {count}
            </span>
          ))}
        </div>
      </section>
      <section className="sign-in-card">
        <h1>Clapboard</h1>
        <p>Write a rhythm, count it, hear each child clap it, and keep the mark.</p>
        {demo && (
          <>
            <Button size="lg" className="w-100" disabled={busy} onClick={() => void begin('/session/visit')}>
              Look around Marrow Lane School
            </Button>
            <p className="or">or sign in</p>
          </>
        )}
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
          <Button type="submit" variant={demo ? 'outline-dark' : 'primary'} className="w-100" disabled={busy}>
            Sign in
          </Button>
        </Form>
      </section>
    </main>
  );
}
