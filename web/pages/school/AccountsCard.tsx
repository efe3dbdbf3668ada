import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import fitsCode from 'virtual:fits/one-time-code';
import fitsStaff from 'virtual:fits/staff';
import type { OneTimeCode, StaffMember } from '../../../contract/staff.ts';
import { post, put } from '../../api/client.ts';
import { useGet } from '../../api/useGet.ts';
import { OneTime } from './OneTime.tsx';
import { Loading } from '../../ui/Loading.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { TextField } from '../../ui/TextField.tsx';
import { useSave } from '../../api/useSave.ts';

interface Given {
  readonly name: string;
  readonly code: string;
}

/** Accounts of a school, for its administrators: nothing of what is in them. */
export function AccountsCard({ schoolId, self }: { schoolId: string; self: string }) {
  const path = `/schools/${schoolId}/staff`;
  const { data, error, mutate } = useGet<StaffMember[]>(path, fitsStaff);
  const [name, setName] = useState('');
  const [given, setGiven] = useState<Given>();
  const ask = async (to: string, whose: string, body: object) => {
    const answer = await post(to, body);
    if (fitsCode(answer)) setGiven({ name: whose, code: (answer as OneTimeCode).code });
  };
  const adding = useSave(() => ask(path, name.trim(), { name: name.trim() }), path);
  const coding = useSave((one: StaffMember) => ask(`${path}/${one.id}/code`, one.name, {}), path);
  const closing = useSave((one: StaffMember) => put(`${path}/${one.id}`, { closed: !one.closed }), path);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (await adding.save()) setName('');
  };
  const problem = adding.problem ?? coding.problem ?? closing.problem;
  return (
    <section className="card-paper">
      <h2>{t`Accounts`}</h2>
      <p>{t`You see no class, child or mark of a colleague here.`}</p>
      {!data && <Loading problem={error} again={() => void mutate()} />}
      {given && (
        <OneTime code={given.code} onDone={() => setGiven(undefined)}>
          {rich`Give this code to ${<strong>{given.name}</strong>} in person. It is shown only now,
          works once, and until tomorrow: under “I was given a code” at the sign-in.`}
        </OneTime>
      )}
      {problem && <Notice problem={problem} />}
      <Form className="new-teacher" onSubmit={(event) => void submit(event)}>
        <TextField id="teacher-name" label={t`Name of a new teacher`} value={name} maxLength={60} onValue={setName} />
        <Button type="submit" disabled={name.trim() === '' || adding.saving}>{t`Make the account`}</Button>
      </Form>
      <ul className="staff">
        {data?.map((one) => (
          <Account
            key={one.id}
            one={one}
            self={one.id === self}
            onCode={() => void coding.save(one)}
            onClose={() => void closing.save(one)}
          />
        ))}
      </ul>
    </section>
  );
}

interface AccountProps {
  readonly one: StaffMember;
  readonly self: boolean;
  readonly onCode: () => void;
  readonly onClose: () => void;
}

function Account({ one: { name, administrator, closed }, self, onCode, onClose }: AccountProps) {
  return (
    <li>
      <strong>{name}</strong>
      <span>{[administrator && t`administrator`, closed && t`closed`, self && t`you`].filter(Boolean).join(', ')}</span>
      {!closed && (
        <Button size="sm" variant="outline-dark" onClick={onCode} aria-label={t`Code for a new password for ${name}`}>
          {t`Code for a new password`}
        </Button>
      )}
      {!self && (
        <Button
          size="sm"
          variant="outline-dark"
          onClick={onClose}
          aria-label={`${closed ? t`Open` : t`Close`} ${name}`}
        >
          {closed ? t`Open again` : t`Close`}
        </Button>
      )}
    </li>
  );
}
