import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { LineUp, Turn, TurnEdit } from '../../../../contract/lineUp.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { turnToCome } from '../../../../core/records/lineUp.ts';
import { type Said, type Seen, afterSaying, seenSince } from '../../../../core/records/turns.ts';
import { type ApiProblem, put as putTo } from '../../../api/client.ts';
import { useFreshLineUps } from '../../../api/hooks.ts';
import { useRefresh } from '../../../api/useRefresh.ts';
import { pendingOf } from '../../../store/changes.ts';
import { storedThing } from '../../../store/stored.ts';

type Edits = Readonly<Record<string, TurnEdit>>;

/** What the server was not told yet, on this device until it is: one box a line-up. */
const boxes = new Map<string, ReturnType<typeof storedThing<Edits>>>();
function boxOf(lineUpId: string) {
  const known =
    boxes.get(lineUpId) ??
    storedThing<Edits>(`line.${lineUpId}`, (kept) =>
      typeof kept === 'object' && kept !== null ? (kept as Edits) : {},
    );
  boxes.set(lineUpId, known);
  return known;
}

const AGAIN_MS = 3_000;

/** Line-ups of which something is being sent, and whether more was said meanwhile. */
const busy = new Map<string, 'sending' | 'again'>();

/** Sends what is said of a line-up one after the other: what was said first would undo the second if it came later. */
async function inOrder(lineUpId: string, send: () => Promise<void>): Promise<void> {
  if (busy.has(lineUpId)) {
    busy.set(lineUpId, 'again');
    return;
  }
  try {
    do {
      busy.set(lineUpId, 'sending');
      await send();
    } while (busy.get(lineUpId) === 'again');
  } finally {
    busy.delete(lineUpId);
  }
}

const pathOf = (classId: string, lineUpId: string, childId: string) =>
  `/classes/${classId}/line-ups/${lineUpId}/turns/${childId}`;

const saidOf = ({ state, mark }: Said): Said => ({ state, mark });
/** What stands, said once more. */
const sayingOf = (turn: Said): TurnEdit => ({ ...saidOf(turn), seen: saidOf(turn) });

/** The turns as they are with what this device knows better: what is on its way, and what was just heard. */
export function mergedTurns(lineUp: LineUp, edits: Edits, heard: ReadonlyMap<string, number>): Turn[] {
  const late = Object.entries(edits).flatMap(([childId, edit]): Turn[] =>
    lineUp.turns.some((turn) => turn.childId === childId)
      ? []
      : [
          {
            childId,
            patternId: edit.patternId ?? lineUp.settings.patternIds[0]!,
            state: 'waiting',
            mark: null,
            takeId: null,
            slower: null,
            clash: null,
          },
        ],
  );
  return [...lineUp.turns, ...late].map((turn) => {
    const { slower, mark: given = null, ...saying } = edits[turn.childId] ?? sayingOf(turn);
    const own = { slower: slower ?? turn.slower };
    const mark = heard.get(turn.childId);
    if (mark !== undefined && turn.state !== 'heard') return { ...turn, state: 'heard', mark, ...own };
    return { ...turn, ...afterSaying(turn, { ...saying, mark: given }), ...own };
  });
}

