import { counted, t } from '../words/say.ts';
import type { EchoStep } from '../ear/echoChain.ts';
import { TOGETHER_MS, type Together } from '../ear/together.ts';
import { ELEMENTS } from '../rhythm/elements.ts';
import { placeText } from './places.ts';
import { type NamingId, capital, inNaming, measureName } from './valueNames.ts';

/** "One measure, with quarter rest". */
export function echoStepText({ measures, focus }: EchoStep, naming: NamingId): string {
  const length = counted(measures, measureName(naming), measureName(naming, true));
  return focus === undefined ? length : t`${length}, with ${inNaming(ELEMENTS()[focus].title, naming)}`;
}

/** Hands in most rooms are a twentieth of a second apart; this is for the ear of the teacher, not for a mark. */
function apartText(spreadMs: number): string {
  return spreadMs <= TOGETHER_MS ? t`Together.` : t`Not quite together: listen to each other.`;
}

/** What the class did with a pattern it clapped back: the notes, the rests, how much together. */
export function togetherSentences(heard: Together, naming: NamingId): string[] {
  const { clapped, notes, quietRests, rests, clappedRest, spreadMs } = heard;
  if (clapped === 0) return [t`No claps were heard. Clap louder, or move the microphone nearer.`];
  const said =
    clapped === notes ? t`Every note was clapped.` : t`${clapped} of ${counted(notes, 'note')} were clapped.`;
  const silence = !clappedRest
    ? rests > 0
      ? t`${quietRests === 1 ? t`The rest was` : t`The rests were`} silent: hands apart.`
      : undefined
    : capital(t`somebody clapped in the rest at ${placeText(clappedRest.place, naming)}.`);
  return [
    ...(spreadMs === undefined || clapped < notes ? [] : [apartText(spreadMs)]),
    said,
    ...(silence === undefined ? [] : [silence]),
  ];
}
