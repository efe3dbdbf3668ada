import { t } from '../../../core/words/say.ts';
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';
import type { SessionState, Teacher } from '../../../contract/session.ts';
import { post } from '../../api/client.ts';
import { useSave } from '../../api/useSave.ts';
import { DoorForm } from './DoorForm.tsx';
import './signIn.scss';

interface SignInAgainProps {
  /** Whose page this is. */
  readonly teacher: Teacher;
  /** Who is signed in in this browser instead. */
  readonly inside: Teacher | null;
  readonly demo: boolean;
  readonly onSignedIn: (state: SessionState) => void;
  readonly onLeave: () => void;
}

/** Over a page whose teacher was signed out elsewhere: what stands on it stays, but is not seen. */
export default function SignInAgain({ teacher, inside, demo, onSignedIn, onLeave }: SignInAgainProps) {
  const visit = useSave(async () => onSignedIn((await post('/session/visit')) as SessionState));
  return (
    <Modal
      show
      backdrop="static"
      keyboard={false}
      centered
      backdropClassName="sign-in-veil"
      restoreFocus={false}
      aria-labelledby="sign-in-again"
    >
      <Modal.Header>
        <Modal.Title id="sign-in-again">
          {inside ? t`${inside.name} is signed in here now` : t`You are signed out`}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p>{t`This page is ${teacher.name}’s. Sign in again to go on where you were: what
            you typed and what was clapped is still there.`}</p>
        {demo && (
          <Button className="w-100 mb-3" disabled={visit.saving} onClick={() => void visit.save()}>
            {t`Look around again`}
          </Button>
        )}
        <DoorForm known={teacher.schools[0]} quiet={demo} onSignedIn={onSignedIn} />
      </Modal.Body>
      <Modal.Footer>
        <Button variant="outline-dark" onClick={onLeave}>
          {inside ? t`Go on as ${inside.name}` : t`Leave this page`}
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
