import { counted, perLanguage, t } from '../../core/words/say.ts';
import { CircleHelp, Contrast, LogOut, UserRound } from 'lucide-react';
import { type ReactNode, Suspense, lazy, useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';
import { ErrorBoundary } from 'react-error-boundary';
import { NavLink, Outlet, useLocation } from 'react-router';
import { remove } from '../api/client.ts';
import { type Change, pendingOf, useChanges } from '../store/changes.ts';
import { RUNNING } from '../lesson/running.ts';
import type { Waiting } from '../store/keptTakes.ts';
import { Loading } from '../ui/Loading.tsx';
import { sendTakes, waitingTakes } from '../api/outbox.ts';
import { useVoice } from '../api/voice.ts';
import { speakWith } from '../audio/voiceSound.ts';
import { useSendOutbox, useWaitingTakes, useWouldBeLost } from '../api/useOutbox.ts';
import { lazyAgain } from '../ui/lazyAgain.ts';
import { useAskBeforeLeaving } from '../ui/useAskBeforeLeaving.ts';
import { useKeys } from '../ui/useKeys.ts';
import { Broken } from './Broken.tsx';
import { useRoom } from './room.ts';
import { ACCOUNT, ROUTES } from './routes.ts';
import { OutboxNote } from './OutboxNote.tsx';
import type { Teacher } from '../../contract/session.ts';

const LessonBar = lazyAgain(() => import('../lesson/LessonBar.tsx'));
const DeviceNote = lazyAgain(() => import('./DeviceNote.tsx'));
const ChangesNote = lazyAgain(() => import('./ChangesNote.tsx'));
const HelpBox = lazy(() => import('./help/HelpBox.tsx'));

/** On a phone the views stand in one line that is wider than the screen. */
function useOpenViewInSight(pathname: string) {
  const nav = useRef<HTMLElement>(null);
  useEffect(() => {
    const all = nav.current;
    const open = all?.querySelector<HTMLElement>('.active');
    if (!all || !open) return;
    const left = open.offsetLeft - all.offsetLeft;
    all.scrollLeft = left - (all.clientWidth - open.offsetWidth) / 2;
  }, [pathname]);
  return nav;
}

interface ShellProps {
  readonly teacher: Teacher;
  readonly onSignedOut: () => void;
}

/** Every view with the menu; the window for the class is the view alone, and no key of a lesson leads out of it. */
export default function Shell(props: ShellProps) {
  const { pathname } = useLocation();
  useRoom();
  const isBare = ROUTES().some(({ path, bare }) => bare && pathname === `/${path}`);
  return isBare ? <View /> : <WithMenu {...props} />;
}

/** The page that is open. */
function View() {
  const { pathname } = useLocation();
  return (
    <main id="main" tabIndex={-1}>
      <ErrorBoundary FallbackComponent={Broken} resetKeys={[pathname]}>
        <Suspense fallback={<Loading />}>
          <Outlet />
        </Suspense>
      </ErrorBoundary>
    </main>
  );
}

function WithMenu({ teacher, onSignedOut }: ShellProps) {
  useAskBeforeLeaving(useWouldBeLost());
  const { pathname } = useLocation();
  const [helping, setHelping] = useState(false);
  const nav = useOpenViewInSight(pathname);
  useKeys({ '?': () => setHelping(true) });
  const waiting = useWaitingTakes(teacher.id);
  const changes = useChanges(teacher.id);
  const leaving = useSignOut(teacher.id, onSignedOut);
  useSpeakWithOwnVoice();
  return (
    <div className="shell">
      <a className="visually-hidden-focusable skip" href="#main">{t`To the page`}</a>
      <header className="shell-bar">
        <span className="brand" aria-hidden>{t`Clapboard`}</span>
        <nav aria-label={t`Views`} ref={nav}>
          {ROUTES().map(
            ({ path, title }) =>
              title && (
                <NavLink key={path} to={`/${path}`}>
                  {title}
                </NavLink>
              ),
          )}
        </nav>
        <span className="flex-grow-1" />
        <Notes teacherId={teacher.id} waiting={waiting} changes={changes} />
        <NavLink className="teacher" to={ACCOUNT} aria-label={t`${teacher.name}: password, passkeys and devices`}>
          <UserRound size={16} aria-hidden /> <span>{teacher.name}</span>
        </NavLink>
        <RoomButton />
        <Button variant="link" size="sm" className="help-button" aria-label={t`Help`} onClick={() => setHelping(true)}>
          <CircleHelp size={16} aria-hidden /> <span>{t`Help`}</span>
        </Button>
        <Button variant="link" size="sm" className="sign-out" onClick={() => void leaving.signOut()}>
          <LogOut size={16} aria-hidden /> <span>{t`Sign out`}</span>
        </Button>
      </header>
      <RunningLesson teacherId={teacher.id} />
      <View />
      {helping && (
        <ErrorBoundary FallbackComponent={Broken}>
          <Suspense fallback={null}>
            <HelpBox onClose={() => setHelping(false)} />
          </Suspense>
        </ErrorBoundary>
      )}
      {leaving.asking && <Unsent takes={waiting.length} changes={changes.length} {...leaving} />}
    </div>
  );
}

/** What the page counts aloud is said in the teacher's own voice, where there is one. */
function useSpeakWithOwnVoice(): void {
  const { data } = useVoice();
  useEffect(() => {
    speakWith(data);
    return () => speakWith(undefined);
  }, [data]);
}

const ROOM_NAMES = perLanguage(() => ({ usual: t`usual`, dark: t`dark room`, bright: t`bright room` }) as const);

/** Colours for the room in which the class looks at the screen. */
function RoomButton() {
  const { room, next } = useRoom();
  const name = t`Colours: ${ROOM_NAMES()[room]}`;
  return (
    <Button variant="link" size="sm" className="room-button" aria-label={name} title={name} onClick={next}>
      <Contrast size={16} aria-hidden />
    </Button>
  );
}

interface NotesProps {
  readonly teacherId: string;
  readonly waiting: readonly Waiting[];
  readonly changes: readonly Change[];
}

/** What is not as usual: no network, a newer version, what is on its way. */
function Notes({ teacherId, waiting, changes }: NotesProps) {
  useSendOutbox(teacherId, waiting, changes);
  return (
    <>
      <WhenSettled>
        <DeviceNote teacherId={teacherId} />
      </WhenSettled>
      {changes.length > 0 && (
        <Suspense fallback={null}>
          <ChangesNote changes={changes} />
        </Suspense>
      )}
      <OutboxNote waiting={waiting} />
    </>
  );
}

/** The bar of the lesson that is on, of this teacher. */
function RunningLesson({ teacherId }: { readonly teacherId: string }) {
  const [lesson] = RUNNING.use();
  if (lesson?.teacherId !== teacherId || lesson.endedAfter !== undefined) return null;
  return (
    <Suspense fallback={null}>
      <LessonBar running={lesson} />
    </Suspense>
  );
}

/** After this long a page shows what it was opened for: the rest may load. */
const SETTLED_MS = 1_500;

function WhenSettled({ children }: { readonly children: ReactNode }) {
  const [settled, setSettled] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(true), SETTLED_MS);
    return () => clearTimeout(timer);
  }, []);
  return settled && <Suspense fallback={null}>{children}</Suspense>;
}

