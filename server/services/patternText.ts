import { t } from '../../core/words/say.ts';
import { type Score, checkParts } from '../../core/rhythm/score.ts';
import { parseScore } from '../../core/rhythm/scoreText.ts';
import { partBarTrouble } from '../../core/wording/partTroubles.ts';
import { PLAIN_VOICE } from '../../core/wording/voice.ts';
import { errorSentence } from '../../core/rhythm/text.ts';
import { Problem } from '../problem.ts';

/**
 * Reads a rhythm text that is to be kept, in one or several parts; what cannot be read, or does not add up, is said
 * with its place.
 */
export function readPatternText(text: string, field: string): Score {
  const parsed = parseScore(text);
  if (!parsed.ok)
    throw new Problem(422, 'unreadable-rhythm', t`The rhythm cannot be read: ${errorSentence(parsed.at)}.`, {
      field,
      at: parsed.at,
    });
  const wrong = checkParts(parsed.score)
    .map((report) => partBarTrouble(report, PLAIN_VOICE.naming))
    .find((sentence) => sentence !== undefined);
  if (wrong) throw new Problem(422, 'bar-check', t`The rhythm does not add up: ${wrong}.`, { field });
  return parsed.score;
}

/** Others are answered in between: a long text takes some twenty milliseconds to read. */
export const breath = () => new Promise<void>((resolve) => setImmediate(resolve));

/** Reads many, one after the other. @param texts  each with its field */
export async function readEach(texts: Iterable<readonly [text: string, field: string]>): Promise<void> {
  for (const [text, field] of texts) {
    readPatternText(text, field);
    await breath();
  }
}
