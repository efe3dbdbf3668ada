import { equal } from '../rhythm/fraction.ts';
import type { PlayedPlace } from '../timing/schedule.ts';
import type { MisreadingCode } from './misreadings/table.ts';
import type { JudgedNote, Misreading, TakeResult } from './takeResult.ts';

/** How a class had one note of a pattern. */
export interface ClassNote extends PlayedPlace {
  readonly index: number;
  /** Children who had it on time, too early, too late, and not at all. */
  readonly onTime: number;
  readonly early: number;
  readonly late: number;
  readonly missed: number;
}

/** What several children did in the same place. */
export interface ClassMisreading {
  readonly code: MisreadingCode;
  readonly children: number;
  /** As one of them did it. */
  readonly example: Misreading;
  /** The take it is of, among those that were given. */
  readonly of: number;
}

/** What a class did with one pattern, nobody by name. */
export interface ClassPicture {
  readonly takes: number;
  /** Children who had every note on time, and nothing beside. */
  readonly allRight: number;
  readonly notes: readonly ClassNote[];
  /** The note that fewest had on time; undefined where all had all. */
  readonly hardest: ClassNote | undefined;
  /** The misreading that most made in one place; undefined where nobody made any. */
  readonly commonest: ClassMisreading | undefined;
}

type Judged = Pick<TakeResult, 'notes' | 'extras' | 'misreadings'>;

const VERDICT_COUNT = { 'on-time': 'onTime', early: 'early', late: 'late', missed: 'missed' } as const;

/**
 * The picture of a class from takes of one pattern, one a child.
 * @param results  all of the same pattern
 * @example classPicture(results).hardest // the note of measure 2, beat 3: 4 of 26 had it on time
 */
export function classPicture(results: readonly Judged[]): ClassPicture {
  const notes = (results[0]?.notes ?? []).map((note, i) => classNote(note, results, i));
  const wrong = notes.filter(({ onTime }) => onTime < results.length);
  const hardest = wrong.reduce<ClassNote | undefined>((a, b) => (a && a.onTime <= b.onTime ? a : b), undefined);
  const allRight = results.filter(
    (one) => one.extras.length === 0 && one.notes.every(({ verdict }) => verdict === 'on-time'),
  ).length;
  return { takes: results.length, allRight, notes, hardest, commonest: commonestIn(results) };
}

function classNote({ index, played, measure, timeThrough, beat }: JudgedNote, results: readonly Judged[], i: number) {
  const counts = { onTime: 0, early: 0, late: 0, missed: 0 };
  for (const { notes } of results) counts[VERDICT_COUNT[notes[i]?.verdict ?? 'missed']]++;
  const place = { played, measure, beat, ...(timeThrough === undefined ? {} : { timeThrough }) };
  return { index, ...place, ...counts };
}

function commonestIn(results: readonly Judged[]): ClassMisreading | undefined {
  const kinds: { example: Misreading; of: number; children: number }[] = [];
  results.forEach(({ misreadings }, of) => {
    const own = new Set<(typeof kinds)[number]>();
    for (const example of misreadings) {
      // What the claps alone cannot tell from another is one mistake of the child, told twice.
      if (example.instead) continue;
      const known = kinds.find((kind) => sameMistake(kind.example, example));
      const kind = known ?? { example, of, children: 0 };
      if (!known) kinds.push(kind);
      own.add(kind);
    }
    for (const kind of own) kind.children++;
  });
  const most = kinds.reduce<(typeof kinds)[number] | undefined>(
    (a, b) => (a && a.children >= b.children ? a : b),
    undefined,
  );
  return most && { code: most.example.code, ...most };
}

/** Where it begins tells two mistakes apart; how far it went does not. */
function sameMistake(a: Misreading, b: Misreading): boolean {
  return a.code === b.code && a.event === b.event && a.played === b.played && equal(a.beat, b.beat);
}
