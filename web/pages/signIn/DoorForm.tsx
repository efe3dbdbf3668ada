import { t } from '../../../core/words/say.ts';
import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { SessionState } from '../../../contract/session.ts';
import { post } from '../../api/client.ts';
import { canUsePasskeys } from '../../api/canUsePasskeys.ts';
import { Notice } from '../../ui/Notice.tsx';
import { TextField } from '../../ui/TextField.tsx';
import { useSave } from '../../api/useSave.ts';

interface DoorFormProps {
  /** Another button on the page is the main one. */
  readonly quiet?: boolean;
  /** Who is to sign in, where that is known. */
  readonly known?: string;
  readonly onSignedIn: (state: SessionState) => void;
}

/** Loaded when it is wanted: most come in with a password. */
const withPasskey = async () => (await import('../../api/passkeys.ts')).signInWithPasskey();

/** In with name and password, with a passkey, or with a code that was given out. */
export function DoorForm({ quiet = false, known = '', onSignedIn }: DoorFormProps) {
  const [name, setName] = useState(known);
  const [password, setPassword] = useState('');
  const [code, setCode] = useState<string>();
  const door = useSave(async (enter: () => Promise<unknown>) => onSignedIn((await enter()) as SessionState));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void door.save(() =>
      code === undefined ? post('/session', { name, password }) : post('/session/reset', { name, code, password }),
    );
  };
  const variant = quiet ? 'outline-dark' : 'primary';
  return (
    <Form onSubmit={submit}>
      <TextField id="door-name" label={t`Name`} value={name} onValue={setName} autoComplete="username" maxLength={60} />
      {code !== undefined && (
        <TextField
          id="door-code"
          label={t`Code`}
          value={code}
          onValue={setCode}
          autoComplete="one-time-code"
          maxLength={200}
        />
      )}
      <TextField
        id="door-password"
        label={code === undefined ? t`Password` : t`New password`}
        type="password"
        value={password}
        onValue={setPassword}
        autoComplete={code === undefined ? 'current-password' : 'new-password'}
        maxLength={200}
      />
      {door.problem && <Notice problem={door.problem} />}
      <p role="status" className="door-wait">
        {door.saving && t`One moment. After several wrong tries this takes longer.`}
      </p>
      <Button type="submit" variant={variant} className="w-100" disabled={door.saving}>
        {code === undefined ? t`Sign in` : t`Keep the new password and sign in`}
      </Button>
      <div className="other-doors">
        {canUsePasskeys() && (
          <Button variant="link" size="sm" disabled={door.saving} onClick={() => void door.save(withPasskey)}>
            {t`Sign in with a passkey`}
          </Button>
        )}
        <Button variant="link" size="sm" onClick={() => setCode(code === undefined ? '' : undefined)}>
          {code === undefined ? t`I was given a code` : t`I know my password`}
        </Button>
      </div>
    </Form>
  );
}
