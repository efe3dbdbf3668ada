import { t } from '../core/words/say.ts';
import { EarSameRequest, EarSignsRequest, EarChooseRequest, EarWriteRequest } from '../contract/commandLine.ts';
import { validator } from '../contract/validate.ts';
import { otherWays } from '../core/ear/otherWays.ts';
import { compareWritten } from '../core/ear/written.ts';
import { type ChooseWanted, chooseQuestions } from '../core/exercises/kinds/chooseRhythm.ts';
import type { Question } from '../core/exercises/question.ts';
import { signQuestions } from '../core/exercises/questions.ts';
import { measuresFor } from '../core/exercises/rhythms/cells.ts';
import { ELEMENT_IDS } from '../core/rhythm/elements.ts';
import { beatsInMeasure, COMMON_TIME, meterText } from '../core/rhythm/meter.ts';
import { printRhythm } from '../core/rhythm/text.ts';
import { ruledOutIn } from '../core/wording/earWords.ts';
import { questionWords } from '../core/wording/questionWords.ts';
import { checked } from './checked.ts';
import { meterOf } from './meterOf.ts';
import { UserError, readPattern } from './readPattern.ts';

const chooseRequest = validator(EarChooseRequest);
const writeRequest = validator(EarWriteRequest);
const sameRequest = validator(EarSameRequest);
const signsRequest = validator(EarSignsRequest);

/** What `ear signs` asks about where nothing else is said. */
const SIGNS = {
  values: ['w', 'h', 'q', 'e', 's'],
  dots: true,
  rests: true,
  clefs: true,
  beat: 'q',
  counts: { school: 'ta' },
} as const;

function wantedIn({ text, elements, meter: meterName, beats }: EarChooseRequest): ChooseWanted {
  if (text !== undefined) return { pattern: readPattern(text), ...(elements ? { met: elements } : {}) };
  if (!elements || elements.length === 0)
    throw new UserError(
      t`what is heard? Give --text "4/4 q e e h", or --elements with some of
        ${ELEMENT_IDS.join(', ')}`,
    );
  const meter = meterName === undefined ? COMMON_TIME : meterOf(meterName);
  const full = beatsInMeasure(meter);
  const wanted = { elements, meter, beats: beats ?? full.n };
  if (!measuresFor(wanted)) {
    const measures = t`${full.n} or ${2 * full.n}`;
    throw new UserError(
      t`${wanted.beats} beats do not fill measures of ${meterText(meter)}: for example
        --beats ${measures}`,
    );
  }
  return wanted;
}

function printed(question: Question): object {
  const texts = question.options.map(({ answer }) => (answer.is === 'rhythm' ? answer.text : ''));
  const reasons = question.steps.flatMap((step) => {
    if (step.step !== 'ruled-out') return [];
    const { option, measure, timeThrough, beat, claps, hasClaps } = step;
    const again = timeThrough === undefined ? {} : { time: timeThrough };
    const sentence = ruledOutIn(question, step, 'quarters');
    return [{ option, measure, ...again, beat, claps, hasClaps, sentence }];
  });
  const changes = question.options.map(({ change }) => change ?? null);
  return { options: texts, answer: question.answer, reasons, changes };
}

function choose(request: unknown): object[] {
  const wanted = checked(chooseRequest(request));
  const count = wanted.count ?? 1;
  const made = chooseQuestions(wantedIn(wanted), wanted.seed ?? 0, count);
  if (made.length === 0)
    throw new UserError(t`no three patterns can be told from this by ear: give a longer one, or more elements`);
  return made.map(printed);
}

function write(request: unknown): object {
  const { text, answer } = checked(writeRequest(request));
  const { measures, ...whole } = compareWritten(readPattern(text), readPattern(answer));
  return {
    ...whole,
    measures: measures.map(({ timeThrough, ...measure }) => ({
      ...measure,
      ...(timeThrough === undefined ? {} : { time: timeThrough }),
    })),
  };
}

function same(request: unknown): string[] {
  const { text } = checked(sameRequest(request));
  return otherWays(readPattern(text)).map(printRhythm);
}

function signs(request: unknown): object[] {
  const { seed, count } = checked(signsRequest(request));
  return signQuestions(SIGNS, seed ?? 0, count ?? 1).map((question) => {
    const { prompt, options, steps } = questionWords(question, 'quarters');
    const misconceptions = question.options.map(({ misconception }) => misconception ?? null);
    const answer = question.answers ?? question.answer;
    return { kind: question.asked.kind, prompt, options, answer, misconceptions, steps, picture: question.staff };
  });
}

/** What `ear` does, each to be asked once or line by line. */
export const EAR_VERBS = { choose, write, same, signs } as const;
export type EarVerb = keyof typeof EAR_VERBS;

const NAMES = Object.keys(EAR_VERBS).join(', ');

export function isEarVerb(name: string | undefined): name is EarVerb {
  return name !== undefined && Object.hasOwn(EAR_VERBS, name);
}

/** A line of a batch: many answers stand under one name. */
export function earBatch(verb: EarVerb): (request: unknown) => object {
  return (request) => {
    const made = EAR_VERBS[verb](request);
    if (!Array.isArray(made)) return made;
    return verb === 'same' ? { others: made } : { questions: made };
  };
}

/** What is printed for one question: a line for each, or all other ways in one. */
export function earLines(verb: string | undefined, request: object): string[] {
  if (!isEarVerb(verb))
    throw new UserError(t`what with the ear? One of ${NAMES}, for example ear choose --seed 1 --text "4/4 q e e h"`);
  const made = EAR_VERBS[verb](request);
  return Array.isArray(made) && verb !== 'same' ? made.map((one) => JSON.stringify(one)) : [JSON.stringify(made)];
}
