import { perLanguage, t } from '../words/say.ts';
import type { Question, RuledOut } from '../exercises/question.ts';
import type { ChangeId } from '../exercises/rhythms/changes.ts';
import { mixed } from '../rhythm/fraction.ts';
import { measureText } from './places.ts';
import { type NamingId, capital, inNaming } from './valueNames.ts';

export const OPTION_LETTERS = ['A', 'B', 'C', 'D'] as const;

const NUMBERS = perLanguage(() => [t`none`, t`one`, t`two`, t`three`, t`four`, t`five`, t`six`, t`seven`, t`eight`]);
const number = (n: number) => NUMBERS()[n] ?? String(n);

const claps = (n: number) => (n === 0 ? t`no claps` : n === 1 ? t`one clap` : t`${number(n)} claps`);

/**
 * Why a candidate is not what was heard, in claps: "beat 2: two claps, C has one". Where as many are in another place
 * it says where.
 * @param several  there is more than one measure: which one is said too
 */
export function ruledOutText(out: RuledOut, naming: NamingId, several: boolean): string {
  const letter = OPTION_LETTERS[out.option]!;
  const place = several ? t`${measureText(out, naming)}, beat ${out.beat}` : t`beat ${out.beat}`;
  if (!out.heardAt || !out.writtenAt)
    return t`${place}: ${claps(out.claps)}, ${letter} has
      ${out.hasClaps === 0 ? t`none` : number(out.hasClaps)}`;
  const also = out.claps === 1 ? t`${letter} has one too` : t`${letter} has as many`;
  return t`${place}: ${claps(out.claps)}, ${also}, but in another place: at
      ${mixed(out.writtenAt)} instead of ${mixed(out.heardAt)}`;
}

/** The same for a question: whether it has several measures is seen from what it shows. */
export function ruledOutIn({ shows }: Pick<Question, 'shows'>, out: RuledOut, naming: NamingId): string {
  return ruledOutText(out, naming, shows.includes('|'));
}

/** What was changed in a look-alike, for `inNaming`. */
const CHANGE_WORDS = perLanguage((): Readonly<Record<ChangeId, string>> => ({
  'rest-clapped': t`A rest is clapped.`,
  'dot-too-short': t`The dotted note is evened out.`,
  'tie-restruck': t`The tied-on note is clapped again.`,
  'hold-pulsed': t`A held note is clapped on its further beats.`,
  'upbeat-on-beat': t`What comes after the beat is clapped on it.`,
  'eighths-uneven': t`Two even notes are long and short.`,
  'sixteenths-slow': t`{s+} are clapped as {e+}.`,
  'syncopation-straightened': t`The syncopation is straightened.`,
  'rest-skipped': t`A rest is left out, and what follows comes early.`,
  'note-silent': t`A note is a rest.`,
  split: t`A note is split.`,
  joined: t`Two notes are joined.`,
  'dot-moved': t`The dot stands with the other note.`,
  dotted: t`Two even notes are dotted.`,
  syncopated: t`A note is moved between the beats.`,
  'eighths-fast': t`{e+} are clapped as {s+}.`,
  'sixteenths-turned': t`The fast notes are in the other half of the beat.`,
  'rest-moved': t`Note and rest have changed places.`,
  'triplet-even': t`The triplet is two even notes.`,
  'triplet-made': t`Two even notes are a triplet.`,
  'three-turned': t`Long and short in a beat have changed places.`,
  'tie-added': t`A note is tied on and not clapped.`,
  'beats-swapped': t`Two beats have changed places.`,
  'measures-swapped': t`Two {measure+} have changed places.`,
}));

export function changeText(id: ChangeId, naming: NamingId): string {
  return capital(inNaming(CHANGE_WORDS()[id], naming));
}
