import { t } from '../../core/words/say.ts';
import type { ClassSettings } from '../../contract/schoolClass.ts';
import { checkHouseWords } from '../../core/counting/houseWords.ts';
import { COUNTING_SYSTEMS, type CountingSystemId } from '../../core/counting/countingSystems.ts';
import { checkWordSet } from '../../core/counting/wordSet.ts';
import { bordersTrouble } from '../../core/judging/mark.ts';
import { type Scale, USUAL_SCALE, highestOf, scaleTitle, scaleTrouble } from '../../core/judging/scale.ts';
import { Problem } from '../problem.ts';

/** House words and word sets that cannot work are refused, with the place they are about. */
export function checkClassSettings({ houseWords = {}, wordSet, borders, scale }: ClassSettings): void {
  const badScale = scale ? scaleTrouble(scale) : undefined;
  if (badScale) throw new Problem(422, 'scale', t`This scale cannot work: ${badScale}.`, { field: 'scale' });
  const trouble = borders ? bordersTrouble(borders, scale ?? undefined) : undefined;
  if (trouble) throw new Problem(422, 'borders', t`These borders cannot work: ${trouble}.`, { field: 'borders' });
  for (const [id, own] of Object.entries(houseWords)) {
    if (!Object.hasOwn(COUNTING_SYSTEMS(), id))
      throw new Problem(422, 'house-words', t`There is no way of counting called “${id}”.`, { field: 'houseWords' });
    const [wrong] = checkHouseWords(COUNTING_SYSTEMS()[id as CountingSystemId], own).refused;
    if (wrong)
      throw new Problem(422, 'house-words', t`The word for “${wrong.key}” cannot work: ${wrong.reason}.`, {
        field: `houseWords.${id}.${wrong.key}`,
      });
  }
  const [wrong] = wordSet ? checkWordSet(wordSet) : [];
  if (wrong)
    throw new Problem(422, 'word-set', t`The word for “${wrong.cell}” cannot work: ${wrong.reason}.`, {
      field: 'wordSet',
    });
}

/** A mark by hand is one of the class's scale. */
export function checkMark(mark: number | null, scale: Scale | null): void {
  const own = scale ?? USUAL_SCALE;
  if (mark !== null && mark > highestOf(own))
    throw new Problem(422, 'bad-request', t`mark: there is no such step in ${scaleTitle(own)}.`, { field: 'mark' });
}
