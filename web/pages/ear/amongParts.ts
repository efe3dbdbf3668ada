import type { Pattern } from '../../../core/rhythm/pattern.ts';
import type { Part } from '../../../core/rhythm/score.ts';
import { partSound } from '../../../core/sound/partSounds.ts';
import type { HearHow } from '../../audio/useHear.ts';
import type { ReadPattern } from './earSettings.ts';

type Among = NonNullable<ReadPattern['among']>;

/** What a ruler shows of a candidate for one of several parts: it, among the others as they are. */
export function shownAmong(
  candidate: Pattern,
  among: Among | undefined,
): { readonly pattern: Pattern; readonly parts?: readonly Part[] } {
  if (!among) return { pattern: candidate };
  const parts = among.parts.map((part, i) => (i === among.index ? { name: part.name, pattern: candidate } : part));
  return { pattern: parts[0]!.pattern, parts };
}

/** How the parts are heard, each with its own sound. */
export function soundsAmong({ parts, index }: Among): NonNullable<HearHow['beside']> {
  const sounds = parts.map(({ name, pattern }, i) => ({ pattern, struck: partSound(name, i).struck }));
  return { own: sounds[index]!.struck, others: sounds.filter((_, i) => i !== index) };
}
