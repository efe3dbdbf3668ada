import { counted, perLanguage, t } from '../words/say.ts';
import type { Together } from '../judging/together.ts';
import { placeText } from './places.ts';
import type { NamingId } from './valueNames.ts';

/**
 * Milliseconds between two claps that are meant as one: below the first they are heard as one, up to the second an
 * ensemble is heard as together (two sounds are told apart from some 20 to 30 ms on; players of ensembles are 30 to 50
 * ms apart).
 */
const AS_ONE = 25;
const TOGETHER = 50;

function howTogether(apartMs: number): string {
  return apartMs <= AS_ONE ? t`as one` : apartMs <= TOGETHER ? t`together` : t`apart`;
}

/**
 * How together two were, for teacher and children: what was, where they were furthest apart, who comes first.
 * @param who   by the index of the part: "Alma" or "clap"
 */
export function togetherSentences(
  { shared, apartMs, worst, leads }: Together,
  who: readonly string[],
  naming: NamingId,
): string[] {
  const notes = counted(shared, 'shared note', 'shared notes');
  const sentences = [
    t`${notes}: ${howTogether(apartMs)}, ${Math.round(apartMs)} ms from one clap to the
      other on average.`,
  ];
  if (worst.apartMs > TOGETHER)
    sentences.push(t`Furthest apart in ${placeText(worst, naming)}: ${Math.round(worst.apartMs)} ms.`);
  if (leads) sentences.push(t`${who[leads.part]} comes first, by ${Math.round(leads.byMs)} ms.`);
  return sentences;
}

/** Where nothing can be said: they share no note, or none that both clapped. */
export const NOTHING_SHARED = perLanguage(() => t`No note that both have was clapped by both: nothing to compare.`);
