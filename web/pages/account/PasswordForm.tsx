import { t } from '../../../core/words/say.ts';
import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { put } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';
import { TextField } from '../../ui/TextField.tsx';
import { useSave } from '../../api/useSave.ts';

const LONGEST = 200;
/** As the contract has it, which is too large to load for one number. */
const SHORTEST = 10;

/** Another password, with the one of now. */
export function PasswordForm({ name }: { name: string }) {
  const [current, setCurrent] = useState('');
  const [password, setPassword] = useState('');
  const [done, setDone] = useState(false);
  const change = useSave(() => put('/account/password', { current, password }), '/account');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setDone(false);
    if (!(await change.save())) return;
    setCurrent('');
    setPassword('');
    setDone(true);
  };
  return (
    <Form className="card-paper" onSubmit={(event) => void submit(event)}>
      <h2>{t`Password`}</h2>
      <input type="hidden" name="username" autoComplete="username" value={name} readOnly />
      <TextField
        id="current-password"
        label={t`Password now`}
        type="password"
        autoComplete="current-password"
        value={current}
        maxLength={LONGEST}
        onValue={setCurrent}
      />
      <TextField
        id="new-password"
        label={t`New password`}
        type="password"
        autoComplete="new-password"
        value={password}
        minLength={SHORTEST}
        maxLength={LONGEST}
        help={t`At least ${SHORTEST} letters; a few words in a row are good. Your other devices
          are signed out.`}
        onValue={setPassword}
      />
      {change.problem && <Notice problem={change.problem} />}
      <p role="status">{done && t`The new password is kept. Other devices are signed out.`}</p>
      <Button type="submit" disabled={change.saving}>{t`Change it`}</Button>
    </Form>
  );
}
