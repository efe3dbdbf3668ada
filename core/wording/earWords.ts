import type { Question, RuledOut } from '../exercises/question.ts';
import type { ChangeId } from '../exercises/rhythms/changes.ts';
import { mixed } from '../rhythm/fraction.ts';
import { measureText } from './places.ts';
import { type NamingId, capital, inNaming } from './valueNames.ts';

export const OPTION_LETTERS = ['A', 'B', 'C', 'D'] as const;

const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight'] as const;
const number = (n: number) => NUMBERS[n] ?? String(n);

const claps = (n: number) => `${number(n)} ${n === 1 ? 'clap' : 'claps'}`;

/**
 * Why a candidate is not what was heard, in claps: "beat 2: two claps, C has one". Where as many are in another place
 * it says where.
 * @param several  there is more than one measure: which one is said too
 */
export function ruledOutText(out: RuledOut, naming: NamingId, several: boolean): string {
  const letter = OPTION_LETTERS[out.option]!;
  const place = `${several ? `${measureText(out, naming)}, ` : ''}beat ${out.beat}`;
  if (!out.heardAt || !out.writtenAt)
    return `${place}: ${claps(out.claps)}, ${letter} has ${out.hasClaps === 0 ? 'none' : number(out.hasClaps)}`;
  const also = out.claps === 1 ? `${letter} has one too` : `${letter} has as many`;
  return (
    `${place}: ${claps(out.claps)}, ${also}, but in another place: ` +
    `at ${mixed(out.writtenAt)} instead of ${mixed(out.heardAt)}`
  );
}

/** The same for a question: whether it has several measures is seen from what it shows. */
export function ruledOutIn({ shows }: Pick<Question, 'shows'>, out: RuledOut, naming: NamingId): string {
  return ruledOutText(out, naming, shows.includes('|'));
}

/** What was changed in a look-alike, for `inNaming`. */
const CHANGE_WORDS: Readonly<Record<ChangeId, string>> = {
  'rest-clapped': 'A rest is clapped.',
  'dot-too-short': 'The dotted note is evened out.',
  'tie-restruck': 'The tied-on note is clapped again.',
  'hold-pulsed': 'A held note is clapped on its further beats.',
  'upbeat-on-beat': 'What comes after the beat is clapped on it.',
  'eighths-uneven': 'Two even notes are long and short.',
  'sixteenths-slow': '{s+} are clapped as {e+}.',
  'syncopation-straightened': 'The syncopation is straightened.',
  'rest-skipped': 'A rest is left out, and what follows comes early.',
  'note-silent': 'A note is a rest.',
  split: 'A note is split.',
  joined: 'Two notes are joined.',
  'dot-moved': 'The dot stands with the other note.',
  dotted: 'Two even notes are dotted.',
  syncopated: 'A note is moved between the beats.',
  'eighths-fast': '{e+} are clapped as {s+}.',
  'sixteenths-turned': 'The fast notes are in the other half of the beat.',
  'rest-moved': 'Note and rest have changed places.',
  'triplet-even': 'The triplet is two even notes.',
  'triplet-made': 'Two even notes are a triplet.',
  'three-turned': 'Long and short in a beat have changed places.',
  'tie-added': 'A note is tied on and not clapped.',
  'beats-swapped': 'Two beats have changed places.',
  'measures-swapped': 'Two {measure+} have changed places.',
};

export function changeText(id: ChangeId, naming: NamingId): string {
  return capital(inNaming(CHANGE_WORDS[id], naming));
}
