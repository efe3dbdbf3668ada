import { perLanguage, t } from '../../../core/words/say.ts';
import type { WordTrouble } from '../../../core/listening/spokenWord.ts';

const TEXTS = perLanguage((): Readonly<Record<WordTrouble, string>> => ({
  nothing: t`Nothing was heard.`,
  soft: t`Too soft. Say it louder, or nearer to the microphone.`,
  loud: t`Too loud. Say it softer, or further from the microphone.`,
  long: t`Too long for one word. Say it shortly, as in counting, in a quiet room.`,
}));

/** What to do where what was heard is no word to count with. */
export const wordTroubleText = (trouble: WordTrouble): string => TEXTS()[trouble];
