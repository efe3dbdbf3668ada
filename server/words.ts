import { AsyncLocalStorage } from 'node:async_hooks';
import type { RequestHandler } from 'express';
import { loadSpeech } from '../core/words/catalogues.ts';
import { LANGUAGE_IDS, type Language, type Speech, readWith } from '../core/words/say.ts';

/** Who asks just now reads this. */
const reader = new AsyncLocalStorage<Speech | undefined>();
const speeches = new Map<Language, Speech | undefined>();

/** Loads what the server says in each language; from then on each request is answered in its own. */
export async function learnLanguages(): Promise<void> {
  for (const language of LANGUAGE_IDS) speeches.set(language, await loadSpeech(language, 'server'));
  readWith(() => reader.getStore());
}

/** Answers in the first language the request asks for that there is; else in English. */
export const inLanguageAsked: RequestHandler = (request, _response, next) => {
  const asked = request.acceptsLanguages(...LANGUAGE_IDS);
  reader.run(speeches.get((asked || 'en') as Language), next);
};
