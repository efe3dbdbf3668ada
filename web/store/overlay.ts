import type { LineUp } from '../../contract/lineUp.ts';
import type { ClassRecords } from '../../contract/records.ts';
import type { TakeUpload } from '../../contract/take.ts';
import type { Change } from './changes.ts';
import { type Place, thingAt } from './places.ts';

/** A take that the server does not have yet, as far as lists show it. */
export interface UnsentTake {
  readonly id: string;
  readonly upload: Pick<TakeUpload, 'childId' | 'patternId' | 'lineUpId' | 'title' | 'takenAt'>;
  readonly stored?: true;
  /** As this device judged it, and in which class; takes of an older page have neither. */
  readonly mark?: number;
  readonly classId?: string;
}

const NO_RECORDS: ClassRecords = { children: [], patterns: [], marks: [], elements: [], paper: [] };

/** What the server will say of a class that it does not know yet. */
function ofNewClass(path: string, changes: readonly Change[]): unknown {
  const [, id, part] = /^\/classes\/([0-9a-f-]{36})\/([a-z-]+)$/.exec(path) ?? [];
  const isNew = changes.some((change) => change.path === `/classes/${id}` && change.body && !change.was);
  if (part === undefined || !isNew) return undefined;
  if (part === 'term-plan') return null;
  return part === 'records' ? NO_RECORDS : [];
}

/**
 * An answer of the server with what this device knows better.
 * @param answer  undefined where there is none
 * @param changes  of this teacher, those still to be sent, in the order in which they were made
 */
export function withChanges(path: string, answer: unknown, changes: readonly Change[]): unknown {
  let now = answer === undefined ? ofNewClass(path, changes) : answer;
  for (const change of changes)
    for (const place of thingAt(change.path)?.places ?? [])
      if (place.get === path) now = written(place, now, change.body);
  return now;
}

/** What makes no sense, in a page of another version, is not shown; it is still sent. */
function written(place: Place, answer: unknown, body: Change['body']): unknown {
  try {
    return place.write(answer, body);
  } catch {
    return answer;
  }
}

/** Line-ups and the grid of a class with takes that are on their way. */
export function withTakes(path: string, answer: unknown, takes: readonly UnsentTake[]): unknown {
  const [, id, part] = /^\/classes\/([0-9a-f-]{36})\/(line-ups|records)$/.exec(path) ?? [];
  const own = takes.filter(({ classId, stored }) => classId === id && !stored);
  if (answer === undefined || part === undefined || own.length === 0) return answer;
  const inOrder = own.toSorted((a, b) => a.upload.takenAt - b.upload.takenAt);
  return part === 'records'
    ? inOrder.reduce(recordsWith, answer as ClassRecords)
    : (answer as LineUp[]).map((line) => inOrder.reduce(lineWith, line));
}

function lineWith(line: LineUp, { id, upload, mark }: UnsentTake): LineUp {
  if (upload.lineUpId !== line.id || mark === undefined) return line;
  const turns = line.turns.map((turn) =>
    turn.childId === upload.childId ? { ...turn, state: 'heard' as const, mark, takeId: id } : turn,
  );
  return { ...line, turns };
}

/** A pattern of which nothing is kept has no column yet: it gets one when the server has the take. */
function recordsWith(records: ClassRecords, { upload, mark }: UnsentTake): ClassRecords {
  const child = records.children.indexOf(upload.childId);
  const { patternId: key, title, takenAt } = upload;
  if (child < 0 || mark === undefined || key === null) return records;
  const known = records.patterns.findIndex((one) => one.key === key);
  const pattern = known < 0 ? records.patterns.length : known;
  const column = { key, title, lastAt: takenAt };
  const patterns = known < 0 ? [...records.patterns, column] : records.patterns.with(known, column);
  const isThis = (one: ClassRecords['marks'][number]) => one.child === child && one.pattern === pattern;
  const before = records.marks.find(isThis) ?? { child, pattern, takes: 0, best: 0, last: 0, average: 0 };
  const takes = before.takes + 1;
  const now = {
    ...before,
    takes,
    best: Math.max(before.best, mark),
    last: mark,
    average: Math.round(((before.average * before.takes + mark) / takes) * 100) / 100,
  };
  return { ...records, patterns, marks: [...records.marks.filter((one) => !isThis(one)), now] };
}
