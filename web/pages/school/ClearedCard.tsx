import fitsCleared from 'virtual:fits/cleared';
import { perLanguage, t } from '../../../core/words/say.ts';
import type { Cleared } from '../../../contract/school.ts';
import { useGet } from '../../api/useGet.ts';
import { Loading } from '../../ui/Loading.tsx';
import { format } from '../../words/dates.ts';

const KINDS = perLanguage((): Readonly<Record<Cleared['kind'], string>> => ({
  takes: t`takes`,
  recordings: t`recordings`,
  terms: t`closed terms`,
  children: t`children of the bin`,
  classes: t`classes of the bin`,
}));

/** What went at night because it had had its time, newest first. */
export function ClearedCard({ schoolId }: { schoolId: string }) {
  const { data, error, mutate } = useGet<Cleared[]>(`/schools/${schoolId}/cleared`, fitsCleared);
  return (
    <section className="card-paper">
      <h2>{t`Removed at night`}</h2>
      {!data && <Loading problem={error} again={() => void mutate()} />}
      {data?.length === 0 && <p>{t`Nothing yet. Whatever has had its time goes at night, and is said here.`}</p>}
      {data && data.length > 0 && (
        <table className="cleared">
          <tbody>
            {data.map(({ night, kind, removed }) => (
              <tr key={`${night} ${kind}`}>
                <th scope="row">{format(`${night}T00:00`, 'd MMM yyyy')}</th>
                <td>{removed}</td>
                <td>{KINDS()[kind]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
