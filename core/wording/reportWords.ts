import { listed } from './plurals.ts';
import { perLanguage, t } from '../words/say.ts';
import { type Scale, USUAL_SCALE, isTooLow } from '../judging/scale.ts';
import type { KnownElement } from '../records/mastery.ts';
import { ELEMENTS, ELEMENT_IDS, type ElementId } from '../rhythm/elements.ts';
import { type NamingId, inNaming } from './valueNames.ts';

/** What a report is made of. */
export interface Reported {
  readonly name: string;
  readonly mastery: readonly KnownElement[];
  /** Marks of the takes, newest first. */
  readonly marks: readonly number[];
  /** That they are of; 0 to 4 where nothing is said. */
  readonly scale?: Scale;
}

const COMPARED = 5;

const times = (count: number) => (count === 1 ? t`once` : count === 2 ? t`twice` : t`${count} times`);

/**
 * What a child can do and what comes next, in sentences for those at home: nothing in them needs to be explained,
 * nobody is compared, and none says what another denies.
 * @example reportSentences({ name: 'Ada', mastery: [], marks: [] }, 'quarters')  // ["Ada has not been heard yet."]
 */
export function reportSentences({ name, mastery, marks, scale = USUAL_SCALE }: Reported, naming: NamingId): string[] {
  if (marks.length === 0) return [t`${name} has not been heard yet.`];
  const inState = (...states: KnownElement['state'][]) =>
    mastery.filter(({ state }) => states.includes(state)).map(({ element }) => titleOf(element, naming));
  const [firm, growing, shaky, fresh] = [inState('firm', 'due'), inState('growing'), inState('shaky'), inState('new')];
  const [good, all] = [goodOf(marks.slice(0, COMPARED), scale), Math.min(COMPARED, marks.length)];
  // What is hard in the newest rhythms is said by its name, or is known: the marks alone would deny it.
  const isDenied = (good === 0 && firm.length > 0) || (good === all && shaky.length > 0);
  return [
    t`${name} has clapped a written rhythm ${times(marks.length)} and was listened to.`,
    ...(isDenied ? [] : progress(name, marks, scale)),
    ...(firm.length > 0 ? [t`${name} reads and claps these with certainty: ${listed(firm)}.`] : []),
    ...(growing.length > 0 ? [t`This is coming along well: ${listed(growing)}.`] : []),
    ...(fresh.length > 0 ? [t`Only just begun: ${listed(fresh)}.`] : []),
    ...next(name, mastery, shaky, naming),
  ];
}

/** What to do now: what is unsure first, else the next thing in the usual order. */
function next(name: string, mastery: readonly KnownElement[], shaky: readonly string[], naming: NamingId): string[] {
  if (shaky.length > 0)
    return [
      t`What comes next for ${name} is to practise this: ${listed(shaky)}.`,
      t`At home, counting aloud and clapping slowly for a few minutes helps more than going fast.`,
    ];
  if (mastery.some(({ state }) => state === 'growing' || state === 'new')) return [];
  const element = ELEMENT_IDS.find((id) => !mastery.some((one) => one.element === id));
  return mastery.length > 0 && element ? [t`What comes next for ${name}: ${titleOf(element, naming)}.`] : [];
}

/** With how many a child can go on. */
const goodOf = (marks: readonly number[], scale: Scale) => marks.filter((mark) => !isTooLow(mark, scale)).length;

const NUMBERS = perLanguage(() => [t`none`, t`one`, t`two`, t`three`, t`four`, t`all five`]);

/** How the newest takes stand beside the first ones; nothing of that where there are too few of them. */
function progress(name: string, marks: readonly number[], scale: Scale): string[] {
  const good = (some: readonly number[]) => goodOf(some, scale);
  if (marks.length < COMPARED) {
    const right = good(marks);
    if (right === 0) return [t`It was not right yet.`];
    const how = right === marks.length ? t`Each time` : right === 1 ? t`Once` : t`${right} times`;
    return [t`${how} it was right or nearly so.`];
  }
  const [last, first] = [good(marks.slice(0, COMPARED)), good(marks.slice(-COMPARED))];
  const now =
    last === 1 || last === 0
      ? t`Of the newest five, ${NUMBERS()[last]} was right or nearly so`
      : t`Of the newest five, ${NUMBERS()[last]} were right or nearly so`;
  if (marks.length < 2 * COMPARED) return [`${now}.`];
  if (last > first) return [t`${now}; of the first five ${NUMBERS()[first]}. ${name} has come on.`];
  return [`${now}${last === first ? t`, as at the beginning` : ''}.`];
}

function titleOf(element: ElementId, naming: NamingId): string {
  return inNaming(ELEMENTS()[element].title, naming);
}
