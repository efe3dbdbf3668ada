import { t } from '../../../core/words/say.ts';
import Button from 'react-bootstrap/Button';
import type { SchoolSign } from '../../../contract/school.ts';
import type { SessionState, SignOnWay } from '../../../contract/session.ts';
import { post } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';
import { useSave } from '../../api/useSave.ts';
import { LanguageChoice } from '../../words/LanguageChoice.tsx';
import { speakHere, useLanguage } from '../../words/language.ts';
import { Cover } from './Cover.tsx';
import { DoorForm } from './DoorForm.tsx';
import './signIn.scss';

interface SignInPageProps {
  readonly demo: boolean;
  /** To choose from, where there are several. */
  readonly schools?: readonly SchoolSign[] | undefined;
  /** Another place that vouches for teachers. */
  readonly signOn?: { readonly name: string } | undefined;
  readonly onSignedIn: (state: SessionState) => void;
}

/** The door: with name and password, or into the demo. */
export function SignInPage({ demo, schools, signOn, onSignedIn }: SignInPageProps) {
  return (
    <main className="sign-in">
      <Cover />
      <section className="sign-in-card">
        <h1>{t`Clapboard`}</h1>
        <p>{t`Write a rhythm, count it, hear each child clap it, and keep the mark.`}</p>
        {demo && <LookAround onSignedIn={onSignedIn} />}
        {signOn && <Elsewhere name={signOn.name} />}
        <DoorForm quiet={demo || signOn !== undefined} schools={schools} onSignedIn={onSignedIn} />
        <LanguageChoice chosen={useLanguage()} onChoose={(language) => void speakHere(language)} />
      </section>
    </main>
  );
}

/** Out to the place that vouches for teachers, and back. */
function Elsewhere({ name }: { name: string }) {
  const leaving = useSave(async () => location.assign(((await post('/session/sign-on')) as SignOnWay).url));
  return (
    <>
      <Button size="lg" className="w-100" disabled={leaving.saving} onClick={() => void leaving.save()}>
        {t`Sign in with ${name}`}
      </Button>
      {leaving.problem && <Notice problem={leaving.problem} />}
      <p className="or">{t`or sign in`}</p>
    </>
  );
}

function LookAround({ onSignedIn }: Pick<SignInPageProps, 'onSignedIn'>) {
  const door = useSave(async () => onSignedIn((await post('/session/visit')) as SessionState));
  return (
    <>
      <Button size="lg" className="w-100" disabled={door.saving} onClick={() => void door.save()}>
        {t`Look around Marrow Lane School`}
      </Button>
      {door.problem && <Notice problem={door.problem} />}
      <p className="or">{t`or sign in`}</p>
    </>
  );
}