/** What the server is not told yet of a line-up, sent until it is. */
function useEdits(classId: string, lineUpId: string) {
  const box = boxOf(lineUpId);
  const [edits, setEdits] = box.use();
  const [problem, setProblem] = useState<ApiProblem>();
  const refresh = useRefresh();
  const freshLineUps = useFreshLineUps(classId);
  const waiting = Object.keys(edits).length;
  const told = useRef(new Map<string, string>());
  const send = useCallback(async () => {
    const asSent = box.read();
    const isAs = (childId: string, said: string | undefined) => JSON.stringify(box.read()[childId]) === said;
    const refused = new Map<string, string>();
    let failed: ApiProblem | undefined;
    for (const [childId, edit] of Object.entries(asSent)) {
      const said = JSON.stringify(edit);
      if (told.current.get(childId) === said) continue;
      try {
        await putTo(pathOf(classId, lineUpId, childId), edit);
        told.current.set(childId, said);
      } catch (error) {
        failed = error as ApiProblem;
        // What the server will never take, such as a child who was removed meanwhile, holds up no other.
        if (failed.worthRetrying) break;
        refused.set(childId, said);
      }
    }
    const isAnything = told.current.size + refused.size > 0;
    const isKnown =
      isAnything &&
      (await freshLineUps().then(
        () => true,
        () => false,
      ));
    if (isAnything) void refresh('/classes');
    // Only when the page knows from the server what it was told: before, a turn would stand as it was and call another
    // child. What was changed again meanwhile is sent again.
    const done = (childId: string) =>
      (isKnown && isAs(childId, told.current.get(childId))) || isAs(childId, refused.get(childId));
    const left = Object.entries(box.read()).filter(([childId]) => !done(childId));
    box.write(left.length > 0 ? Object.fromEntries(left) : undefined);
    if (isKnown) told.current.clear();
    // A refusal stays until something else is said: nothing sends it again.
    setProblem((before) => failed ?? (before?.worthRetrying === false ? before : undefined));
    // `refresh` and `freshLineUps` are other functions each time, but do the same.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [box, classId, lineUpId]);
  useEffect(() => {
    if (waiting === 0) return undefined;
    const timer = setInterval(() => void (busy.has(lineUpId) || inOrder(lineUpId, send)), AGAIN_MS);
    return () => clearInterval(timer);
  }, [waiting, lineUpId, send]);
  const put = (childId: string, edit: TurnEdit) => {
    const { patternId, slower } = box.read()[childId] ?? {};
    const before = { ...(patternId && { patternId }), ...(slower !== undefined && { slower }) };
    setEdits({ ...box.read(), [childId]: { ...before, ...edit } });
    setProblem(undefined);
    void inOrder(lineUpId, send);
  };
  return { edits, put, problem };
}

/** A line-up as it goes on: whose turn it is, and what became of the others. Nothing of it waits for the server. */
export function useLine(teacherId: string, { id: classId, children }: ClassDetail, lineUp: LineUp) {
  const { edits, put, problem } = useEdits(classId, lineUp.id);
  const [heard, setHeard] = useState<ReadonlyMap<string, number>>(new Map());
  const [called, setCalled] = useState<string>();
  const turns = useMemo(() => mergedTurns(lineUp, edits, heard), [lineUp, edits, heard]);
  const seenOf = useCallback(
    ({ childId, ...turn }: Pick<Turn, 'childId'> & Said): Seen => {
      const path = pathOf(classId, lineUp.id, childId);
      const kept = pendingOf(teacherId).find((one) => one.path === path)?.body as TurnEdit | undefined;
      const onItsWay = boxOf(lineUp.id).read()[childId];
      return seenSince(kept, seenSince(onItsWay, saidOf(turn)))!;
    },
    [teacherId, classId, lineUp.id],
  );
  const change = (childId: string, edit: TurnEdit) => {
    const seen = turns.find((turn) => turn.childId === childId);
    setHeard((before) => new Map([...before].filter(([id]) => id !== childId)));
    if (called === childId) setCalled(undefined);
    put(childId, seen ? { ...edit, seen: seenOf(seen) } : edit);
  };
  /** Says nothing else of the child than the server knows. */
  const slow = (childId: string, slower: number) => {
    const known = lineUp.turns.find((turn) => turn.childId === childId);
    put(childId, { ...(edits[childId] ?? (known ? sayingOf(known) : { state: 'waiting' })), slower });
  };
  const here = turns.filter(({ childId }) => children.some(({ id }) => id === childId));
  const current = here.find(({ childId }) => childId === called) ?? turnToCome(here);
  const after = turnToCome(here.filter((turn) => turn !== current));
  return {
    turns: here,
    current,
    after,
    problem,
    seenOf,
    change,
    slow,
    /** Whoever is called is next, also once more. */
    call: setCalled,
    /** A take was judged: its child was heard. */
    wasHeard: useCallback((childId: string, mark: number) => {
      setHeard((before) => new Map(before).set(childId, mark));
    }, []),
    goOn: () => setCalled(undefined),
  };
}
