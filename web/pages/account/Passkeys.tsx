import { t } from '../../../core/words/say.ts';
import { format } from '../../words/dates.ts';
import { KeyRound, Trash2 } from 'lucide-react';
import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { Account } from '../../../contract/session.ts';
import { remove } from '../../api/client.ts';
import { canUsePasskeys } from '../../api/canUsePasskeys.ts';
import { addPasskey } from '../../api/passkeys.ts';
import { Notice } from '../../ui/Notice.tsx';
import { TextField } from '../../ui/TextField.tsx';
import { useSave } from '../../api/useSave.ts';

/** Keys on the teacher's own devices: a second way in, without a password. */
export function Passkeys({ passkeys }: { passkeys: Account['passkeys'] }) {
  const [name, setName] = useState('');
  const adding = useSave(() => addPasskey(name), '/account');
  const removing = useSave((id: string) => remove(`/account/passkeys/${id}`), '/account');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (await adding.save()) setName('');
  };
  const problem = adding.problem ?? removing.problem;
  return (
    <section className="card-paper">
      <h2>{t`Passkeys`}</h2>
      <p>
        {t`A passkey lets you in with the finger, the face or the code of your own device
          instead of the password.`}
        {passkeys.length === 0 && t` You have none.`}
      </p>
      <ul className="list-unstyled">
        {passkeys.map(({ id, name: device, createdAt }) => (
          <li key={id} className="passkey">
            <KeyRound size={16} aria-hidden /> {t`${device}, since ${format(createdAt, 'd MMMM yyyy')}`}
            <Button
              variant="outline-dark"
              size="sm"
              aria-label={t`Remove the passkey ${device}`}
              onClick={() => confirm(t`Remove the passkey ${device}?`) && void removing.save(id)}
            >
              <Trash2 size={16} aria-hidden />
            </Button>
          </li>
        ))}
      </ul>
      {canUsePasskeys() ? (
        <Form onSubmit={(event) => void submit(event)}>
          <TextField id="passkey-name" label={t`Name of this device`} value={name} maxLength={60} onValue={setName} />
          <Button type="submit" variant="outline-dark" disabled={adding.saving}>{t`Add a passkey`}</Button>
        </Form>
      ) : (
        <p>{t`At this address the browser makes no passkeys: they need a name (not a number)
          and a safe connection.`}</p>
      )}
      {problem && <Notice problem={problem} />}
    </section>
  );
}
