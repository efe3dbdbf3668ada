import { counted, decimal, t } from '../words/say.ts';
import type { Focus } from '../making/focus.ts';
import type { Difficulty } from '../making/level.ts';
import type { ScoreDifficulty } from '../making/scoreLevel.ts';
import type { MakeTrouble } from '../making/makePattern.ts';
import type { Next } from '../making/whatNext.ts';
import { ELEMENTS } from '../rhythm/elements.ts';
import { misreadingTitle } from './misreadingSentences.ts';
import { type NamingId, capital, inNaming, measureName } from './valueNames.ts';

/** Small amounts, as a person says them. */
function rough(amount: number): string {
  return decimal(Math.round(amount * 10) / 10);
}

/**
 * Why a pattern has its level, in one sentence.
 * @example "4 different cells, a new one 6 times in 10; 1.5 notes a beat, 0.3 of them off it."
 */
export function levelSentence({ cells, changes, notesABeat, offbeats }: Difficulty): string {
  const often = Math.round(changes * 10);
  const turns =
    often === 0 ? t`always the same` : often === 10 ? t`each unlike the one before` : t`a new one ${often} times in 10`;
  const off = offbeats === 0 ? t`none of them off it` : t`${rough(offbeats)} of them off it`;
  const notes = Math.round(notesABeat * 10) === 10 ? t`1 note` : t`${rough(notesABeat)} notes`;
  return t`${counted(cells, 'different cell')}, ${turns}; ${notes} a beat, ${off}.`;
}

/**
 * The same of several parts together.
 * @example "4 of 10 attacks are in one part alone; the hardest part is of level 3."
 */
export function scoreLevelSentence({ parts, independence }: ScoreDifficulty): string {
  const alone = Math.round(independence * 10);
  const often =
    alone === 0 ? t`Nearly no attack is` : alone === 10 ? t`Nearly all attacks are` : t`${alone} of 10 attacks are`;
  return t`${often} in one part alone; the hardest part is of level
    ${Math.max(...parts.map(({ level }) => level))}.`;
}

/** "eighth rest"; "rests are skipped". */
export function focusName(focus: Focus, naming: NamingId): string {
  return focus.kind === 'element'
    ? inNaming(ELEMENTS()[focus.element].title, naming)
    : misreadingTitle(focus.code, { naming });
}

/** Why nothing could be made, and what to do. */
export function makeTroubleText(trouble: MakeTrouble, focus: Focus | undefined, naming: NamingId): string {
  const [measure, measures] = [measureName(naming), measureName(naming, true)];
  const what = focus ? focusName(focus, naming) : '';
  switch (trouble) {
    case 'no-fill':
      return t`these elements fill no ${measure} of this meter: choose more elements, or another meter`;
    case 'no-focus':
      return t`“${what}” can stand nowhere here: choose the elements it needs, or another meter`;
    case 'not-found':
      return t`nothing keeps all rules here: choose more elements, more ${measures}, or another level`;
  }
}

/** What comes next for a class and why, in one sentence. */
export function nextSentence({ focus, level, because }: Next, naming: NamingId): string {
  const what = focus ? focusName(focus, naming) : '';
  const at = t`${capital(what)}, at level ${level}`;
  const children = (count: number) => counted(count, 'child', 'children');
  switch (because.kind) {
    case 'nothing-heard':
      return t`Nothing was heard of this class yet: start with what everybody can read.`;
    case 'misread':
      return t`${at}: ${because.children} of ${children(because.of)} did so lately.`;
    case 'weakest': {
      const unsure = because.unsure > 0 ? t`, ${because.unsure} of them unsure` : '';
      const heard = children(because.heard);
      return because.notFirm === 1
        ? t`${at}: 1 of the ${heard} heard in it is not firm in it yet${unsure}.`
        : t`${at}: ${because.notFirm} of the ${heard} heard in it are not firm in it yet${unsure}.`;
    }
    case 'hardly-heard':
      return t`${at}: ${because.hardly} of the ${children(because.heard)} heard in it were hardly heard yet.`;
    case 'new':
      return t`${at}: what the class has met it has, and this comes next.`;
  }
}
