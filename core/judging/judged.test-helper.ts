import type { Pattern } from '../rhythm/pattern.ts';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { adviceOn } from '../wording/advice.ts';
import { misreadingSentence } from '../wording/misreadingSentences.ts';
import { takeTroubleText } from '../wording/troubles.ts';
import { PLAIN_VOICE, type Voice } from '../wording/voice.ts';
import { type TakeRequest, judge } from './judge.ts';
import type { TakeResult } from './takeResult.ts';

/** The result of a take that can be judged. */
export function resultOf(request: TakeRequest): TakeResult {
  const judged = judge(request);
  if (!judged.ok) throw new Error(takeTroubleText(judged.trouble, 'quarters'));
  return judged.result;
}

export function judged(text: string, bpm: number, onsets: readonly number[], more: Partial<TakeRequest> = {}) {
  return resultOf({ pattern: patternOf(text), bpm, onsets, ...more });
}

/** What is said of the misreadings in a take, in their order. */
export function sentencesOf(pattern: Pattern, result: TakeResult, voice: Voice = PLAIN_VOICE): string[] {
  return result.misreadings.map((misreading) => misreadingSentence(pattern, misreading, result, voice));
}

export function advised(text: string, bpm: number, onsets: readonly number[], voice: Voice = PLAIN_VOICE) {
  return adviceOn(judged(text, bpm, onsets), patternOf(text), voice);
}

/** Why a take cannot be judged; nothing where it can. */
export function troubleWith(request: TakeRequest): string {
  const result = judge(request);
  return result.ok ? '' : takeTroubleText(result.trouble, 'quarters');
}
