import type { ClassSettings } from '../../contract/schoolClass.ts';
import { checkHouseWords } from '../../core/counting/houseWords.ts';
import { SCHOOLS, type SchoolId } from '../../core/counting/schools.ts';
import { checkWordSet } from '../../core/counting/wordSet.ts';
import { bordersTrouble } from '../../core/judging/mark.ts';
import { Problem } from '../problem.ts';

/** House words and word sets that cannot work are refused, with the place they are about. */
export function checkClassSettings({ houseWords = {}, wordSet, borders }: ClassSettings): void {
  const trouble = borders ? bordersTrouble(borders) : undefined;
  if (trouble) throw new Problem(422, 'borders', `These borders cannot work: ${trouble}.`, { field: 'borders' });
  for (const [id, own] of Object.entries(houseWords)) {
    if (!Object.hasOwn(SCHOOLS, id))
      throw new Problem(422, 'house-words', `There is no way of counting called “${id}”.`, { field: 'houseWords' });
    const [wrong] = checkHouseWords(SCHOOLS[id as SchoolId], own).refused;
    if (wrong)
      throw new Problem(422, 'house-words', `The word for “${wrong.key}” cannot work: ${wrong.reason}.`, {
        field: `houseWords.${id}.${wrong.key}`,
      });
  }
  const [wrong] = wordSet ? checkWordSet(wordSet) : [];
  if (wrong)
    throw new Problem(422, 'word-set', `The word for “${wrong.cell}” cannot work: ${wrong.reason}.`, {
      field: 'wordSet',
    });
}
