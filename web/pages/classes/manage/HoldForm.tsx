import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import fitsHold from 'virtual:fits/hold';
import { t } from '../../../../core/words/say.ts';
import type { HoldEdit } from '../../../../contract/school.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { put } from '../../../api/client.ts';
import { useGet } from '../../../api/useGet.ts';
import { useSave } from '../../../api/useSave.ts';
import { Loading } from '../../../ui/Loading.tsx';
import { Notice } from '../../../ui/Notice.tsx';
import { TextField } from '../../../ui/TextField.tsx';

/** Whether something is kept beyond the school's time, and why. @param path  of the class or the child */
export function HoldForm({ path }: { path: string }) {
  const { data, error, mutate } = useGet<HoldEdit>(`${path}/hold`, fitsHold);
  const [why, setWhy] = useState('');
  const holding = useSave((reason: string | null) => put(`${path}/hold`, { why: reason }), `${path}/hold`);
  if (!data) return <Loading problem={error} again={() => void mutate()} />;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void holding.save(why.trim());
  };
  return (
    <Form onSubmit={submit}>
      {data.why === null ? (
        <>
          <TextField id="hold-why" label={t`Why it has to be kept`} value={why} maxLength={120} onValue={setWhy} />
          <Button type="submit" disabled={holding.saving || why.trim() === ''}>{t`Keep it until I let it go`}</Button>
        </>
      ) : (
        <>
          <p>{t`Kept beyond the school’s time: ${data.why}`}</p>
          <Button variant="outline-dark" onClick={() => void holding.save(null)}>{t`Let it go with the rest`}</Button>
        </>
      )}
      {holding.problem && <Notice problem={holding.problem} />}
    </Form>
  );
}

/** The same of a whole class. */
export function HoldClassForm({ schoolClass: { id }, onClose }: { schoolClass: ClassDetail; onClose: () => void }) {
  return (
    <section className="card-paper manage-form" aria-label={t`Keep for longer`}>
      <h2>{t`Keep for longer`}</h2>
      <p>{t`Schools say how long takes, recordings, closed terms and what is in the bin are kept. A class that you hold
        keeps all of it until you let it go.`}</p>
      <HoldForm path={`/classes/${id}`} />
      <div className="class-form-actions">
        <Button variant="outline-dark" onClick={onClose}>{t`Done`}</Button>
      </div>
    </section>
  );
}
