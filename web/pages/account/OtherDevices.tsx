import { t } from '../../../core/words/say.ts';
import { format } from '../../words/dates.ts';
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
      <h2>{t`Devices`}</h2>
      <p role="status">
        {others.length === 0
          ? t`You are signed in here only.`
          : t`You are signed in here and in ${browsers(others.length)}.`}
      </p>
      <ul className="devices">
        {devices.map(({ id, name, startedAt, here }) => (
          <li key={id}>
            <span>
              <strong>{name || t`A browser`}</strong>,{' '}
              {startedAt === 0 ? t`for some time` : format(startedAt, 'd MMMM, HH:mm')}
            </span>
            {here ? (
              <span>{t`this one`}</span>
            ) : (
              <Button
                size="sm"
                variant="outline-dark"
                aria-label={t`Sign out ${name || t`this browser`}`}
                onClick={() => void ending.save(id)}
              >
                {t`Sign out`}
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
        {t`Sign the others out`}
      </Button>
    </section>
  );
}

const browsers = (count: number) => (count === 1 ? t`one other browser` : t`${count} other browsers`);

/** @param id  of one; undefined ends all but this one */
const endOf = (id: string | undefined) =>
  id === undefined ? '/account/other-sessions' : `/account/sessions/${encodeURIComponent(id)}`;
