import { perLanguage, t } from '../../core/words/say.ts';
import type { Child } from '../../contract/child.ts';
import type { LineUp, NewLineUp, TurnEdit } from '../../contract/lineUp.ts';
import type { SavedPattern, ShelfEdit } from '../../contract/pattern.ts';
import type { ClassRecords } from '../../contract/records.ts';
import type { ClassDetail, ClassSummary } from '../../contract/schoolClass.ts';
import type { TakeDetail } from '../../contract/take.ts';
import { type Seen, afterSaying, seenSince } from '../../core/records/turns.ts';
import type { Waiting } from './keptTakes.ts';
import { settingsOf } from './settingsOf.ts';
import type { Body } from './changes.ts';

/** Where something that is changed stands in what the server says. */
export interface Place {
  /** The address of the answer. */
  readonly get: string;
  /** What stands there, as it is sent; undefined where there is nothing. */
  readonly read?: (answer: unknown) => Body | undefined;
  /** The answer with it: as it is to be, or without it where there is no body. The answer itself stays as it is. */
  readonly write: (answer: unknown, body: Body | undefined) => unknown;
}

/** One kind of thing that may be changed without a network. */
interface Kind {
  readonly word: string;
  readonly path: RegExp;
  /** By the parts of its address; the first is where it is read. */
  readonly places: (...parts: string[]) => readonly Place[];
  /** The server puts together what two changed. */
  readonly merges?: true;
  readonly removable?: true;
  /** It is about takes, and sent when they have arrived. */
  readonly afterTakes?: true;
  /** By the parts of its address: a take that it is about, too, if it was made before. */
  readonly isHeardIn?: (take: Pick<Waiting, 'upload' | 'stored'>, ...parts: string[]) => boolean;
  /** Changed twice: what is sent of both. Where there is none the second says all again. */
  readonly together?: (first: Body, second: Body) => Body;
}

const ID = '([0-9a-f-]{36})';
const at = (pattern: string) => new RegExp(`^${pattern.replaceAll('ID', ID)}$`);

interface Item {
  readonly id: string;
}

/** In a list, by its id; what is not sent (`beside`) stays with it. */
function inList<T extends Item>(get: string, id: string, beside: Partial<T> = {}, keeps: (keyof T)[] = []): Place {
  return {
    get,
    read: (answer) => {
      const item = (answer as T[] | undefined)?.find((one) => one.id === id);
      if (!item) return undefined;
      const left = ['id', ...Object.keys(beside), ...(keeps as string[])];
      return Object.fromEntries(Object.entries(item).filter(([part]) => !left.includes(part)));
    },
    write: (answer, body) => {
      if (!Array.isArray(answer)) return answer;
      const list = answer as T[];
      const before = list.find((one) => one.id === id);
      if (!body) return list.filter((one) => one.id !== id);
      const item = { ...beside, ...before, ...body, id };
      return before ? list.map((one) => (one.id === id ? item : one)) : [...list, item];
    },
  };
}

/** A new class is its teacher's own. */
const OWN = { role: 'owner' as const, owner: '' };

const classIn = (id: string): Place => ({
  get: `/classes/${id}`,
  read: (answer) => {
    return answer ? settingsOf(answer as ClassDetail) : undefined;
  },
  write: (answer, body) => {
    if (!body) return undefined;
    const { children = [], ...kept } = { ...OWN, ...(answer as Partial<ClassDetail> | undefined) };
    const { role, owner, schoolId } = kept;
    return { schoolId, ...body, id, children, role, owner };
  },
});

const childIn = (classId: string, id: string): readonly Place[] => {
  const list = inList<Child>('', id, {});
  const children = (answer: unknown) => (answer as { children?: Child[] } | undefined)?.children;
  const detail: Place = {
    get: `/classes/${classId}`,
    read: (answer) => list.read!(children(answer)),
    write: (answer, body) => {
      if (!answer) return answer;
      const sent = body && { adaptations: null, ...list.read!(children(answer)), ...body };
      return { ...answer, children: list.write(children(answer), sent) };
    },
  };
  const records: Place = {
    get: `/classes/${classId}/records`,
    write: (answer, body) => {
      const known = answer as ClassRecords | undefined;
      if (!known || !body || known.children.includes(id)) return answer;
      return { ...known, children: [...known.children, id] };
    },
  };
  return [detail, records];
};

