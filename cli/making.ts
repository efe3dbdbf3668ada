import { MakeRequest, PatternRequest } from '../contract/commandLine.ts';
import { validator } from '../contract/validate.ts';
import type { Focus } from '../core/making/focus.ts';
import { difficultyOf } from '../core/making/level.ts';
import { type Made, type PatternWanted, elementsAt, withMeter } from '../core/making/makePattern.ts';
import { makeSet } from '../core/making/makeSet.ts';
import { ELEMENT_IDS, elementsOf } from '../core/rhythm/elements.ts';
import { ONE, add, div, mixed } from '../core/rhythm/fraction.ts';
import { COMMON_TIME, beatOf } from '../core/rhythm/meter.ts';
import { soundKey } from '../core/rhythm/soundings.ts';
import { printRhythm } from '../core/rhythm/text.ts';
import { levelSentence, makeTroubleText } from '../core/wording/makingWords.ts';
import { counted } from '../core/wording/plurals.ts';
import { checked } from './checked.ts';
import { meterOf } from './meterOf.ts';
import { UserError, readPattern } from './readPattern.ts';

const makeRequest = validator(MakeRequest);
const patternRequest = validator(PatternRequest);

const NAMING = 'quarters';

function focusOf({ focus, misreading }: MakeRequest): Focus | undefined {
  if (focus !== undefined && misreading !== undefined)
    throw new UserError('one focus at a time: --focus with an element, or --misreading with a code');
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
  const note = `only ${few} of ${count}: no more are as hard and sound unlike the others`;
  return { patterns: set.made.map(printed), ...(set.short ? { note } : {}) };
}

/** The elements of a pattern, in their usual order, each with its measures. */
export function elements(request: unknown): object {
  const { text } = checked(patternRequest(request));
  const found = elementsOf(readPattern(text));
  const inOrder = ELEMENT_IDS.filter((id) => found.has(id));
  return { elements: inOrder.map((element) => ({ element, measures: found.get(element) })) };
}

/** How hard a pattern is, and why. */
export function level(request: unknown): object {
  const { text } = checked(patternRequest(request));
  const difficulty = difficultyOf(readPattern(text));
  return { level: difficulty.level, why: levelSentence(difficulty) };
}
