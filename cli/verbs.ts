import { validator } from '../contract/validate.ts';
import { type CountedMeasure, countPattern, plainCounts } from '../core/counting/count.ts';
import {
  type Recognised,
  READABLE_SCHOOLS,
  type SpeechOptions,
  inAnyMeter,
  recognise,
  readSpeech,
  speechTrouble,
} from '../core/spoken/readSpeech.ts';
import { judgeTake } from '../core/judging/judgeTake.ts';
import type { TakeResult } from '../core/judging/takeResult.ts';
import { type HeardPart, togetherOf } from '../core/judging/together.ts';
import { USUAL_SCALE } from '../core/judging/scale.ts';
import { DEFAULT_AGES } from '../core/judging/windows.ts';
import { disagreementText, takeTroubleText } from '../core/wording/troubles.ts';
import { PLAIN_VOICE } from '../core/wording/voice.ts';
import { checkedScale } from './markScale.ts';
import { printResult, printedTogether } from './printResult.ts';
import { detectOnsets } from '../core/listening/detector.ts';
import { barCheck, barsAddUp } from '../core/rhythm/barCheck.ts';
import { mixed } from '../core/rhythm/fraction.ts';
import type { CountingSystemId } from '../core/counting/countingSystems.ts';
import type { Pattern } from '../core/rhythm/pattern.ts';
import { disagreements } from '../core/rhythm/score.ts';
import { printRhythm } from '../core/rhythm/text.ts';
import type { ValueLetter } from '../core/rhythm/value.ts';
import { checked } from './checked.ts';
import { meterOf } from './meterOf.ts';
import { UserError, ofEachPart, partAsked, readScore } from './readPattern.ts';
import { readWav } from './readWav.ts';
import { CheckRequest, CountRequest, SayRequest, ScoreRequest } from '../contract/commandLine.ts';

const countRequest = validator(CountRequest);
const checkRequest = validator(CheckRequest);
const sayRequest = validator(SayRequest);
const scoreRequest = validator(ScoreRequest);

interface Counted {
  readonly plain: string;
  readonly measures: readonly CountedMeasure[];
}

/** Of several parts a line each, with its name. */
interface CountedParts {
  readonly plain: string;
  readonly parts: Readonly<Record<string, Counted>>;
}

function count(request: unknown): Counted | CountedParts {
  const { text, ...options } = checked(countRequest(request));
  const score = readScore(text);
  const counts = (pattern: Pattern): Counted => {
    const counted = countPattern(pattern, options);
    if (!counted.ok) throw new UserError(counted.reason);
    return { plain: plainCounts(counted.measures), measures: counted.measures };
  };
  const [only] = score.parts;
  if (score.parts.length === 1) return counts(only!.pattern);
  const parts = ofEachPart(score, counts);
  return { plain: score.parts.map(({ name }) => `${name}: ${parts[name]!.plain}`).join('\n'), parts };
}

function check(request: unknown): object {
  const { text, beat } = checked(checkRequest(request));
  const score = readScore(text);
  const [only] = score.parts;
  if (score.parts.length === 1) return checkedPart(only!.pattern, beat);
  const parts = ofEachPart(score, (pattern) => checkedPart(pattern, beat));
  const disagree = disagreements(score).map((one) => ({
    measure: one.number,
    parts: one.parts,
    lengths: one.lengths.map(mixed),
    sentence: disagreementText(one),
  }));
  return { ok: disagree.length === 0 && Object.values(parts).every(({ ok }) => ok), parts, disagree };
}

function checkedPart(pattern: Pattern, beat: ValueLetter | undefined) {
  const reports = barCheck(pattern, beat);
  const measures = reports.map((report) => ({
    ...report,
    total: mixed(report.total),
    expected: mixed(report.expected),
  }));
  return { ok: barsAddUp(reports), measures };
}

function sayIt(request: unknown): object {
  const { text, school, meter, beat } = checked(sayRequest(request));
  const options = { ...(meter === undefined ? {} : { meter: meterOf(meter) }), beat };
  const said = school === undefined ? recognised(text, options) : spokenIn(text, school, options);
  const [first, ...others] = said.patterns.map(printRhythm);
  return { text: first, others, school: said.school };
}

