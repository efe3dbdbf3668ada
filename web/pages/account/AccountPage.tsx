import type { Account, Teacher } from '../../../contract/session.ts';
import fitsAccount from 'virtual:fits/account';
import { useGet } from '../../api/useGet.ts';
import { Link } from 'react-router';
import { Loading } from '../../ui/Loading.tsx';
import { OtherDevices } from './OtherDevices.tsx';
import { Passkeys } from './Passkeys.tsx';
import { PasswordForm } from './PasswordForm.tsx';
import './account.scss';

/** How this teacher gets in. */
export default function AccountPage({ teacher }: { teacher: Teacher }) {
  const { data, error, mutate } = useGet<Account>('/account', fitsAccount);
  return (
    <>
      <div className="page-head">
        <h1>{teacher.name}</h1>
        <span>password, passkeys and devices</span>
      </div>
      {!data && <Loading problem={error} again={() => void mutate()} />}
      <div className="account">
        <PasswordForm name={teacher.name} />
        {data && <Passkeys passkeys={data.passkeys} />}
        {data && <OtherDevices devices={data.devices} />}
      </div>
      {teacher.administrator && (
        <p>
          You look after the <Link to="/staff">accounts of the school</Link>.
        </p>
      )}
    </>
  );
}
