import { Suspense, lazy, useEffect, useState } from 'react';
import { BrowserRouter, Route, Routes } from 'react-router';
import { SWRConfig, useSWRConfig } from 'swr';
import type { Teacher } from '../../contract/session.ts';
import Shell from './Shell.tsx';
import { ROUTES } from './routes.ts';

interface HouseProps {
  readonly teacher: Teacher;
  /** Goes up when the teacher has come in again. */
  readonly entries: number;
  readonly onSignedOut: () => void;
}

/** Only who comes to the door of the house is led somewhere. */
const Landing = lazy(() => import('./Landing.tsx'));

/** All views of one teacher, by their addresses: the door has none. What was fetched for them is gone with them. */
export default function House(props: HouseProps) {
  return (
    <SWRConfig value={{ provider: () => new Map() }}>
      <BrowserRouter>
        <Rooms {...props} />
      </BrowserRouter>
    </SWRConfig>
  );
}

function Rooms({ teacher, entries, onSignedOut }: HouseProps) {
  const { mutate } = useSWRConfig();
  const [before] = useState(entries);
  useEffect(() => {
    if (entries > before) void mutate(() => true);
  }, [entries, before, mutate]);
  return (
    <Suspense fallback={null}>
      <Routes>
        <Route element={<Shell teacher={teacher} onSignedOut={onSignedOut} />}>
          {ROUTES().map(({ path, Page }) => (
            <Route key={path} path={path} element={<Page teacher={teacher} />} />
          ))}
          <Route path="*" element={<Landing teacherId={teacher.id} />} />
        </Route>
      </Routes>
    </Suspense>
  );
}