/** So long signing out waits for takes to be sent. */
const PATIENCE_MS = 4_000;

/** Takes that are still here are sent first; when that fails, leaving is asked for again. */
function useSignOut(teacherId: string, onSignedOut: () => void) {
  const [asking, setAsking] = useState(false);
  const leave = async () => {
    setAsking(false);
    await remove('/session').catch(() => undefined);
    // Where it cannot be loaded nothing was ever kept by it.
    await import('../store/keptAnswers.ts').then(({ forgetAnswers }) => forgetAnswers()).catch(() => undefined);
    onSignedOut();
  };
  const signOut = async () => {
    await Promise.race([sendTakes(teacherId), new Promise((resolve) => setTimeout(resolve, PATIENCE_MS))]);
    const takes = (await waitingTakes()).some((take) => take.teacherId === teacherId);
    if (takes || pendingOf(teacherId).length > 0) setAsking(true);
    else await leave();
  };
  return { asking, signOut, leave: () => void leave(), stay: () => setAsking(false) };
}

interface UnsentProps {
  readonly takes: number;
  readonly changes: number;
  readonly leave: () => void;
  readonly stay: () => void;
}

function Unsent({ takes, changes, leave, stay }: UnsentProps) {
  const what = [takes > 0 && counted(takes, 'take'), changes > 0 && counted(changes, 'change')]
    .filter(Boolean)
    .join(' and ');
  return (
    <Modal show onHide={stay} centered>
      <Modal.Header closeButton>
        <Modal.Title>{t`Not stored yet: ${what}`}</Modal.Title>
      </Modal.Header>
      <Modal.Body>{t`They stay on this device, and nobody else sees them here. They are sent when you
          sign in again in this browser.`}</Modal.Body>
      <Modal.Footer>
        <Button onClick={stay}>{t`Stay signed in`}</Button>
        <Button variant="outline-dark" onClick={leave}>{t`Sign out all the same`}</Button>
      </Modal.Footer>
    </Modal>
  );
}
