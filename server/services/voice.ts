import { t } from '../../core/words/say.ts';
import { MOST_WORDS, type VoiceWord } from '../../contract/voice.ts';
import { VOICE_RATE } from '../../core/listening/voiceFacts.ts';
import { type Database, transacted } from '../database.ts';
import { Problem } from '../problem.ts';
import { countWithWords, putWords } from '../repository/voice.ts';

export { chooseVoice, findVoice, removeWord, removeWords } from '../repository/voice.ts';

/** Keeps words of a teacher's own voice, each in the place of what was said before. */
export async function keepWords(db: Database, teacherId: string, words: readonly VoiceWord[]): Promise<void> {
  const names = words.map(({ word }) => word);
  if (new Set(names).size < names.length)
    throw new Problem(422, 'bad-request', t`The same word is sent twice.`, { field: 'words' });
  for (const { word, vowel, sound } of words) {
    const bytes = Buffer.from(sound, 'base64').length;
    if (bytes % 2 !== 0 || vowel * 2 * VOICE_RATE >= bytes)
      throw new Problem(422, 'bad-request', t`The sound of “${word}” is broken. Say it again.`, { field: 'words' });
  }
  await transacted(db, async (inside) => {
    if ((await countWithWords(inside, teacherId, names)) > MOST_WORDS)
      throw new Problem(
        422,
        'bad-request',
        t`A voice has ${MOST_WORDS} words at most. Remove some that are not counted with any more.`,
        { field: 'words' },
      );
    await putWords(inside, teacherId, words);
  });
}
