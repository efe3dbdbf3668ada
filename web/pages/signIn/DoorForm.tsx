import { perLanguage, t } from '../../../core/words/say.ts';
import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { OwnSchool, SchoolSign } from '../../../contract/school.ts';
import type { SessionState } from '../../../contract/session.ts';
import { post } from '../../api/client.ts';
import { canUsePasskeys } from '../../api/canUsePasskeys.ts';
import { Notice } from '../../ui/Notice.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { TextField } from '../../ui/TextField.tsx';
import { useStored } from '../../store/stored.ts';
import { useSave } from '../../api/useSave.ts';

interface DoorFormProps {
  /** Another button on the page is the main one. */
  readonly quiet?: boolean;
  /** Who is to sign in, where that is known. */
  readonly known?: OwnSchool | undefined;
  /** To choose from, where there are several. */
  readonly schools?: readonly SchoolSign[] | undefined;
  readonly onSignedIn: (state: SessionState) => void;
}

/** Loaded when it is wanted: most come in with a password. */
const withPasskey = async () => (await import('../../api/passkeys.ts')).signInWithPasskey();

/** With a password, with a code for a new one, or with an invitation to a school. */
type Way = 'password' | 'code' | 'invitation';

const WAYS = perLanguage(
  (): Readonly<Record<Way, { readonly path: string; readonly offer: string; readonly enter: string }>> => ({
    password: { path: '/session', offer: t`I know my password`, enter: t`Sign in` },
    code: { path: '/session/reset', offer: t`I was given a code`, enter: t`Keep the new password and sign in` },
    invitation: { path: '/session/invitation', offer: t`I was invited`, enter: t`Make my account and sign in` },
  }),
);

/** In with name and password, with a passkey, with a code that was given out, or as a new teacher of a school. */
export function DoorForm({ quiet = false, known, schools = [], onSignedIn }: DoorFormProps) {
  const [typed, setTyped] = useState<Typed>({ name: known?.as ?? '', password: '', code: '' });
  const [way, setWay] = useState<Way>('password');
  const [last, setLast] = useStored('school', '');
  const school = known?.id ?? schools.find(({ id }) => id === last)?.id;
  const door = useSave(async (enter: () => Promise<unknown>) => onSignedIn((await enter()) as SessionState));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const at = way === 'invitation' || school === undefined ? {} : { school };
    const { name, password, code } = typed;
    const body = { name, password, ...at, ...(way === 'password' ? {} : { code }) };
    void door.save(() => post(WAYS()[way].path, body));
  };
  const variant = quiet ? 'outline-dark' : 'primary';
  return (
    <Form onSubmit={submit}>
      <DoorFields {...{ way, school, schools: known ? [] : schools, typed }} onSchool={setLast} onType={setTyped} />
      {door.problem && <Notice problem={door.problem} />}
      <p role="status" className="door-wait">
        {door.saving && t`One moment. After several wrong tries this takes longer.`}
      </p>
      <Button type="submit" variant={variant} className="w-100" disabled={door.saving}>
        {WAYS()[way].enter}
      </Button>
      <div className="other-doors">
        {canUsePasskeys() && (
          <Button variant="link" size="sm" disabled={door.saving} onClick={() => void door.save(withPasskey)}>
            {t`Sign in with a passkey`}
          </Button>
        )}
        {(Object.keys(WAYS()) as Way[])
          .filter((other) => other !== way && !(known && other === 'invitation'))
          .map((other) => (
            <Button key={other} variant="link" size="sm" onClick={() => setWay(other)}>
              {WAYS()[other].offer}
            </Button>
          ))}
      </div>
    </Form>
  );
}

interface Typed {
  readonly name: string;
  readonly password: string;
  readonly code: string;
}

interface FieldsProps {
  readonly way: Way;
  readonly school: string | undefined;
  /** To choose from; one alone, or who is known, is not asked for. */
  readonly schools: readonly SchoolSign[];
  readonly typed: Typed;
  readonly onSchool: (id: string) => void;
  readonly onType: (typed: Typed) => void;
}

function DoorFields({ way, school, schools, typed, onSchool, onType }: FieldsProps) {
  const isNew = way !== 'password';
  return (
    <>
      {schools.length > 1 && way !== 'invitation' && (
        <div className="mb-3">
          <SelectField
            id="door-school"
            label={t`Your school`}
            value={school ?? ''}
            options={[['', t`Choose your school`], ...schools.map(({ id, name: called }) => [id, called] as const)]}
            onChoose={onSchool}
          />
        </div>
      )}
      <TextField
        id="door-name"
        label={way === 'invitation' ? t`Your name at the school` : t`Name`}
        value={typed.name}
        onValue={(name) => onType({ ...typed, name })}
        autoComplete="username"
        maxLength={60}
      />
      {isNew && (
        <TextField
          id="door-code"
          label={way === 'code' ? t`Code` : t`Code of the invitation`}
          value={typed.code}
          onValue={(code) => onType({ ...typed, code })}
          autoComplete="one-time-code"
          maxLength={200}
        />
      )}
      <TextField
        id="door-password"
        label={isNew ? t`New password` : t`Password`}
        type="password"
        value={typed.password}
        onValue={(password) => onType({ ...typed, password })}
        autoComplete={isNew ? 'new-password' : 'current-password'}
        maxLength={200}
      />
    </>
  );
}
