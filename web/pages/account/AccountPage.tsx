import { t } from '../../../core/words/say.ts';
import type { Account, Teacher } from '../../../contract/session.ts';
import fitsAccount from 'virtual:fits/account';
import { Link } from 'react-router';
import { useGet } from '../../api/useGet.ts';
import { Loading } from '../../ui/Loading.tsx';
import { OtherDevices } from './OtherDevices.tsx';
import { Passkeys } from './Passkeys.tsx';
import { LanguageForm } from './LanguageForm.tsx';
import { SchoolsCard } from './SchoolsCard.tsx';
import { SignOnCard } from './SignOnCard.tsx';
import { PasswordForm } from './PasswordForm.tsx';
import './account.scss';

/** How this teacher gets in. */
export default function AccountPage({ teacher }: { teacher: Teacher }) {
  const { data, error, mutate } = useGet<Account>('/account', fitsAccount);
  return (
    <>
      <div className="page-head">
        <h1>{teacher.name}</h1>
        <span>{t`password, passkeys and devices`}</span>
      </div>
      {!data && <Loading problem={error} again={() => void mutate()} />}
      <div className="account">
        <LanguageForm teacher={teacher} />
        <section className="card-paper">
          <h2>{t`Your voice`}</h2>
          <p>{t`The app counts aloud with your own voice once you have said the words: a minute in all.`}</p>
          <Link className="btn btn-outline-dark" to="/account/voice">{t`Words of counting`}</Link>
        </section>
        <SchoolsCard teacher={teacher} />
        <PasswordForm name={teacher.name} />
        {data?.signOn && <SignOnCard {...data.signOn} />}
        {data && <Passkeys passkeys={data.passkeys} />}
        {data && <OtherDevices devices={data.devices} />}
      </div>
    </>
  );
}
