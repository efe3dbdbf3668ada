import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import fitsInvitations from 'virtual:fits/invitations';
import fitsCode from 'virtual:fits/one-time-code';
import { counted, t } from '../../../core/words/say.ts';
import { INVITED_DAYS, type Invitation } from '../../../contract/school.ts';
import type { OneTimeCode } from '../../../contract/staff.ts';
import { post, remove } from '../../api/client.ts';
import { useGet } from '../../api/useGet.ts';
import { useSave } from '../../api/useSave.ts';
import { Loading } from '../../ui/Loading.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { NumberField } from '../../ui/NumberField.tsx';
import { format } from '../../words/dates.ts';
import { OneTime } from './OneTime.tsx';

/** Codes with which colleagues make their own accounts. */
export function InvitationsCard({ schoolId }: { schoolId: string }) {
  const path = `/schools/${schoolId}/invitations`;
  const { data, error, mutate } = useGet<Invitation[]>(path, fitsInvitations);
  const [uses, setUses] = useState(1);
  const [administrator, setAdministrator] = useState(false);
  const [code, setCode] = useState<string>();
  const inviting = useSave(async () => {
    const answer = await post(path, { uses, administrator });
    if (fitsCode(answer)) setCode((answer as OneTimeCode).code);
  }, path);
  const ending = useSave((id: string) => remove(`${path}/${id}`), path);
  const problem = inviting.problem ?? ending.problem;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void inviting.save();
  };
  return (
    <section className="card-paper">
      <h2>{t`Invitations`}</h2>
      <p>{t`With the code of an invitation colleagues make their own accounts: under “I was invited” at the
        sign-in, or in their account where they teach at another school already.`}</p>
      {!data && <Loading problem={error} again={() => void mutate()} />}
      {code !== undefined && (
        <OneTime code={code} onDone={() => setCode(undefined)}>
          {t`Hand this code on. It is shown only now, and good for ${INVITED_DAYS} days.`}
        </OneTime>
      )}
      {problem && <Notice problem={problem} />}
      <Form className="new-teacher" onSubmit={submit}>
        <NumberField id="invitation-uses" label={t`For how many`} value={uses} least={1} most={60} onValue={setUses} />
        <Form.Check
          id="invitation-administrator"
          label={t`as administrators`}
          checked={administrator}
          onChange={(event) => setAdministrator(event.target.checked)}
        />
        <Button type="submit" disabled={inviting.saving}>{t`Make an invitation`}</Button>
      </Form>
      <ul className="staff">
        {data?.map((one) => (
          <li key={one.id}>
            <strong>{one.administrator ? t`for administrators` : t`for teachers`}</strong>
            <span>{t`${counted(one.left, 'account')} more, until ${format(one.expiresAt, 'd MMMM')}`}</span>
            <Button size="sm" variant="outline-dark" onClick={() => void ending.save(one.id)}>{t`End it`}</Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
