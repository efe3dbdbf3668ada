import type { Focus } from '../making/focus.ts';
import type { Difficulty } from '../making/level.ts';
import type { MakeTrouble } from '../making/makePattern.ts';
import type { Next } from '../making/whatNext.ts';
import { ELEMENTS } from '../rhythm/elements.ts';
import { misreadingTitle } from './misreadingSentences.ts';
import { counted } from './plurals.ts';
import { type NamingId, capital, inNaming } from './valueNames.ts';

/** Small amounts, as a person says them. */
function rough(amount: number): string {
  return (Math.round(amount * 10) / 10).toString();
}

/**
 * Why a pattern has its level, in one sentence.
 * @example "4 different cells, a new one 6 times in 10; 1.5 notes a beat, 0.3 of them off it."
 */
export function levelSentence({ cells, changes, notesABeat, offbeats }: Difficulty): string {
  const often = Math.round(changes * 10);
  const turns =
    often === 0 ? 'always the same' : often === 10 ? 'each unlike the one before' : `a new one ${often} times in 10`;
  const off = offbeats === 0 ? 'none of them off it' : `${rough(offbeats)} of them off it`;
  return `${counted(cells, 'different cell')}, ${turns}; ${rough(notesABeat)} notes a beat, ${off}.`;
}

/** "eighth rest"; "rests are skipped". */
export function focusName(focus: Focus, naming: NamingId): string {
  return focus.kind === 'element'
    ? inNaming(ELEMENTS[focus.element].title, naming)
    : misreadingTitle(focus.code, { naming });
}

/** Why nothing could be made, and what to do. */
export function makeTroubleText(trouble: MakeTrouble, focus: Focus | undefined, naming: NamingId): string {
  const measure = inNaming('{measure}', naming);
  switch (trouble) {
    case 'no-fill':
      return `these elements fill no ${measure} of this meter: choose more elements, or another meter`;
    case 'no-focus':
      return `“${focus ? focusName(focus, naming) : ''}” can stand nowhere here: choose the elements it needs, or another meter`;
    case 'not-found':
      return `nothing keeps all rules here: choose more elements, more ${inNaming('{measure+}', naming)}, or another level`;
  }
}

/** What comes next for a class and why, in one sentence. */
export function nextSentence({ focus, level, because }: Next, naming: NamingId): string {
  const what = focus ? focusName(focus, naming) : '';
  switch (because.kind) {
    case 'nothing-heard':
      return 'Nothing was heard of this class yet: start with what everybody can read.';
    case 'misread':
      return `${capital(what)}, at level ${level}: ${because.children} of ${counted(because.of, 'child', 'children')} did so lately.`;
    case 'weakest':
      return `${capital(what)}, at level ${level}: ${because.unsure} of the ${counted(because.heard, 'child', 'children')} heard in it ${because.unsure === 1 ? 'is' : 'are'} not sure of it.`;
    case 'new':
      return `${capital(what)}, at level ${level}: what the class has met it has, and this comes next.`;
  }
}
