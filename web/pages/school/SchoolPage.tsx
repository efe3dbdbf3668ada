import { Link, useSearchParams } from 'react-router';
import fitsSchool from 'virtual:fits/school';
import { t } from '../../../core/words/say.ts';
import type { School } from '../../../contract/school.ts';
import type { Teacher } from '../../../contract/session.ts';
import { useGet } from '../../api/useGet.ts';
import { Loading } from '../../ui/Loading.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { AccountsCard } from './AccountsCard.tsx';
import { ClearedCard } from './ClearedCard.tsx';
import { InvitationsCard } from './InvitationsCard.tsx';
import { KeptCard } from './KeptCard.tsx';
import { SchoolForm } from './SchoolForm.tsx';
import './school.scss';

/** A school of a teacher's: how long it keeps things, and for its administrators all they look after. */
export default function SchoolPage({ teacher }: { teacher: Teacher }) {
  const [search, setSearch] = useSearchParams();
  const { schools } = teacher;
  const own = schools.find(({ id }) => id === search.get('at')) ?? schools[0]!;
  const { data, error, mutate } = useGet<School>(`/schools/${own.id}`, fitsSchool);
  return (
    <>
      <div className="page-head">
        <h1>{data?.name ?? own.name}</h1>
        <Link to={`/shelf?at=${own.id}`}>{t`The school’s shelf`}</Link>
        <Link to={`/school/answers?at=${own.id}`}>{t`What parents ask`}</Link>
        {schools.length > 1 && (
          <SelectField
            id="which-school"
            label={t`School`}
            value={own.id}
            options={schools.map(({ id, name }) => [id, name] as const)}
            onChoose={(at) => setSearch({ at })}
          />
        )}
      </div>
      {!data && <Loading problem={error} again={() => void mutate()} />}
      {data && (
        <div className="school-cards" key={data.id}>
          {own.administrator && <AccountsCard schoolId={data.id} self={teacher.id} />}
          {own.administrator && <InvitationsCard schoolId={data.id} />}
          {own.administrator ? <SchoolForm school={data} /> : <KeptCard school={data} />}
          <ClearedCard schoolId={data.id} />
        </div>
      )}
    </>
  );
}
