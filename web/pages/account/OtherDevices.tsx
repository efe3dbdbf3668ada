import { format } from 'date-fns';
import Button from 'react-bootstrap/Button';
import type { Account } from '../../../contract/session.ts';
import { remove } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';
import { useSave } from '../../api/useSave.ts';

/** The browsers in which this teacher is signed in: each can be signed out from here. */
export function OtherDevices({ devices }: { devices: Account['devices'] }) {
  const ending = useSave((id: string | undefined) => remove(endOf(id)), '/account');
  const others = devices.filter(({ here }) => !here);
  return (
    <section className="card-paper">
      <h2>Devices</h2>
      <p role="status">
        {others.length === 0
          ? 'You are signed in here only.'
          : `You are signed in here and in ${browsers(others.length)}.`}
      </p>
      <ul className="devices">
        {devices.map(({ id, name, startedAt, here }) => (
          <li key={id}>
            <span>
              <strong>{name || 'A browser'}</strong>,{' '}
              {startedAt === 0 ? 'for some time' : format(startedAt, 'd MMMM, HH:mm')}
            </span>
            {here ? (
              <span>this one</span>
            ) : (
              <Button
                size="sm"
                variant="outline-dark"
                aria-label={`Sign out ${name || 'this browser'}`}
                onClick={() => void ending.save(id)}
              >
                Sign out
              </Button>
            )}
          </li>
        ))}
      </ul>
      {ending.problem && <Notice problem={ending.problem} />}
      <Button
        variant="outline-dark"
        disabled={others.length === 0 || ending.saving}
        onClick={() => void ending.save(undefined)}
      >
        Sign the others out
      </Button>
    </section>
  );
}

const browsers = (count: number) => (count === 1 ? 'one other browser' : `${count} other browsers`);

/** @param id  of one; undefined ends all but this one */
const endOf = (id: string | undefined) =>
  id === undefined ? '/account/other-sessions' : `/account/sessions/${encodeURIComponent(id)}`;
