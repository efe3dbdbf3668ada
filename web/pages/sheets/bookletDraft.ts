import { t } from '../../../core/words/say.ts';
import { parseISO } from 'date-fns';
import { format } from '../../words/dates.ts';
import type { SavedLesson } from '../../../contract/lesson.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import type { SavedSheet } from '../../../contract/sheet.ts';
import type { TermPlanEdit } from '../../../contract/termPlan.ts';
import { LEVELS, type Level } from '../../../core/making/level.ts';
import type { Day } from '../../../core/planning/days.ts';
import { lessonSlots, standsIn } from '../../../core/planning/slots.ts';
import { type PlannedLesson, planTerm } from '../../../core/planning/term.ts';
import {
  BOOKLET_KINDS,
  type BookletKind,
  elementsOf,
  lessonSeed,
  lessonSheet,
} from '../../../core/sheets/lessonSheet.ts';
import { LONGEST_TITLE, PAPERS, type PaperId, type Sheet, USUAL_BPM } from '../../../core/sheets/sheet.ts';
import { elementName } from '../../../core/wording/planWords.ts';
import { listed } from '../../../core/wording/plurals.ts';
import { type NamingId, capital } from '../../../core/wording/valueNames.ts';
import { storedThing } from '../../store/stored.ts';
import { drawnSheet } from './sheetDraft.ts';

/** What stands in the booklet for a lesson: a sheet made for it, none, or a kept one by its id. */
export type LessonChoice = 'made' | 'none' | (string & {});

/** What was chosen for the booklet of a class. */
export interface BookletChoice {
  readonly kinds: readonly BookletKind[];
  readonly level: Level;
  readonly paper: PaperId;
  readonly large: boolean;
  /** Other questions, as often as they were asked for. */
  readonly variant: number;
  /** By lesson; one that is not here is made, or left out where it is over. */
  readonly lessons: Readonly<Record<string, LessonChoice>>;
}

const USUAL: BookletChoice = {
  kinds: ['counts', 'complete', 'true-false'],
  level: 2,
  paper: 'a4',
  large: false,
  variant: 0,
  lessons: {},
};

function choiceFrom(kept: unknown): BookletChoice {
  const { kinds, level, paper, large, variant, lessons } = (kept ?? {}) as Partial<BookletChoice>;
  const known = Array.isArray(kinds) ? BOOKLET_KINDS.filter((kind) => kinds.includes(kind)) : [];
  return {
    kinds: known.length > 0 ? known : USUAL.kinds,
    level: LEVELS.find((one) => one === level) ?? USUAL.level,
    paper: PAPERS.find((one) => one === paper) ?? USUAL.paper,
    large: large === true,
    variant: Number.isInteger(variant) ? variant! : USUAL.variant,
    lessons: typeof lessons === 'object' && lessons !== null ? lessons : {},
  };
}

type Kept = Readonly<Record<string, unknown>>;

/** By class, as this device remembers it. */
const KEPT = storedThing<Kept>('sheets.booklets', (kept) => (typeof kept === 'object' && kept ? (kept as Kept) : {}));

export function useBookletChoice(classId: string): [BookletChoice, (change: Partial<BookletChoice>) => void] {
  const [kept, write] = KEPT.use();
  const choice = choiceFrom(kept[classId]);
  return [choice, (change) => write({ ...kept, [classId]: { ...choice, ...change } })];
}

/** A lesson of the term, and what stands for it. */
export interface BookletLesson {
  readonly key: string;
  /** "Mon 14 Sep" */
  readonly when: string;
  readonly title: string;
  readonly choice: LessonChoice;
  /** Undefined where there is none. */
  readonly sheet: Sheet | undefined;
}

interface Planned {
  readonly schoolClass: Pick<ClassDetail, 'name'>;
  readonly naming: NamingId;
  readonly term: TermPlanEdit;
  readonly lessons: readonly SavedLesson[];
  readonly sheets: readonly SavedSheet[];
  /** Rhythm text by the id of a pattern. */
  readonly texts: ReadonlyMap<string, string>;
  readonly today: Day;
}

const keyOf = ({ day, starts }: PlannedLesson) => `${day} ${starts}`;

/** The lessons of a term in their order, each with its sheet. */
export function bookletLessons(planned: Planned, choice: BookletChoice): BookletLesson[] {
  const { term, lessons, sheets, texts, today, naming } = planned;
  return planTerm(lessonSlots(term), term.contents).lessons.map((slot) => {
    const key = keyOf(slot);
    const kept = lessons.find((one) => standsIn(one, slot));
    const wanted = choice.lessons[key] ?? (slot.day < today ? 'none' : 'made');
    const saved = sheets.find(({ id }) => id === wanted);
    const about = elementsOf(slot).map((element) => elementName(element, naming));
    const title = about.length > 0 ? capital(listed(about)).slice(0, LONGEST_TITLE) : t`Practice`;
    const patterns = (kept?.blocks ?? []).flatMap((block) =>
      block.patterns.flatMap(({ patternId }) => texts.get(patternId) ?? []),
    );
    const made: Sheet = {
      title,
      seed: lessonSeed(slot, choice.variant),
      paper: choice.paper,
      large: choice.large,
      versions: false,
      bpm: USUAL_BPM,
      parts: lessonSheet(slot, [...new Set(patterns)], choice),
    };
    const sheet = saved ? { ...drawnSheet(saved), paper: choice.paper } : wanted === 'none' ? undefined : made;
    const known = saved || wanted === 'none' ? wanted : 'made';
    return { key, when: format(parseISO(slot.day), 'EEE d MMM'), title, choice: known, sheet };
  });
}

/** "Class 3B · 14 Sep to 18 Dec 2026" */
export function bookletAbout({ schoolClass, term }: Pick<Planned, 'schoolClass' | 'term'>): string {
  const [from, until] = [parseISO(term.from), parseISO(term.until)];
  return t`${schoolClass.name} · ${format(from, 'd MMM')} to ${format(until, 'd MMM yyyy')}`;
}