type Column = ClassRecords['paper'][number];
type Points = Readonly<Record<string, number | null>>;

const paperIn = (classId: string, id: string): Place => ({
  get: `/classes/${classId}/records`,
  read: (answer) => {
    const records = answer as ClassRecords | undefined;
    const column = records?.paper.find((one) => one.id === id);
    if (!records || !column) return undefined;
    const { id: _id, points, ...head } = column;
    return { ...head, points: Object.fromEntries(points.map((one) => [records.children[one.child]!, one.points])) };
  },
  write: (answer, body) => {
    const records = answer as ClassRecords | undefined;
    if (!records) return answer;
    if (!body) return { ...records, paper: records.paper.filter((one) => one.id !== id) };
    const before = records.paper.find((one) => one.id === id);
    const sent = body.points as Points;
    const stay = (before?.points ?? []).filter(({ child }) => !(records.children[child]! in sent));
    const given = Object.entries(sent).flatMap(([childId, points]) => {
      const child = records.children.indexOf(childId);
      return points === null || child < 0 ? [] : [{ child, points }];
    });
    const column = { ...before, ...body, id, points: [...stay, ...given] } as Column;
    const paper = before ? records.paper.map((one) => (one.id === id ? column : one)) : [...records.paper, column];
    return { ...records, paper };
  },
});

const NOT_YET = { state: 'waiting', mark: null, takeId: null, slower: null, clash: null } as const;

/** As it will be on the server: nobody was heard in it yet. */
function begun(lineUp: NewLineUp): Omit<LineUp, 'id'> {
  const turns = lineUp.turns.map((turn) => ({ ...turn, ...NOT_YET }));
  return { ...lineUp, turns, patterns: [] };
}

const lineUpIn = (classId: string, id: string): Place => {
  const list = inList<LineUp>(`/classes/${classId}/line-ups`, id);
  return { ...list, write: (answer, body) => list.write(answer, body && { ...begun(body as unknown as NewLineUp) }) };
};

const turnIn = (classId: string, lineUpId: string, childId: string): Place => ({
  get: `/classes/${classId}/line-ups`,
  write: (answer, body) => {
    if (!body || !Array.isArray(answer)) return answer;
    const { mark = null, patternId, slower, ...saying } = body as unknown as TurnEdit;
    return (answer as LineUp[]).map((line) => {
      if (line.id !== lineUpId) return line;
      const before = line.turns.find((turn) => turn.childId === childId);
      const turn = before ?? { childId, patternId: patternId ?? line.settings.patternIds[0]!, ...NOT_YET };
      const now = { ...turn, ...afterSaying(turn, { ...saying, mark }), slower: slower ?? turn.slower };
      return { ...line, turns: before ? line.turns.map((one) => (one === before ? now : one)) : [...line.turns, now] };
    });
  },
});

/** Patterns in another order, in folders, and away. */
const shelf: Place = {
  get: '/patterns',
  write: (answer, body) => {
    if (!body || !Array.isArray(answer)) return answer;
    const { patterns } = body as unknown as ShelfEdit;
    const list = answer as SavedPattern[];
    const named = patterns.flatMap(({ id, folder, archived }) => {
      const { folder: _folder, archived: _archived, ...known } = list.find((one) => one.id === id) ?? { id: undefined };
      return known.id === undefined ? [] : [{ ...known, ...(folder ? { folder } : {}), ...(archived && { archived }) }];
    });
    return [...named, ...list.filter(({ id }) => !patterns.some((one) => one.id === id))];
  },
};

const whole = (get: string): Place => ({
  get,
  read: (answer) => (answer as Body | null) ?? undefined,
  write: (_answer, body) => body ?? null,
});

const ofClass = (part: string) => (classId: string, id: string) => [inList(`/classes/${classId}/${part}`, id)];

