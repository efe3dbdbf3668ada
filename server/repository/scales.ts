import { type SQL, sql } from 'drizzle-orm';
import { type Scale, USUAL_SCALE, highestOf, isSameScale } from '../../core/judging/scale.ts';
import type { Database } from '../database.ts';
import { childPatterns, children, lineUpTurns, lineUps, takes } from '../schema.ts';

/** What of a class or child is carried from one scale into another. */
interface Carrying {
  readonly from: string;
  readonly to: string;
  /** The nearest step to one of the old scale. */
  readonly near: (mark: SQL) => SQL;
}

function carrying(from: Scale | null, to: Scale | null): Carrying | undefined {
  const [old, now] = [from ?? USUAL_SCALE, to ?? USUAL_SCALE];
  if (isSameScale(old, now)) return undefined;
  return {
    from: JSON.stringify(old),
    to: JSON.stringify(now),
    near: (mark) => sql`round(${mark} / ${highestOf(old)} * ${highestOf(now)})`,
  };
}

const scaleGiven = sql`json_compact(json_extract(given_mark, '$.scale'))`;

/** What a teacher gave stays known: brought back into its own scale it is what it was. */
async function carryGiven(db: Database, { from, to, near }: Carrying, where: SQL): Promise<void> {
  const change = (set: SQL, which: SQL) =>
    db.execute(sql`update ${takes} set ${set} where override_mark is not null and ${which} and ${where}`);
  const given = sql`json_object('mark', override_mark, 'scale', json_compact(${from}))`;
  await change(sql`given_mark = ${given}, override_mark = ${near(sql`override_mark`)}`, sql`given_mark is null`);
  await change(sql`override_mark = json_value(given_mark, '$.mark'), given_mark = null`, sql`${scaleGiven} = ${to}`);
  await change(sql`override_mark = ${near(sql`override_mark`)}`, sql`${scaleGiven} not in (${from}, ${to})`);
}

/**
 * A class has another scale: marks by hand go to the nearest step, and what was given stays known. The others do so
 * too until they are worked out anew, so that nobody reads them in the wrong scale meanwhile. Columns keep their scale.
 */
export async function carryMarks(
  db: Database,
  classId: string,
  from: Scale | null | undefined,
  to: Scale | null | undefined,
): Promise<void> {
  const how = carrying(from ?? null, to ?? null);
  if (!how) return;
  const { near } = how;
  await carryGiven(db, how, sql`class_id = ${classId}`);
  await db.execute(sql`update ${takes} set mark = ${near(sql`mark`)} where class_id = ${classId}`);
  await db.execute(sql`
    update ${childPatterns} p join ${children} c on c.id = p.child_id
    set p.best = ${near(sql`p.best`)}, p.last_mark = ${near(sql`p.last_mark`)}, p.mark_sum = ${near(sql`p.mark_sum`)}
    where c.class_id = ${classId}`);
  await db.execute(sql`
    update ${lineUpTurns} t join ${lineUps} l on l.id = t.line_up_id
    set t.mark = ${near(sql`t.mark`)},
      t.clash = if(json_value(t.clash, '$.mark') is null, t.clash,
        json_set(t.clash, '$.mark', cast(${near(sql`json_value(t.clash, '$.mark')`)} as integer)))
    where l.class_id = ${classId}`);
}

/** A child goes on in a class with another scale: what it has keeps what it was given beside the nearest step. */
export async function carryTakes(db: Database, childId: string, from: Scale | null, to: Scale | null): Promise<void> {
  const how = carrying(from, to);
  if (!how) return;
  const own = sql`child_id = ${childId}`;
  await db.execute(sql`
    update ${takes} set given_mark = json_object('mark', mark, 'scale', json_compact(${how.from}))
    where override_mark is null and given_mark is null and ${own}`);
  await carryGiven(db, how, own);
  await db.execute(sql`update ${takes} set mark = ${how.near(sql`mark`)} where ${own}`);
}
