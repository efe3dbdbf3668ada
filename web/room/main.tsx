import '@fontsource/atkinson-hyperlegible-next/latin-400.css';
import '@fontsource/atkinson-hyperlegible-next/latin-700.css';
import { Fragment, type ReactNode, StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { lazyAgain } from '../ui/lazyAgain.ts';
import { languageOfBrowser, speak, useLanguages } from '../words/language.ts';
import { RoomApp } from './RoomApp.tsx';
import './room.scss';

const HomeApp = lazyAgain(async () => ({ default: (await import('./HomeApp.tsx')).HomeApp }));

/** Drawn anew in another language; where the child was is kept on the device. */
function Spoken({ children }: { children: ReactNode }) {
  return <Fragment key={useLanguages()}>{children}</Fragment>;
}

await speak(languageOfBrowser(), 'room');
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Spoken>
      {/^\/home\/?$/.test(location.pathname) ? (
        <Suspense fallback={null}>
          <HomeApp />
        </Suspense>
      ) : (
        <RoomApp />
      )}
    </Spoken>
  </StrictMode>,
);
