import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import fitsCode from 'virtual:fits/one-time-code';
import fitsStaff from 'virtual:fits/staff';
import type { OneTimeCode, StaffMember } from '../../../contract/staff.ts';
import type { Teacher } from '../../../contract/session.ts';
import { post, put } from '../../api/client.ts';
import { useGet } from '../../api/useGet.ts';
import { Loading } from '../../ui/Loading.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { TextField } from '../../ui/TextField.tsx';
import { useSave } from '../../api/useSave.ts';
import './staff.scss';

interface Given {
  readonly name: string;
  readonly code: string;
}

/** Accounts of the school, for its administrator: nothing of what is in them. */
export default function StaffPage({ teacher }: { teacher: Teacher }) {
  const { data, error, mutate } = useGet<StaffMember[]>('/staff', fitsStaff);
  const [name, setName] = useState('');
  const [given, setGiven] = useState<Given>();
  const ask = async (path: string, whose: string, body: object) => {
    const answer = await post(path, body);
    if (fitsCode(answer)) setGiven({ name: whose, code: (answer as OneTimeCode).code });
  };
  const adding = useSave(() => ask('/staff', name.trim(), { name: name.trim() }), '/staff');
  const coding = useSave((one: StaffMember) => ask(`/staff/${one.id}/code`, one.name, {}), '/staff');
  const closing = useSave((one: StaffMember) => put(`/staff/${one.id}`, { closed: !one.closed }), '/staff');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (await adding.save()) setName('');
  };
  const problem = adding.problem ?? coding.problem ?? closing.problem;
  return (
    <>
      <div className="page-head">
        <h1>{t`Accounts of the school`}</h1>
        <span>{t`You see no class, child or mark of a colleague here.`}</span>
      </div>
      {!data && <Loading problem={error} again={() => void mutate()} />}
      {given && <OneTime given={given} onDone={() => setGiven(undefined)} />}
      {problem && <Notice problem={problem} />}
      <Form className="card-paper new-teacher" onSubmit={(event) => void submit(event)}>
        <TextField id="teacher-name" label={t`Name of a new teacher`} value={name} maxLength={60} onValue={setName} />
        <Button type="submit" disabled={name.trim() === '' || adding.saving}>{t`Make the account`}</Button>
      </Form>
      <ul className="staff">
        {data?.map((one) => (
          <Account
            key={one.id}
            one={one}
            self={one.id === teacher.id}
            onCode={() => void coding.save(one)}
            onClose={() => void closing.save(one)}
          />
        ))}
      </ul>
    </>
  );
}

function OneTime({ given: { name, code }, onDone }: { given: Given; onDone: () => void }) {
  return (
    <section className="card-paper one-time" role="status">
      <p>{rich`Give this code to ${<strong>{name}</strong>} in person. It is shown only now,
          works once, and until tomorrow: under “I was given a code” at the sign-in.`}</p>
      <output>{code}</output>
      <Button variant="outline-dark" onClick={onDone}>{t`Done`}</Button>
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
