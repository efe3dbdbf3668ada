import Button from 'react-bootstrap/Button';
import fitsWay from 'virtual:fits/sign-on-way';
import { t } from '../../../core/words/say.ts';
import type { SignOnWay } from '../../../contract/session.ts';
import { post, remove } from '../../api/client.ts';
import { useSave } from '../../api/useSave.ts';
import { Notice } from '../../ui/Notice.tsx';
import { format } from '../../words/dates.ts';

/** Another place that vouches for teachers: who says who she is there comes in without a password. */
export function SignOnCard({ name, since }: { name: string; since: number | null }) {
  const going = useSave(async () => {
    const way = await post('/account/sign-on');
    if (fitsWay(way)) location.assign((way as SignOnWay).url);
  });
  const ending = useSave(() => remove('/account/sign-on'), '/account');
  const problem = going.problem ?? ending.problem;
  return (
    <section className="card-paper">
      <h2>{name}</h2>
      {since === null ? (
        <>
          <p>{t`Say once who you are there, and you come in here by it, without a password.`}</p>
          <Button disabled={going.saving} onClick={() => void going.save()}>{t`Go to ${name}`}</Button>
        </>
      ) : (
        <>
          <p>{t`You come in by it since ${format(since, 'd MMMM yyyy')}.`}</p>
          <Button variant="outline-dark" onClick={() => void ending.save()}>{t`Come in by it no more`}</Button>
        </>
      )}
      {problem && <Notice problem={problem} />}
    </section>
  );
}