function recognised(text: string, options: SpeechOptions): Recognised {
  const found = recognise(text, undefined, options);
  if (!found) {
    const trouble = speechTrouble(text, undefined, options);
    const where = trouble ? `at “${trouble.word}” I expected ${trouble.expected}; ` : '';
    throw new UserError(
      `no school can read all of this: ${where}try --school with one of ${READABLE_SCHOOLS.join(', ')}`,
    );
  }
  return found;
}

function spokenIn(text: string, school: CountingSystemId, options: SpeechOptions): Recognised {
  const read = (more: SpeechOptions) => {
    const said = readSpeech(text, school, { ...options, ...more });
    return said.ok ? said : undefined;
  };
  const found = options.meter ? read({}) : inAnyMeter(text, read);
  if (found) return found;
  const said = readSpeech(text, school, options);
  if (said.ok) return said;
  throw new UserError(
    said.word === ''
      ? `expected ${said.expected}`
      : `column ${said.at + 1}: expected ${said.expected}, found “${said.word}”`,
  );
}

function score(request: unknown): object {
  const asked = checked(scoreRequest(request));
  const { pattern: text, ages = DEFAULT_AGES, scale = USUAL_SCALE, part, streams, onsets, ...take } = asked;
  const settings = { ages, scale: checkedScale(scale) };
  const whole = readScore(text);
  const judgedPart = (pattern: Pattern, played: readonly number[]) => {
    const judged = judgeTake({ ...take, onsets: played, patternText: text }, settings, () => ({ ok: true, pattern }));
    if (!judged.ok) throw new UserError(takeTroubleText(judged.trouble, PLAIN_VOICE.naming));
    return judged.result;
  };
  const printed = (pattern: Pattern, result: TakeResult) => printResult(result, pattern, scale);
  if (streams === undefined) {
    if (onsets === undefined) throw new UserError('what was clapped? "onsets": seconds, or "streams": seconds by part');
    const { pattern } = partAsked(whole, part);
    return printed(pattern, judgedPart(pattern, onsets));
  }
  if (onsets !== undefined || part !== undefined)
    throw new UserError('either "streams", by part, or "onsets" of one part: not both');
  const heard = Object.entries(streams).map(([name, played]): HeardPart => {
    const found = partAsked(whole, name);
    return { part: whole.parts.indexOf(found), result: judgedPart(found.pattern, played), onsets: played };
  });
  if (new Set(heard.map(({ part: index }) => index)).size < heard.length)
    throw new UserError('two of the "streams" are of the same part');
  const named = heard.map(({ part: index, result }) => {
    const { name, pattern } = whole.parts[index]!;
    return [name, printed(pattern, result)] as const;
  });
  const together = togetherOf(whole, heard);
  return { parts: Object.fromEntries(named), ...(together ? { together: printedTogether(whole, together) } : {}) };
}

/** So many of the app's clicks come before anybody claps. */
export const COUNT_IN = 4;

/**
 * The onsets of a recording.
 * @param clicks  seconds at which the app's clicks were played, the first four of them a count-in
 */
export function listen(
  path: string,
  clicks?: readonly number[],
): { sampleRate: number; duration: number; onsets: number[] } {
  const { sampleRate, duration, samples } = readWav(path);
  return {
    sampleRate,
    duration,
    onsets: detectOnsets(samples, sampleRate, clicks && { times: clicks, countIn: COUNT_IN }).map(
      (onset) => Math.round(onset * 1e5) / 1e5,
    ),
  };
}

/** Judges a recording: its onsets against the written pattern. */
export function scoreWav(
  path: string,
  request: { pattern: string; bpm: number; start?: number; free?: boolean; ages?: string },
  clicks?: readonly number[],
): object {
  const { duration: _duration, sampleRate: _rate, onsets } = listen(path, clicks);
  return score({ ...request, onsets });
}

export const VERBS = { count, check, say: sayIt, score } as const;
