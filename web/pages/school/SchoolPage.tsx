import { Link, useSearchParams } from 'react-router';
import fitsSchool from 'virtual:fits/school';
import { t } from '../../../core/words/say.ts';
import type { School } from '../../../contract/school.ts';
import type { Teacher } from '../../../contract/session.ts';
import { useGet } from '../../api/useGet.ts';
import { SchoolChoice, useOwnSchool } from '../../domain/SchoolChoice.tsx';
import { Loading } from '../../ui/Loading.tsx';
import { AccountsCard } from './AccountsCard.tsx';
import { ClearedCard } from './ClearedCard.tsx';
import { InvitationsCard } from './InvitationsCard.tsx';
import { KeptCard } from './KeptCard.tsx';
import { SchoolForm } from './SchoolForm.tsx';
import './school.scss';

/** A school of a teacher's: how long it keeps things, and for its administrators all they look after. */
export default function SchoolPage({ teacher }: { teacher: Teacher }) {
  const [, setSearch] = useSearchParams();
  const { schools } = teacher;
  const own = useOwnSchool(schools);
  const { data, error, mutate } = useGet<School>(`/schools/${own.id}`, fitsSchool);
  return (
    <>
      <div className="page-head">
        <h1>{data?.name ?? own.name}</h1>
        <Link to={`/shelf?at=${own.id}`}>{t`The school’s shelf`}</Link>
        <Link to={`/school/answers?at=${own.id}`}>{t`What parents ask`}</Link>
        <SchoolChoice {...{ schools, schoolId: own.id }} onChoose={(at) => setSearch({ at })} />
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
