import { barCheck } from '../../core/rhythm/barCheck.ts';
import { barTroubleText } from '../../core/wording/troubles.ts';
import { PLAIN_VOICE } from '../../core/wording/voice.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { errorSentence, parseRhythm } from '../../core/rhythm/text.ts';
import { Problem } from '../problem.ts';

/** Reads a rhythm text that is to be kept; what cannot be read, or does not add up, is said with its place. */
export function readPatternText(text: string, field: string): Pattern {
  const parsed = parseRhythm(text);
  if (!parsed.ok)
    throw new Problem(422, 'unreadable-rhythm', `The rhythm cannot be read: ${errorSentence(parsed.at)}.`, {
      field,
      at: parsed.at,
    });
  const wrong = barCheck(parsed.pattern)
    .map((report) => barTroubleText(report, PLAIN_VOICE.naming))
    .find((sentence) => sentence !== undefined);
  if (wrong) throw new Problem(422, 'bar-check', `The rhythm does not add up: ${wrong}.`, { field });
  return parsed.pattern;
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
