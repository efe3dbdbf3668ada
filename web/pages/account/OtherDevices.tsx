import Button from 'react-bootstrap/Button';
import { remove } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';
import { useSave } from '../../ui/useSave.ts';

/** Other browsers in which this teacher is signed in. */
export function OtherDevices({ count }: { count: number }) {
  const ending = useSave(() => remove('/account/other-sessions'), '/account');
  return (
    <section className="card-paper">
      <h2>Other devices</h2>
      <p role="status">
        {count === 0
          ? 'You are signed in here only.'
          : `You are signed in in ${count === 1 ? 'one other browser' : `${count} other browsers`}.`}
      </p>
      {ending.problem && <Notice problem={ending.problem} />}
      <Button variant="outline-dark" disabled={count === 0 || ending.saving} onClick={() => void ending.save()}>
        Sign the others out
      </Button>
    </section>
  );
}
