import { counted, t } from '../core/words/say.ts';
import { MakeRequest, PatternRequest } from '../contract/commandLine.ts';
import { validator } from '../contract/validate.ts';
import type { Focus } from '../core/making/focus.ts';
import { difficultyOf } from '../core/making/level.ts';
import { type Made, type PatternWanted, elementsAt, withMeter } from '../core/making/makePattern.ts';
import { makeSet } from '../core/making/makeSet.ts';
import { scoreDifficulty } from '../core/making/scoreLevel.ts';
import { ELEMENT_IDS, type ElementId, elementsOf } from '../core/rhythm/elements.ts';
import { ONE, add, div, mixed } from '../core/rhythm/fraction.ts';
import { COMMON_TIME, beatOf } from '../core/rhythm/meter.ts';
import { soundKey } from '../core/rhythm/soundings.ts';
import { printRhythm } from '../core/rhythm/text.ts';
import { levelSentence, makeTroubleText, scoreLevelSentence } from '../core/wording/makingWords.ts';
import { checked } from './checked.ts';
import { meterOf } from './meterOf.ts';
import { UserError, ofEachPart, readPattern, readScore } from './readPattern.ts';

const makeRequest = validator(MakeRequest);
const patternRequest = validator(PatternRequest);

const NAMING = 'quarters';

function focusOf({ focus, misreading }: MakeRequest): Focus | undefined {
  if (focus !== undefined && misreading !== undefined)
    throw new UserError(t`one focus at a time: --focus with an element, or --misreading with a code`);
  if (focus !== undefined) return { kind: 'element', element: focus };
  return misreading === undefined ? undefined : { kind: 'misreading', code: misreading };
}

function wantedOf(request: MakeRequest): PatternWanted {
  const { meter: name, measures = 2, level = 2 } = request;
  const meter = name === undefined ? COMMON_TIME : meterOf(name);
  const usual = withMeter(elementsAt(level), meter);
  const focus = focusOf(request);
  return { meter, measures, level, elements: request.elements ?? usual, ...(focus ? { focus } : {}) };
}

function printed({ pattern, level, focusAt }: Made): object {
  const { meter } = pattern.measures[0]!;
  const beat = beatOf(meter).length;
  return {
    text: printRhythm(pattern),
    elements: [...elementsOf(pattern).keys()],
    level,
    focusAt: focusAt.map(({ measure, onset }) => ({ measure, beat: mixed(add(div(onset, beat), ONE)) })),
  };
}

/** The patterns of a set; `note` says where there are fewer than asked for. */
export function make(request: unknown): { patterns: object[]; note?: string } {
  const asked = checked(makeRequest(request));
  const { count = 1, seed = 0, known = [] } = asked;
  const wanted = wantedOf(asked);
  const set = makeSet(wanted, count, seed, new Set(known.map((text) => soundKey(readPattern(text)))));
  if (typeof set === 'string') throw new UserError(makeTroubleText(set, wanted.focus, NAMING));
  const few = counted(set.made.length, 'pattern');
  const note = t`only ${few} of ${count}: no more are as hard and sound unlike the others`;
  return { patterns: set.made.map(printed), ...(set.short ? { note } : {}) };
}

/** The elements of a pattern, in their usual order, each with its measures. */
export function elements(request: unknown): object {
  const { text } = checked(patternRequest(request));
  const score = readScore(text);
  const parts = ofEachPart(score, elementsOf);
  const inOrder = (found: (element: ElementId) => readonly number[]) =>
    ELEMENT_IDS.map((element) => ({ element, measures: found(element) })).filter(({ measures }) => measures.length > 0);
  const all = inOrder((element) => [
    ...new Set(
      Object.values(parts)
        .flatMap((found) => found.get(element) ?? [])
        .sort((a, b) => a - b),
    ),
  ]);
  if (score.parts.length === 1) return { elements: all };
  const each = Object.entries(parts).map(
    ([name, found]) => [name, { elements: inOrder((element) => found.get(element) ?? []) }] as const,
  );
  return { elements: all, parts: Object.fromEntries(each) };
}

/** How hard a pattern is, and why. */
export function level(request: unknown): object {
  const { text } = checked(patternRequest(request));
  const score = readScore(text);
  const [only] = score.parts;
  if (score.parts.length === 1) {
    const difficulty = difficultyOf(only!.pattern);
    return { level: difficulty.level, why: levelSentence(difficulty) };
  }
  const whole = scoreDifficulty(score);
  const each = score.parts.map(({ name }, i) => {
    const part = whole.parts[i]!;
    return [name, { level: part.level, why: levelSentence(part) }] as const;
  });
  const independence = Math.round(whole.independence * 100) / 100;
  return { level: whole.level, why: scoreLevelSentence(whole), independence, parts: Object.fromEntries(each) };
}
