import { setTimeout as wait } from 'node:timers/promises';
import { v4 as uuid } from 'uuid';
import type { ClassDetail } from '../../contract/schoolClass.ts';
import { report } from './benchReport.ts';

const A_SECOND = 100;
const SECONDS = 20;
const WARM_UP = 400;

/** A teacher with a class. */
export interface Hearing {
  readonly cookie: string;
  readonly classId: string;
}

/** Takes of whole classes at once, so many a second whether they are answered or not, beside an empty answer. */
export async function benchStoring(url: string, rooms: readonly Hearing[]): Promise<void> {
  const places: { readonly headers: Record<string, string>; readonly childId: string }[] = [];
  for (const { cookie, classId } of rooms) {
    const headers = { cookie, 'content-type': 'application/json' };
    const room = (await (await fetch(`${url}/api/classes/${classId}`, { headers })).json()) as ClassDetail;
    places.push(...room.children.map(({ id }) => ({ headers, childId: id })));
  }
  const timed = async (send: () => Promise<Response>): Promise<number> => {
    const from = performance.now();
    const response = await send();
    await response.arrayBuffer();
    if (!response.ok) throw new Error(`${response.status} while storing takes`);
    return performance.now() - from;
  };
  const store = (i: number) => {
    const onsets = Array.from({ length: 7 }, (_, k) => k * 0.83 + ((i * 7 + k) % 9) * 0.01);
    const take = {
      patternId: null,
      title: 'Bench',
      patternText: '4/4 q q q q | q (q) q q',
      bpm: 72,
      takenAt: Date.now(),
      onsets,
    };
    // Neighbours in time are in different classes.
    const { headers, childId } = places[(i * 31) % places.length]!;
    const body = JSON.stringify({ ...take, childId });
    return timed(() => fetch(`${url}/api/takes/${uuid()}`, { method: 'PUT', headers, body }));
  };
  // What is compiled on the way is not what is asked.
  for (let i = 0; i < WARM_UP; i += 4) await Promise.all([0, 1, 2, 3].map((k) => store(SECONDS * A_SECOND + i + k)));
  const empty: Promise<number>[] = [];
  const stored: Promise<number>[] = [];
  const begun = performance.now();
  for (let i = 0; i < A_SECOND * SECONDS; i++) {
    await wait(Math.max(0, begun + (i * 1000) / A_SECOND - performance.now()));
    stored.push(store(i));
    if (i % 10 === 0) empty.push(timed(() => fetch(`${url}/healthz`)));
  }
  const at = (times: readonly number[], part: number) =>
    [...times].sort((a, b) => a - b)[Math.floor(times.length * part)]!;
  const [takes, health] = [await Promise.all(stored), await Promise.all(empty)];
  report(
    `takes stored, ${A_SECOND} a second for ${SECONDS} s, ${rooms.length} classes`,
    `p50 ${at(takes, 0.5).toFixed(0)} ms, p95 ${at(takes, 0.95).toFixed(0)} ms, p99 ${at(takes, 0.99).toFixed(0)} ms`,
    `${(at(takes, 0.5) / at(health, 0.5)).toFixed(1)} × /healthz meanwhile (p99 ${at(health, 0.99).toFixed(0)} ms)`,
  );
}
