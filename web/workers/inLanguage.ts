import { type Language, SOURCE, readWith } from '../../core/words/say.ts';

/**
 * A worker answers in a language from here on: that of what it is asked, else that of the page that started it, which
 * names its workers so.
 */
export async function answerIn(language = self.name as Language | ''): Promise<void> {
  if (language === '' || language === SOURCE) return readWith(() => undefined);
  const { loadSpeech } = await import('../../core/words/catalogues.ts');
  const speech = await loadSpeech(language, 'web');
  readWith(() => speech);
}
