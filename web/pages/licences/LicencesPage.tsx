import { t } from '../../../core/words/say.ts';
import useSWR from 'swr';
import { LICENCES, type Licence } from '../../../contract/licences.ts';
import { ApiProblem } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';
import './licences.scss';

const ADDRESS = `/${LICENCES}`;

/** Not kept on the device with the views: it is long, and hardly ever asked for. */
async function fetched(address: string): Promise<readonly Licence[]> {
  const answer = await fetch(address).catch(() => undefined);
  if (answer?.ok && /json/.test(answer.headers.get('content-type') ?? '')) return (await answer.json()) as Licence[];
  throw new ApiProblem(
    answer?.status ?? 0,
    'licences-away',
    t`The list stays on the server. Try again when it answers.`,
  );
}

/** The packages of others that are part of this app, and on which terms. */
export default function LicencesPage() {
  const { data, error, mutate } = useSWR<readonly Licence[], ApiProblem>(ADDRESS, fetched, {
    revalidateOnFocus: false,
  });
  return (
    <>
      <div className="page-head">
        <h1>{t`Licences`}</h1>
        {data && <span>{t`${data.length} packages of others are part of this app or run with it on the server.`}</span>}
      </div>
      {error && !data && <Notice problem={error} again={() => void mutate()} />}
      <ul className="licences card-paper">
        {data?.map(({ name, version, kind, text }) => (
          <li key={name}>
            {text === '' ? (
              <Title name={name} version={version} kind={kind} />
            ) : (
              <details>
                <summary>
                  <Title name={name} version={version} kind={kind} />
                </summary>
                <pre>{text}</pre>
              </details>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}

function Title({ name, version, kind }: Omit<Licence, 'text'>) {
  return (
    <>
      <b>{name}</b> {version} <span className="licence-kind">{kind}</span>
    </>
  );
}
