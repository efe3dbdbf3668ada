import '@fontsource/atkinson-hyperlegible-next/latin-400.css';
import '@fontsource/atkinson-hyperlegible-next/latin-700.css';
import { StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { lazyAgain } from '../ui/lazyAgain.ts';
import { RoomApp } from './RoomApp.tsx';
import './room.scss';

const HomeApp = lazyAgain(async () => ({ default: (await import('./HomeApp.tsx')).HomeApp }));

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    {/^\/home\/?$/.test(location.pathname) ? (
      <Suspense fallback={null}>
        <HomeApp />
      </Suspense>
    ) : (
      <RoomApp />
    )}
  </StrictMode>,
);
