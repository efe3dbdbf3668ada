import { Suspense, lazy } from 'react';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { SWRConfig } from 'swr';
import { useSession } from '../api/session.ts';
import { SignInPage } from '../pages/signIn/SignInPage.tsx';
import { Notice } from '../ui/Notice.tsx';
import { HOME, ROUTES } from './routes.ts';

const Shell = lazy(() => import('./Shell.tsx'));

function Views() {
  const { data: session, error, mutate } = useSession();
  if (!session) return error ? <Notice problem={error} again={() => void mutate()} /> : null;
  const { teacher, demo } = session;
  if (!teacher) return <SignInPage demo={demo} onSignedIn={(state) => void mutate(state, false)} />;
  return (
    <Suspense fallback={null}>
      <Routes>
        <Route element={<Shell teacher={teacher} onSignedOut={() => void mutate()} />}>
          {ROUTES.map(({ path, Page }) => (
            <Route key={path} path={path} element={<Page teacher={teacher} />} />
          ))}
          <Route path="*" element={<Navigate to={HOME} replace />} />
        </Route>
      </Routes>
    </Suspense>
  );
}

export function App() {
  return (
    <SWRConfig value={{ shouldRetryOnError: true, errorRetryInterval: 3_000, dedupingInterval: 500 }}>
      <BrowserRouter>
        <Views />
      </BrowserRouter>
    </SWRConfig>
  );
}
