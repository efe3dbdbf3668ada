import { LogOut } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { NavLink, Outlet } from 'react-router';
import { useSWRConfig } from 'swr';
import { remove } from '../api/client.ts';
import { useSendOutbox, useWaitingTakes } from '../take/useOutbox.ts';
import { ROUTES } from './routes.ts';
import { OutboxNote } from './OutboxNote.tsx';
import type { Teacher } from '../../contract/session.ts';

export default function Shell({ teacher, onSignedOut }: { teacher: Teacher; onSignedOut: () => void }) {
  const waiting = useWaitingTakes(teacher.id);
  useSendOutbox(teacher.id, waiting);
  const { mutate } = useSWRConfig();
  const signOut = async () => {
    await remove('/session').catch(() => undefined);
    await mutate(() => true, undefined, { revalidate: false });
    onSignedOut();
  };
  return (
    <div className="shell">
      <a className="visually-hidden-focusable skip" href="#main">
        To the page
      </a>
      <header className="shell-bar">
        <span className="brand" aria-hidden>
          Clapboard
        </span>
        <nav aria-label="Views">
          {ROUTES.map(
            ({ path, title }) =>
              title && (
                <NavLink key={path} to={`/${path}`}>
                  {title}
                </NavLink>
              ),
          )}
        </nav>
        <span className="flex-grow-1" />
        <OutboxNote waiting={waiting} />
        <span className="teacher">{teacher.name}</span>
        <Button variant="link" size="sm" onClick={() => void signOut()}>
          <LogOut size={16} aria-hidden /> Sign out
        </Button>
      </header>
      <main id="main" tabIndex={-1}>
        <Outlet />
      </main>
    </div>
  );
}
