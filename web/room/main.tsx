import '@fontsource/atkinson-hyperlegible-next/latin-400.css';
import '@fontsource/atkinson-hyperlegible-next/latin-700.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RoomApp } from './RoomApp.tsx';
import './room.scss';

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <RoomApp />
  </StrictMode>,
);
