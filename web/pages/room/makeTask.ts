import { perLanguage, t } from '../../../core/words/say.ts';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { QuestionTask, RoomTask } from '../../../contract/room.ts';
import type { Question } from '../../../core/exercises/question.ts';
import { questions, signQuestions, type SignQuestionKind } from '../../../core/exercises/questions.ts';
import { chooseQuestions } from '../../../core/exercises/kinds/chooseRhythm.ts';
import { rhythmFrom } from '../../../core/exercises/rhythms/cells.ts';
import { randomFrom } from '../../../core/random.ts';
import type { ElementId } from '../../../core/rhythm/elements.ts';
import { COMMON_TIME } from '../../../core/rhythm/meter.ts';
import { unfold } from '../../../core/rhythm/place.ts';
import { leadingPart } from '../../../core/rhythm/score.ts';
import { parseScore } from '../../../core/rhythm/scoreText.ts';
import { printRhythm } from '../../../core/rhythm/text.ts';
import { questionWords } from '../../../core/wording/questionWords.ts';
import type { AtDevices } from '../../domain/OwnDevices.tsx';
import type { Voice } from '../../../core/wording/voice.ts';

/** What all can do at once, in the order of the menu. */
export const DOINGS = perLanguage(
  () =>
    ({
      take: t`Clap it`,
      echo: t`Echo: hear it, clap it back`,
      choose: t`Which one do you hear?`,
      write: t`Write what you hear`,
      signs: t`Signs: a question`,
      values: t`Values: a question`,
    }) as const satisfies Readonly<Record<AtDevices, string>>,
);
export type Doing = AtDevices;

/** Doings that need a rhythm; a question about signs or values is made of nothing but the class's words. */
export const needsRhythm = (doing: Doing): boolean => doing !== 'signs' && doing !== 'values';
/** Those that can do without a saved one: a rhythm is made of what the class has met. */
export const canBeMade = (doing: Doing): boolean => doing !== 'take';

interface Wanted {
  readonly doing: Doing;
  /** Undefined: made of what the class has met. */
  readonly pattern: SavedPattern | undefined;
  readonly bpm: number;
  readonly heardBy: 'tap' | 'microphone';
  readonly met: readonly ElementId[];
  readonly voice: Voice;
  readonly seed: number;
}

/** Signs that are answered by one letter. */
const BY_LETTER: readonly SignQuestionKind[] = ['sign-name', 'staff-place', 'stem-side', 'which-rest', 'same-length'];
const BEATS_MADE = 4;
const MOST_OPTIONS = 4;

/** The task that is sent to all devices; undefined where none can be made of it. */
export function taskOf(wanted: Wanted): RoomTask | undefined {
  const { doing, pattern, bpm, met, voice, seed } = wanted;
  switch (doing) {
    case 'take':
    case 'echo':
      return clapping(wanted);
    case 'choose': {
      const read = pattern && parseScore(pattern.text);
      const from = read?.ok
        ? { pattern: leadingPart(read.score).pattern, met }
        : { elements: met, meter: COMMON_TIME, beats: BEATS_MADE };
      const [question] = chooseQuestions(from, seed, 1);
      return question && questionTask('choose', question, voice, { text: question.shows, bpm });
    }
    case 'write': {
      const text = heardText(wanted);
      return text === undefined ? undefined : { kind: 'write', text, bpm };
    }
    case 'signs': {
      const settings = { values: ['w', 'h', 'q', 'e'], dots: true, rests: true, clefs: true, beat: 'q' } as const;
      const [question] = signQuestions({ ...settings, counts: voice.counts }, seed, 1, BY_LETTER);
      return question && questionTask('signs', question, voice, null);
    }
    case 'values': {
      const settings = { values: ['w', 'h', 'q', 'e'], dots: true, ties: false, rests: true, beat: 'q' } as const;
      const question = questions(settings, seed, 1).find((one) => !one.answers && one.options.length <= MOST_OPTIONS);
      return question && questionTask('values', question, voice, null);
    }
  }
}

function clapping(wanted: Wanted): RoomTask | undefined {
  const { doing, pattern, bpm, heardBy } = wanted;
  const echo = doing === 'echo';
  const common = { kind: 'take' as const, bpm, heardBy, echo };
  if (!pattern) {
    const text = heardText(wanted);
    return text === undefined ? undefined : { ...common, patternId: null, title: t`Echo`, text, parts: [] };
  }
  const read = parseScore(pattern.text);
  if (!read.ok) return undefined;
  const { parts } = read.score;
  const texts = parts.map((part) => ({ name: part.name, text: printRhythm(part.pattern) }));
  const several = parts.length > 1 && !echo;
  return {
    ...common,
    patternId: pattern.id,
    title: pattern.title,
    text: texts[0]!.text,
    parts: several ? texts : [],
  };
}

/** A rhythm to be heard: the pattern's, or one that is made. */
function heardText({ pattern, met, seed }: Wanted): string | undefined {
  if (pattern) {
    const read = parseScore(pattern.text);
    return read.ok ? printRhythm(unfold(leadingPart(read.score).pattern)) : undefined;
  }
  const plain = met.filter((id) => id !== 'triplet');
  const made = rhythmFrom({ elements: plain, meter: COMMON_TIME, beats: BEATS_MADE }, randomFrom(seed));
  return made && printRhythm(made);
}

function questionTask(
  view: QuestionTask['view'],
  question: Question,
  { naming }: Voice,
  heard: QuestionTask['heard'],
): QuestionTask {
  const { prompt, options, steps } = questionWords(question, naming);
  return {
    kind: 'question',
    view,
    asked: view === 'choose' ? t`Which one do you hear?` : prompt,
    heard,
    facts: JSON.stringify(question),
    options: question.options.map(({ answer }, i) => ({
      words: answer.is === 'rhythm' ? '' : options[i]!,
      rhythm: answer.is === 'rhythm' ? answer.text : null,
    })),
    right: [...(question.answers ?? [question.answer])],
    reasons: steps.slice(0, 12),
  };
}
