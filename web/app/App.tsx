import { Suspense, lazy, useEffect, useState } from 'react';
import { ErrorBoundary } from 'react-error-boundary';
import { SWRConfig } from 'swr';
import type { SessionState, Teacher } from '../../contract/session.ts';
import { onSignedOut, pageBelongsTo } from '../api/client.ts';
import { useSession } from '../api/session.ts';
import { SignInPage } from '../pages/signIn/SignInPage.tsx';
import { Notice } from '../ui/Notice.tsx';
import { speakHere, useLanguages } from '../words/language.ts';
import { Broken } from './Broken.tsx';

const House = lazy(() => import('./House.tsx'));
/** Where who was sent to the place that vouches for teachers comes back to. */
const SIGN_ON = '/sign-on';
const SignOnBack = lazy(() => import('../pages/signIn/SignOnBack.tsx'));
const SignInAgain = lazy(() => import('../pages/signIn/SignInAgain.tsx'));

/**
 * Whose page this is. When another tab signs out, or signs somebody else in, the page stays as it is with all that was
 * typed, and asks for its own teacher again.
 */
function Views() {
  const { data: session, error, mutate } = useSession();
  const [owner, setOwner] = useState<Teacher | null>(null);
  const [entries, setEntries] = useState(0);
  useEffect(() => onSignedOut(() => void mutate()), [mutate]);
  const inside = session?.teacher ?? null;
  const whose = owner ?? inside;
  pageBelongsTo(whose?.id);
  if (whose && !owner) setOwner(whose);
  const language = inside?.language;
  useEffect(() => {
    if (language) void speakHere(language);
  }, [language]);
  if (!session && !whose) return error ? <Notice problem={error} again={() => void mutate()} /> : null;
  const demo = session?.demo ?? false;
  const enter = async (state: SessionState) => {
    // Who has left is at the door again, where there may be schools to choose from.
    await mutate(state, state.teacher === null);
    setOwner(state.teacher);
    setEntries(entries + 1);
  };
  if (location.pathname === SIGN_ON)
    return (
      <Suspense fallback={null}>
        <SignOnBack
          query={location.search.slice(1)}
          onSignedIn={(state) => {
            history.replaceState(null, '', '/');
            void enter(state);
          }}
          onLeave={(to) => location.replace(to)}
        />
      </Suspense>
    );
  if (!whose) return <SignInPage {...{ demo, ...session }} onSignedIn={(state) => void enter(state)} />;
  return (
    <>
      {session && inside?.id !== whose.id && (
        <Suspense fallback={null}>
          <SignInAgain
            teacher={whose}
            inside={inside}
            demo={demo}
            onSignedIn={(state) => void enter(state)}
            onLeave={() => void enter(session)}
          />
        </Suspense>
      )}
      <Suspense fallback={null}>
        <House
          key={whose.id}
          teacher={whose}
          entries={entries}
          onSignedOut={() => void enter({ teacher: null, demo })}
        />
      </Suspense>
    </>
  );
}

export function App() {
  const languages = useLanguages();
  return (
    <SWRConfig value={{ shouldRetryOnError: true, errorRetryInterval: 3_000, dedupingInterval: 500 }}>
      <ErrorBoundary FallbackComponent={Broken}>
        <Views key={languages} />
      </ErrorBoundary>
    </SWRConfig>
  );
}
