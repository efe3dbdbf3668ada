import { t } from '../../core/words/say.ts';
import type { LineUp, NewLineUp, TurnEdit } from '../../contract/lineUp.ts';
import { USUAL_SCALE, carried, highestOf } from '../../core/judging/scale.ts';
import { type StandingTurn, afterSaying, markByHand } from '../../core/records/turns.ts';
import { type Database, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import { binRow } from '../repository/binnedRows.ts';
import { listChildren } from '../repository/children.ts';
import { holdClass, touchClass } from '../repository/classes.ts';
import { addLineUp, findLineUp, holdTurn, classOfLineUp, listLineUps, writeTurn } from '../repository/lineUps.ts';
import { patternsInClass } from '../repository/patterns.ts';
import { findPaperColumn, writePaperColumn } from '../repository/paper.ts';
import { overrideMark } from '../repository/takes.ts';
import { childOf } from './children.ts';
import { classOf } from './classes.ts';
import { checkMark } from './classSettings.ts';

/** What is older is in the marks. */
const MOST_SHOWN = 30;

export async function lineUpsOf(db: Database, teacherId: string, classId: string): Promise<LineUp[]> {
  await classOf(db, teacherId, classId, 'look');
  const rows = await listLineUps(db, classId, MOST_SHOWN);
  const heard = (lineUp: (typeof rows)[number]) => new Set(lineUp.turns.map(({ patternId }) => patternId));
  const patterns = await patternsInClass(db, classId, [...new Set(rows.flatMap((row) => [...heard(row)]))]);
  return rows.map((row) => ({ ...row, patterns: patterns.filter(({ id }) => heard(row).has(id)) }));
}

async function lineUpOf(db: Database, teacherId: string, classId: string, lineUpId: string) {
  await classOf(db, teacherId, classId, 'hear');
  const found = await findLineUp(db, classId, lineUpId);
  if (!found) throw notFound('line-up');
  return found;
}

/** Sent twice it is made once. */
export async function startLineUp(
  db: Database,
  teacherId: string,
  classId: string,
  lineUpId: string,
  values: NewLineUp,
): Promise<'made' | 'changed'> {
  return transacted(db, async (inside) => {
    await holdClass(inside, classId);
    await classOf(inside, teacherId, classId, 'hear');
    if (await findLineUp(inside, classId, lineUpId)) return 'changed';
    // Marks by hand stand in a column of the same id: one of another class is taken too.
    const column = await findPaperColumn(inside, lineUpId);
    if ((await classOfLineUp(inside, lineUpId)) || (column && column.classId !== classId)) throw notFound('line-up');
    const known = new Set((await listChildren(inside, classId)).map(({ id }) => id));
    const seen = new Set<string>();
    for (const { childId } of values.turns) {
      if (!known.has(childId)) throw notFound('child');
      if (seen.has(childId)) throw new Problem(422, 'bad-request', t`turns: a child stands in line twice.`);
      seen.add(childId);
    }
    await addLineUp(inside, classId, lineUpId, values);
    return 'made';
  });
}

const WAITING: StandingTurn = { state: 'waiting', mark: null, takeId: null, clash: null };

/**
 * A mark by hand stands in a column of the grid too, which has the name of the line-up; where a take was heard it is
 * the teacher's mark of it.
 */
export async function setTurn(
  db: Database,
  teacherId: string,
  classId: string,
  lineUpId: string,
  childId: string,
  { patternId, slower, mark = null, ...saying }: TurnEdit,
): Promise<void> {
  await transacted(db, async (inside) => {
    await holdClass(inside, classId);
    const { settings, title, startedAt } = await lineUpOf(inside, teacherId, classId, lineUpId);
    await childOf(inside, teacherId, classId, childId, 'hear');
    const { scale } = await classOf(inside, teacherId, classId, 'hear');
    checkMark(mark, scale);
    const now = (await holdTurn(inside, lineUpId, childId)) ?? WAITING;
    const turn = afterSaying(now, { ...saying, mark });
    await writeTurn(inside, lineUpId, childId, { ...turn, slower }, patternId ?? settings.patternIds[0]!);
    const [had, has] = [markByHand(now), markByHand(turn)];
    if (turn.takeId !== null && turn.mark !== now.mark)
      await overrideMark(inside, { id: turn.takeId, childId, classId }, turn.mark, '');
    else if (had === has) await touchClass(inside, classId);
    else {
      // A column that was begun in another scale goes on in that one.
      const begun = await findPaperColumn(inside, lineUpId);
      const own = (begun ? begun.scale : scale) ?? USUAL_SCALE;
      const points = { [childId]: has === null ? null : carried(has, scale ?? USUAL_SCALE, own) };
      const column = { title, outOf: highestOf(own), scale: typeof own === 'string' ? own : [...own], points };
      await writePaperColumn(inside, classId, lineUpId, { ...column, takenAt: startedAt });
    }
  });
}

export async function dropLineUp(db: Database, teacherId: string, classId: string, lineUpId: string): Promise<void> {
  await transacted(db, async (inside) => {
    const { title } = await lineUpOf(inside, teacherId, classId, lineUpId);
    await binRow(inside, 'line-up', classId, lineUpId, title, Date.now());
  });
}
