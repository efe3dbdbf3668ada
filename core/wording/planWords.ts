import { counted, perLanguage, t } from '../words/say.ts';
import type { BlockKind, LessonTemplate, Unmet } from '../planning/lesson.ts';
import type { Standing } from '../planning/picture.ts';
import type { Late, Step, TermStep } from '../planning/term.ts';
import { ELEMENTS, type ElementId } from '../rhythm/elements.ts';
import type { Seconds } from '../timing/units.ts';
import { clockText } from './leadWords.ts';
import { type NamingId, capital, inNaming } from './valueNames.ts';

/** What the parts of a lesson are called, and what is done in them. */
export const BLOCK_WORDS = perLanguage(
  (): Readonly<Record<BlockKind, { readonly title: string; readonly about: string }>> => ({
    'warm-up': { title: t`Warm-up`, about: t`echo: hear it, clap it back` },
    know: { title: t`Know`, about: t`how long notes and rests are` },
    read: { title: t`Read and count`, about: t`on the board, with its counts` },
    lead: { title: t`Lead`, about: t`pass after pass, by a plan` },
    ear: { title: t`By ear`, about: t`which of four is heard?` },
    make: { title: t`Make`, about: t`lay strips for what is heard` },
    'line-up': { title: t`Line-up`, about: t`each child alone, for a mark` },
    // Not what is done to a window.
    close: { title: t`Close${''}`, about: t`what stays with them` },
  }),
);

export const TEMPLATE_WORDS = perLanguage(
  (): Readonly<Record<LessonTemplate, { readonly title: string; readonly about: string }>> => ({
    'something-new': { title: t`Something new`, about: t`met by ear, known, read, led and made` },
    practice: { title: t`Practice`, about: t`read, led and heard again` },
    'hear-all': { title: t`Hear everybody`, about: t`led once, then a line-up for marks` },
    'write-and-listen': { title: t`Listen and write`, about: t`by ear, with strips, then read` },
  }),
);

export const STEP_WORDS = perLanguage((): Readonly<Record<Step, string>> => ({
  meet: t`new`,
  read: t`read`,
  write: t`write`,
  hear: t`for a mark`,
}));

export const STANDING_WORDS = perLanguage((): Readonly<Record<Standing, string>> => ({
  met: t`met`,
  practised: t`practised`,
  firm: t`firm`,
}));

export function elementName(element: ElementId, naming: NamingId): string {
  return inNaming(ELEMENTS()[element].title, naming);
}

/** "half: new"; "tie: for a mark". @param known  the class has met it: "half: met already" */
export function stepText({ element, step }: TermStep, naming: NamingId, known = false): string {
  const word = known && step === 'meet' ? t`met already` : STEP_WORDS()[step];
  return `${elementName(element, naming)}: ${word}`;
}

/** What a lesson is called until its teacher names it: what is new in it, else what is done. */
export function lessonTitle(steps: readonly TermStep[], template: string, naming: NamingId): string {
  const [first] = [...steps.filter(({ step }) => step === 'meet'), ...steps];
  return first ? capital(stepText(first, naming)) : template;
}

/**
 * What the class has not met in a block, and what to do.
 * @example "tie is not met yet. Block 4 introduces it: put that before this one."
 */
export function unmetText({ element, introducedIn }: Unmet, naming: NamingId): string {
  const name = capital(elementName(element, naming));
  return introducedIn === undefined
    ? t`${name} is not met yet: say under “New” where the class meets it.`
    : t`${name} is not met yet. Block ${introducedIn + 1} introduces it: put that before this one.`;
}

/** How much of a lesson's time is planned. @example "3 min too long" */
export function leftText(left: Seconds): string {
  const minutes = Math.round(Math.abs(left) / 60);
  if (minutes === 0) return t`fits`;
  return left > 0 ? t`${minutes} min left` : t`${minutes} min too long`;
}

/** How the time stands while a lesson is held. @param behind  below 0: earlier than planned */
export function behindText(behind: Seconds): string {
  const minutes = Math.round(Math.abs(behind) / 60);
  if (minutes === 0) return t`on time`;
  return behind > 0 ? t`${minutes} min late` : t`${minutes} min early`;
}

/** What is left of a block. @param left  below 0: it is over */
export function blockLeftText(left: Seconds): string {
  return left >= 0 ? t`${clockText(left)} left` : t`${clockText(-left)} over`;
}

/** An old element that comes back too late. @example "tie (25 days)" */
export function lateText({ element, days }: Late, naming: NamingId): string {
  return `${elementName(element, naming)} (${counted(days, 'day')})`;
}
