import { t } from '../core/words/say.ts';
import { readFileSync } from 'node:fs';
import { TogetherRequest, TogetherTake } from '../contract/commandLine.ts';
import { validator } from '../contract/validate.ts';
import { type ClassHeard, type ClassSilence, classHeard } from '../core/ensemble/classHeard.ts';
import { hearClass } from '../core/ensemble/classSound.ts';
import { strikesOfTakes } from '../core/ensemble/strikes.ts';
import { classTogetherSentence } from '../core/wording/classTogetherWords.ts';
import { PLAIN_VOICE } from '../core/wording/voice.ts';
import { checked } from './checked.ts';
import { printPlace } from './printResult.ts';
import { UserError, readScore } from './readPattern.ts';
import { readWav } from './readWav.ts';
import { COUNT_IN } from './verbs.ts';

const togetherRequest = validator(TogetherRequest);
const togetherTake = validator(TogetherTake);

const printedSilence = ({ share, ...place }: ClassSilence) => ({ ...printPlace(place), share });

/** How a class was together, as it is printed. */
function printed(heard: ClassHeard): object {
  const { notes, rests, holds, fallsApart, runs, fewer, driftPct, widthMs, aheadMs, tooFew, confidence } = heard;
  return {
    notes: notes.map(({ index, widthMs: width, aheadMs: ahead, loudness, early, late, ...place }) => ({
      index,
      ...printPlace(place),
      ...(width === undefined ? {} : { widthMs: width, aheadMs: ahead }),
      loudness,
      ...(early === undefined ? {} : { early }),
      ...(late === undefined ? {} : { late }),
    })),
    rests: rests.map(printedSilence),
    holds: holds.map(printedSilence),
    ...(fallsApart ? { fallsApart: printPlace(fallsApart) } : {}),
    ...(runs ? { runs: printPlace(runs) } : {}),
    ...(fewer ? { fewer: { ...printPlace(fewer), kind: fewer.kind, share: fewer.share } } : {}),
    driftPct,
    ...(widthMs === undefined ? {} : { widthMs, aheadMs }),
    tooFew,
    confidence,
    sentence: classTogetherSentence(heard, PLAIN_VOICE.naming),
  };
}

/** The one part of a rhythm; a class that claps in parts is heard part by part. */
function rhythmOf(text: string) {
  const score = readScore(text);
  if (score.parts.length > 1) throw new UserError(t`a class is heard in one part: give the text of that part`);
  return score.parts[0]!.pattern;
}

/** A recording of a class that claps as one. */
export function together(request: unknown): object {
  const { wav, pattern, bpm, start, free, clicks } = checked(togetherRequest(request));
  if (free && start !== undefined) throw new UserError(t`a start or free: where nobody clicked there is no start`);
  const { samples, sampleRate } = readWav(wav);
  return printed(
    hearClass(samples, sampleRate, {
      pattern: rhythmOf(pattern),
      bpm,
      ...(free ? {} : { start: start ?? 0 }),
      ...(clicks ? { clicks: { times: clicks, countIn: COUNT_IN } } : {}),
    }),
  );
}

/** One line of the file: the onsets of one child, alone or with where its beat 1 was. */
function takeIn(line: string, number: number): number[] {
  let read: unknown;
  try {
    read = JSON.parse(line);
  } catch {
    throw new UserError(t`line ${number}: not JSON: expected onsets such as { "onsets": [0, 0.75] }`);
  }
  const result = togetherTake(Array.isArray(read) ? { onsets: read } : read);
  if (!result.ok) throw new UserError(t`line ${number}: ${result.message}`);
  const { onsets, start = 0 } = result.value;
  return onsets.map((onset) => onset - start);
}

/** The same from the onsets of single children, one a line. */
export function togetherOfTakes(
  path: string,
  { pattern, bpm: asked }: { readonly pattern: string; readonly bpm: number },
  free: boolean,
): object {
  const { bpm } = checked(togetherRequest({ wav: path, pattern, bpm: asked }));
  const takes = readFileSync(path, 'utf8')
    .split('\n')
    .flatMap((line, i) => (line.trim() === '' ? [] : [takeIn(line, i + 1)]));
  if (takes.length === 0) throw new UserError(t`${path}: no takes in it; a line each, such as { "onsets": [0, 0.75] }`);
  return printed(classHeard(rhythmOf(pattern), bpm, strikesOfTakes(takes), { free, hands: takes.length }));
}
