import { perLanguage, t } from '../../../core/words/say.ts';
import { freeName, namedAlone, withRests } from '../../../core/making/editParts.ts';
import {
  type Joined,
  SPLITS,
  type Split,
  canonOf,
  missingPart,
  splitPattern,
  withBeat,
  withOstinato,
  withPart,
} from '../../../core/making/partsOf.ts';
import { type SecondWanted, type SecondWay, secondPart } from '../../../core/making/secondPart.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { type Score, leadingPart } from '../../../core/rhythm/score.ts';

/** What one hand, or one sound, is called first; groups of a class have letters. */
const SOUNDS = ['clap', 'stamp', 'pat', 'snap'] as const;
const GROUPS = ['A', 'B', 'C', 'D'] as const;

/** Ways to share one rhythm out between two, as they are offered. */
export const SPLIT_NAMES = perLanguage((): Readonly<Record<Split, string>> => ({
  measures: t`Measure by measure`,
  phrases: t`Question and answer`,
  'beat-and-off': t`On the beat and off it`,
  'in-turn': t`Note by note`,
}));
export const SPLIT_WAYS = perLanguage(() => SPLITS.map((split) => [split, SPLIT_NAMES()[split]] as const));

/** A score that parts can be added to, and the name of the next. */
function ready(score: Score) {
  const named = namedAlone(score, SOUNDS[0]);
  return { named, name: freeName(named, SOUNDS) };
}

/** One rhythm for two groups. */
export function splitWay(score: Score, split: Split): Joined {
  return { ok: true, score: splitPattern(leadingPart(score).pattern, split, [GROUPS[0], GROUPS[1]]) };
}

/** What one press adds below. */
export const ADDED = perLanguage(
  () =>
    ({
      beat: t`The beat below`,
      missing: t`A clap on every free beat`,
      rests: t`An empty part`,
    }) as const,
);
export type AddedWay = keyof ReturnType<typeof ADDED>;

export function addWay(score: Score, way: AddedWay): Joined {
  const { named, name } = ready(score);
  if (way === 'beat') return withBeat(named, name);
  if (way === 'rests') return withRests(named, name);
  return withPart(named, name, missingPart(leadingPart(named).pattern));
}

/** Another rhythm beside it: where it has fewer measures that divide the others, it comes again to the end. */
export function joinWay(score: Score, other: Pattern): Joined {
  const { named, name } = ready(score);
  const joined = withPart(named, name, other);
  if (joined.ok || joined.trouble.code !== 'measures') return joined;
  const again = withOstinato(named, name, other);
  return again.ok ? again : joined;
}

export const SECOND_NAMES = perLanguage((): Readonly<Record<SecondWay, string>> => ({
  fills: t`claps where it does not`,
  meets: t`meets it at some notes`,
  follows: t`has it a measure later`,
}));

/** A part that is made for it. */
export function secondWay(score: Score, wanted: SecondWanted, seed: number): Joined {
  const { named, name } = ready(score);
  const made = secondPart(leadingPart(named).pattern, wanted, seed);
  return made ? withPart(named, name, made) : { ok: false, trouble: { code: 'not-made' } };
}

/** The rhythm against itself. @param beats  counted beats from one voice to the next */
export function canonWay(score: Score, voices: number, beats: number): Joined {
  return canonOf(leadingPart(score).pattern, GROUPS.slice(0, voices), beats);
}