/** What a take is marked with is seen where it is shown. */
const overrideIn = (id: string): Place => ({
  get: `/takes/${id}`,
  read: (answer) => {
    const take = answer as Pick<TakeDetail, 'override' | 'overrideReason'> | undefined;
    return take && { mark: take.override, reason: take.overrideReason };
  },
  write: (answer, body) =>
    answer && body ? { ...answer, override: body.mark, overrideReason: body.reason ?? '' } : answer,
});

const KINDS = perLanguage((): readonly Kind[] => [
  {
    word: t`pattern`,
    path: at('/patterns/ID'),
    places: (id) => [inList<SavedPattern>('/patterns', id, {}, ['archived'])],
    merges: true,
    removable: true,
  },
  { word: t`order of the patterns`, path: at('/patterns/shelf'), places: () => [shelf] },
  { word: t`plan`, path: at('/plans/ID'), places: (id) => [inList('/plans', id)], merges: true, removable: true },
  { word: t`sheet`, path: at('/sheets/ID'), places: (id) => [inList('/sheets', id)], merges: true, removable: true },
  {
    word: t`class`,
    path: at('/classes/ID'),
    places: (id) => [classIn(id), inList<ClassSummary>('/classes', id, { children: 0, ...OWN })],
    merges: true,
    removable: true,
  },
  { word: t`child`, path: at('/classes/ID/children/ID'), places: childIn, merges: true, removable: true },
  {
    word: t`marks from paper`,
    path: at('/classes/ID/paper/ID'),
    places: (classId, id) => [paperIn(classId, id)],
    // Marks on paper say who is meant.
    together: (first, second) => ({
      ...first,
      ...second,
      ...(first.points && second.points ? { points: { ...first.points, ...second.points } } : {}),
    }),
    merges: true,
    removable: true,
  },
  { word: t`lesson`, path: at('/classes/ID/lessons/ID'), places: ofClass('lessons'), merges: true, removable: true },
  {
    word: t`term`,
    path: at('/classes/ID/term-plan'),
    places: (classId) => [whole(`/classes/${classId}/term-plan`)],
    merges: true,
  },
  {
    word: t`practice week`,
    path: at('/classes/ID/practice/ID'),
    places: (classId, id) => [inList(`/classes/${classId}/practice`, id, { practised: [] } as object)],
    merges: true,
    removable: true,
  },
  {
    word: t`line-up`,
    path: at('/classes/ID/line-ups/ID'),
    places: (classId, id) => [lineUpIn(classId, id)],
    removable: true,
  },
  {
    word: t`turn in a line-up`,
    path: at('/classes/ID/line-ups/ID/turns/ID'),
    places: (classId, lineUpId, childId) => [turnIn(classId, lineUpId, childId)],
    isHeardIn: ({ upload, stored }, _classId, lineUpId, childId) =>
      !stored && upload.lineUpId === lineUpId && upload.childId === childId,
    // The first may have arrived although nobody answered.
    together: ({ settles: _settles, ...first }, second) => ({
      ...first,
      ...second,
      ...('seen' in second && { seen: seenSince(first, second.seen as Seen) }),
    }),
  },
  { word: t`score of the class`, path: at('/classes/ID/ear/ID'), places: ofClass('ear') },
  { word: t`pass of the class`, path: at('/classes/ID/together/ID'), places: ofClass('together') },
  {
    word: t`mark of a take`,
    path: at('/takes/ID/override'),
    places: (id) => [overrideIn(id)],
    merges: true,
    afterTakes: true,
  },
]);

type Thing = Omit<Kind, 'places' | 'path' | 'isHeardIn'> & {
  readonly places: readonly Place[];
  readonly isHeardIn?: (take: Pick<Waiting, 'upload' | 'stored'>) => boolean;
};

/** What is known of a thing by its address; undefined for what needs the server. */
export function thingAt(path: string): Thing | undefined {
  for (const { path: pattern, places, isHeardIn, ...kind } of KINDS()) {
    const [all, ...parts] = pattern.exec(path) ?? [];
    if (all === undefined) continue;
    return { ...kind, places: places(...parts), ...(isHeardIn && { isHeardIn: (take) => isHeardIn(take, ...parts) }) };
  }
  return undefined;
}
