import { and, asc, eq, gt, gte, lt, lte } from 'drizzle-orm';
import type { ClassRecords } from '../../contract/records.ts';
import { USUAL_SCALE, carried } from '../../core/judging/scale.ts';
import type { Database } from '../database.ts';
import { classes, takes, terms } from '../schema.ts';

type Take = Pick<typeof takes.$inferSelect, 'childId' | 'classId' | 'patternKey' | 'title' | 'takenAt'>;

/** What a child's takes with one pattern came to, in a term. */
interface Heard {
  readonly childId: string;
  readonly key: string;
  readonly title: string;
  /** Of the newest, milliseconds since 1970. */
  readonly lastAt: number;
  /** Oldest first. */
  readonly marks: readonly number[];
}

/** The grid of a term that is over, with what a child came to in a pattern; as it is where the child is not in it. */
export function withHeard(records: ClassRecords, { childId, key, title, lastAt, marks }: Heard): ClassRecords {
  const child = records.children.indexOf(childId);
  if (child < 0) return records;
  const known = records.patterns.findIndex((pattern) => pattern.key === key);
  const pattern = known < 0 ? records.patterns.length : known;
  const patterns = records.patterns.map((one, i) =>
    i === known && one.lastAt < lastAt ? { ...one, title, lastAt } : one,
  );
  if (known < 0) patterns.push({ key, title, lastAt });
  const mark = {
    child,
    pattern,
    takes: marks.length,
    best: Math.max(...marks),
    last: marks.at(-1)!,
    average: Math.round((marks.reduce((sum, one) => sum + one, 0) / marks.length) * 100) / 100,
  };
  const others = records.marks.filter((one) => one.child !== child || one.pattern !== pattern);
  return { ...records, patterns, marks: [...others, mark] };
}

/** A take that was clapped in a term which was closed before it arrived goes into that term. */
export async function enterLate(db: Database, { childId, classId, patternKey, title, takenAt }: Take): Promise<void> {
  const [term] = await db
    .select({
      id: terms.id,
      fromAt: terms.fromAt,
      untilAt: terms.untilAt,
      records: terms.records,
      then: terms.scale,
      now: classes.scale,
    })
    .from(terms)
    .innerJoin(classes, eq(classes.id, terms.classId))
    .where(and(eq(terms.classId, classId), lte(terms.fromAt, takenAt), gt(terms.untilAt, takenAt)))
    .limit(1)
    .for('update');
  if (!term) return;
  const own = await db
    .select({ mark: takes.mark, override: takes.override, takenAt: takes.takenAt })
    .from(takes)
    .where(
      and(
        eq(takes.childId, childId),
        eq(takes.patternKey, patternKey),
        gte(takes.takenAt, term.fromAt),
        lt(takes.takenAt, term.untilAt),
      ),
    )
    .orderBy(asc(takes.takenAt), asc(takes.id));
  const [now, then] = [term.now ?? USUAL_SCALE, term.then ?? USUAL_SCALE];
  const marks = own.map(({ mark, override }) => carried(override ?? mark, now, then));
  const records = withHeard(term.records, { childId, key: patternKey, title, lastAt: own.at(-1)!.takenAt, marks });
  await db.update(terms).set({ records }).where(eq(terms.id, term.id));
}
