import { LANGUAGE_IDS, SOURCE, languageOf, readWith, t } from '../core/words/say.ts';
import { UserError } from './readPattern.ts';

const OPTION = '--language';

/**
 * Takes the language out of the words of a command, wherever it stands, and speaks it from here on: results, help and
 * errors.
 * @returns the other words
 * @throws UserError for a language there is not
 */
export async function speakAsGiven(words: readonly string[]): Promise<string[]> {
  const rest: string[] = [];
  let given: string | undefined;
  for (let i = 0; i < words.length; i++) {
    const word = words[i]!;
    if (word === OPTION) given = words[++i] ?? '';
    else if (word.startsWith(`${OPTION}=`)) given = word.slice(OPTION.length + 1);
    else rest.push(word);
  }
  const language = given === undefined ? SOURCE : languageOf(given);
  if (!language) throw new UserError(t`no language “${given}”: expected one of ${LANGUAGE_IDS.join(', ')}`);
  // Most runs are in English, and start without what reads catalogues.
  const speech =
    language === SOURCE ? undefined : await (await import('../core/words/catalogues.ts')).loadSpeech(language, 'cli');
  readWith(() => speech);
  return rest;
}
