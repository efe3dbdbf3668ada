import { Suspense, lazy } from 'react';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { SWRConfig } from 'swr';
import { useSession } from '../api/hooks.ts';
import { SignInPage } from '../pages/signIn/SignInPage.tsx';
import { Notice } from '../ui/Notice.tsx';

const Shell = lazy(() => import('./Shell.tsx'));
const ValuesPage = lazy(() => import('../pages/values/ValuesPage.tsx'));
const PatternsPage = lazy(() => import('../pages/patterns/PatternsPage.tsx'));
const PatternPage = lazy(() => import('../pages/patterns/PatternPage.tsx'));
const LeadPage = lazy(() => import('../pages/lead/LeadPage.tsx'));
const TakePage = lazy(() => import('../pages/take/TakePage.tsx'));
const ClassesPage = lazy(() => import('../pages/classes/ClassesPage.tsx'));
const ClassPage = lazy(() => import('../pages/classes/ClassPage.tsx'));
const TakeResultPage = lazy(() => import('../pages/classes/TakeResultPage.tsx'));

function Views() {
  const { data: session, error, mutate } = useSession();
  if (!session) return error ? <Notice problem={error} again={() => void mutate()} /> : null;
  if (!session.teacher) return <SignInPage demo={session.demo} onSignedIn={(state) => void mutate(state, false)} />;
  return (
    <Suspense fallback={null}>
      <Routes>
        <Route element={<Shell teacher={session.teacher} onSignedOut={() => void mutate()} />}>
          <Route index element={<Navigate to="/patterns" replace />} />
          <Route path="values/:part?" element={<ValuesPage />} />
          <Route path="patterns" element={<PatternsPage />} />
          <Route path="patterns/:patternId" element={<PatternPage />} />
          <Route path="lead" element={<LeadPage />} />
          <Route path="take" element={<TakePage teacher={session.teacher} />} />
          <Route path="classes" element={<ClassesPage />} />
          <Route path="classes/:classId" element={<ClassPage teacher={session.teacher} />} />
          <Route path="classes/:classId/takes/:takeId" element={<TakeResultPage />} />
          <Route path="*" element={<Navigate to="/patterns" replace />} />
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
