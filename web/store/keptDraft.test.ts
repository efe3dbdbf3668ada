import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { ApiProblem } from '../api/client.ts';
import { KeptDraft } from './keptDraft.ts';
import { readStored, writeStored } from './stored.ts';

interface Thing {
  readonly title: string;
  readonly minutes: number;
}
const KEY = 'draft:/thing';
const SAVED: Thing = { title: 'Monday', minutes: 40 };
const FIRST: Thing = { title: 'New', minutes: 30 };
const AWAY = new ApiProblem(0, 'away', 'away');
const REFUSED = new ApiProblem(422, 'bad-request', 'no');
const clash = (theirs: Thing) =>
  new ApiProblem(409, 'changed-meanwhile', 'clash', undefined, undefined, { theirs: { ...theirs }, parts: ['title'] });

const forget = () => writeStored(KEY, undefined);
beforeEach(forget);
afterEach(forget);

/** A draft whose timer is pulled by hand, before a server that answers as it is told. */
function changing(saved: Thing | 'none' = SAVED) {
  const server = {
    sent: [] as [Thing, Thing | undefined][],
    fails: undefined as Error | undefined,
    makes: (value: Thing) => value,
    before: () => undefined as unknown,
  };
  let timer: { action: () => void; ms: number } | undefined;
  const draft = new KeptDraft<Thing>(KEY, saved === 'none' ? undefined : saved, FIRST, {
    save: async (value, was) => {
      server.sent.push([value, was]);
      await server.before();
      if (server.fails) throw server.fails;
      return server.makes(value);
    },
    later: (action, ms) => {
      const mine = { action, ms };
      timer = mine;
      return () => {
        if (timer === mine) timer = undefined;
      };
    },
    fits: (kept) => typeof (kept as Thing | undefined)?.title === 'string',
  });
  const rest = async () => {
    const due = timer;
    timer = undefined;
    due?.action();
    await new Promise((resolve) => setTimeout(resolve));
  };
  return { draft, server, rest, waits: () => timer?.ms };
}

describe('something changed bit by bit', () => {
  it('is on this device at once, and sent when the hand rests, with what it was made from', async () => {
    const { draft, server, rest, waits } = changing();
    expect(draft.moment()).toEqual({ value: SAVED, state: 'saved', problem: undefined });
    draft.change({ ...SAVED, minutes: 45 });
    expect([draft.moment().state, waits()]).toEqual(['saving', 700]);
    expect(readStored(KEY)).toContain('45');
    await rest();
    expect(server.sent).toEqual([[{ ...SAVED, minutes: 45 }, SAVED]]);
    expect(draft.moment().state).toBe('saved');
    expect(readStored(KEY)).toBeUndefined();
    expect(waits()).toBeUndefined();
  });

  it('shows what others changed meanwhile, and does not undo it with the next change', async () => {
    const { draft, server, rest } = changing();
    server.makes = (value) => ({ ...value, title: 'Theirs' });
    draft.change({ ...SAVED, minutes: 45 });
    await rest();
    expect(draft.moment().value).toEqual({ title: 'Theirs', minutes: 45 });
    // A change made while the first is on its way goes on from what was sent.
    server.makes = (value) => ({ ...value, title: 'Theirs again' });
    server.before = () => {
      server.before = () => undefined;
      draft.change({ title: 'Theirs', minutes: 60 });
    };
    draft.change({ title: 'Theirs', minutes: 50 });
    await rest();
    expect([draft.moment().value.minutes, draft.moment().state]).toEqual([60, 'saving']);
    await rest();
    expect(server.sent.at(-1)).toEqual([
      { title: 'Theirs', minutes: 60 },
      { title: 'Theirs', minutes: 50 },
    ]);
    expect(draft.moment().state).toBe('saved');
  });

  it('stays here while the server is away, through a reload too', async () => {
    const { draft, server, rest, waits } = changing();
    server.fails = AWAY;
    draft.change({ ...SAVED, title: 'Rope' });
    await rest();
    expect(draft.moment()).toMatchObject({ state: 'on-device', problem: AWAY });
    expect(waits()).toBe(4000);
    const again = changing({ ...SAVED, minutes: 20 });
    expect(again.draft.moment()).toMatchObject({ value: { title: 'Rope', minutes: 40 }, state: 'saving' });
    again.draft.open();
    await again.rest();
    // The server puts both together: it is told what the change was made from.
    expect(again.server.sent).toEqual([[{ ...SAVED, title: 'Rope' }, SAVED]]);
    server.fails = undefined;
    await rest();
    expect(draft.moment().state).toBe('saved');
  });

  it('that is refused is not sent again until it is changed', async () => {
    const { draft, server, rest, waits } = changing();
    server.fails = REFUSED;
    draft.change({ ...SAVED, title: '' });
    await rest();
    expect([draft.moment().state, waits()]).toEqual(['on-device', undefined]);
    server.fails = undefined;
    draft.change({ ...SAVED, title: 'Tide' });
    await rest();
    expect(draft.moment()).toMatchObject({ state: 'saved', problem: undefined });
  });

  it('changed by two waits for the teacher: mine', async () => {
    const { draft, server, rest, waits } = changing();
    const theirs = { title: 'Theirs', minutes: 40 };
    server.fails = clash(theirs);
    draft.change({ ...SAVED, title: 'Mine' });
    await rest();
    expect([draft.moment().state, waits()]).toEqual(['clash', undefined]);
    draft.change({ title: 'Mine', minutes: 50 });
    expect(waits()).toBeUndefined();
    server.fails = undefined;
    draft.choose(new Set());
    await rest();
    expect(server.sent.at(-1)).toEqual([{ title: 'Mine', minutes: 50 }, theirs]);
    expect(draft.moment().state).toBe('saved');
  });

  it('changed by two waits for the teacher: theirs', async () => {
    const { draft, server, rest } = changing();
    draft.choose(new Set(['title']));
    expect(draft.moment().value).toEqual(SAVED);
    const theirs = { title: 'Theirs', minutes: 40 };
    server.fails = clash(theirs);
    draft.change({ ...SAVED, title: 'Mine' });
    await rest();
    draft.choose(new Set(['title']));
    expect(draft.moment()).toEqual({ value: theirs, state: 'saved', problem: undefined });
    expect(readStored(KEY)).toBeUndefined();
  });

  it('takes what arrives only where nothing of its own waits; at the end of a visit it is sent at once', async () => {
    const { draft, server } = changing();
    draft.arrived({ ...SAVED, minutes: 50 });
    expect(draft.moment().value.minutes).toBe(50);
    draft.change({ ...SAVED, minutes: 55 });
    draft.arrived({ ...SAVED, minutes: 10 });
    expect(draft.moment().value.minutes).toBe(55);
    draft.close();
    await draft.settle();
    expect(server.sent).toHaveLength(1);
    const none = changing('none');
    expect(none.draft.moment().value).toEqual(FIRST);
    none.draft.close();
    expect(none.server.sent).toEqual([]);
    none.draft.change(SAVED);
    await none.draft.settle();
    expect(none.server.sent).toEqual([[SAVED, undefined]]);
  });

  it('begins anew where this device kept nonsense', () => {
    for (const kept of ['{', '{"value":{"title":3}}', 'null']) {
      writeStored(KEY, kept);
      expect(changing().draft.moment()).toEqual({ value: SAVED, state: 'saved', problem: undefined });
    }
  });
});
