import '@fontsource/atkinson-hyperlegible-next/latin-400.css';
import '@fontsource/atkinson-hyperlegible-next/latin-700.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { speakFirst } from '../words/language.ts';
import { App } from './App.tsx';
import '../styles/theme.scss';

await speakFirst();
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
