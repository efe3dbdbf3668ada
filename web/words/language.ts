import { useSyncExternalStore } from 'react';
import type { CatalogueRoom } from '../../core/words/catalogues.ts';
import {
  type Language,
  SOURCE,
  type Speech,
  keepSpeech,
  languageOf,
  loadOthersWith,
  readWith,
} from '../../core/words/say.ts';
import { readStored, writeStored } from '../store/stored.ts';
import { datesIn } from './locale.ts';

/** What this device was told last; without it the browser's first language that there is. */
const KEY = 'language';

let speech: Speech | undefined;
/** Whose sentences this page says. */
let here: CatalogueRoom = 'web';
const listeners = new Set<() => void>();

readWith(() => speech);

/** Goes up when a language came that only a class has: what is said in it is drawn anew. */
let came = 0;

loadOthersWith((language) => {
  void import('../../core/words/catalogues.ts')
    .then(({ loadSpeech }) => loadSpeech(language, here))
    .then((other) => {
      if (!other) return;
      keepSpeech(other);
      came += 1;
      for (const listener of listeners) listener();
    })
    .catch(() => undefined);
});

/** The language of the browser, as far as it is spoken here. */
export function languageOfBrowser(): Language {
  return navigator.languages.map(languageOf).find((language) => language !== undefined) ?? SOURCE;
}

/** Kept on the device in place of a language, it shows what no catalogue says, and what longer words do. */
const PSEUDO = 'pseudo';
/** The same from right to left. */
const PSEUDO_RTL = 'pseudo-rtl';

/** What the page begins in. */
export async function speakFirst(): Promise<void> {
  const kept = readStored(KEY);
  if (kept === PSEUDO_RTL) document.documentElement.dir = 'rtl';
  if (kept !== PSEUDO && kept !== PSEUDO_RTL) return speak(languageOf(kept) ?? languageOfBrowser());
  speech = (await import('../../core/words/pseudo.ts')).PSEUDO;
  document.documentElement.lang = 'qps';
}

/** Of dates, as the calendar package has them. */
const LOCALES = {
  de: async () => (await import('date-fns/locale/de')).de,
  es: async () => (await import('date-fns/locale/es')).es,
} as const;

/**
 * Speaks a language from here on. English is in the program; others are loaded first, and where that fails the page
 * goes on in the language it has.
 */
export async function speak(language: Language, room: CatalogueRoom = here): Promise<void> {
  here = room;
  if (language === (speech?.language ?? SOURCE)) return;
  try {
    const [next, locale] =
      language === SOURCE
        ? []
        : await Promise.all([
            import('../../core/words/catalogues.ts').then(({ loadSpeech }) => loadSpeech(language, room)),
            LOCALES[language](),
          ]);
    speech = next;
    datesIn(locale);
  } catch {
    return;
  }
  document.documentElement.lang = language;
  for (const listener of listeners) listener();
}

/** The same, and this device begins with it from now on; undefined is as the browser has it. */
export function speakHere(language: Language | undefined): Promise<void> {
  writeStored(KEY, language);
  return speak(language ?? languageOfBrowser());
}

/** The language the page is in; drawn anew when it is another one. */
export function useLanguage(): Language {
  return useSyncExternalStore(listen, () => speech?.language ?? SOURCE);
}

/** The same with the languages of classes: another word each time one of them comes. */
export function useLanguages(): string {
  return useSyncExternalStore(listen, () => `${speech?.language ?? SOURCE} ${came}`);
}

function listen(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
