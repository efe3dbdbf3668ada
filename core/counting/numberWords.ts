import { perLanguage, t } from '../words/say.ts';

/** The numbers as they are said, from one to sixteen. */
export const numberWords = perLanguage((): readonly string[] => [
  t`one`,
  t`two`,
  t`three`,
  t`four`,
  t`five`,
  t`six`,
  t`seven`,
  t`eight`,
  t`nine`,
  t`ten`,
  t`eleven`,
  t`twelve`,
  t`thirteen`,
  t`fourteen`,
  t`fifteen`,
  t`sixteen`,
]);
