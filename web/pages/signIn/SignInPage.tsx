import { t } from '../../../core/words/say.ts';
import Button from 'react-bootstrap/Button';
import type { SessionState } from '../../../contract/session.ts';
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
  readonly onSignedIn: (state: SessionState) => void;
}

/** The door: with name and password, or into the demo. */
export function SignInPage({ demo, onSignedIn }: SignInPageProps) {
  return (
    <main className="sign-in">
      <Cover />
      <section className="sign-in-card">
        <h1>{t`Clapboard`}</h1>
        <p>{t`Write a rhythm, count it, hear each child clap it, and keep the mark.`}</p>
        {demo && <LookAround onSignedIn={onSignedIn} />}
        <DoorForm quiet={demo} onSignedIn={onSignedIn} />
        <LanguageChoice chosen={useLanguage()} onChoose={(language) => void speakHere(language)} />
      </section>
    </main>
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
