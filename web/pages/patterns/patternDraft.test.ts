import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { SavedPattern } from '../../../contract/pattern.ts';
import { printRhythm } from '../../../core/rhythm/text.ts';
import { forgetDraft, parseDraft, PatternDraft, storedDraft } from './patternDraft.ts';

const ID = 'one';
const SAVED = { id: ID, title: 'Tide', text: '4/4 q q h', updatedAt: 1 } as unknown as SavedPattern;

beforeEach(() => forgetDraft(ID));
afterEach(() => forgetDraft(ID));

/** A draft whose timer is pulled by hand, before a server that fails on demand. */
function writing(saved: SavedPattern | undefined = SAVED) {
  const server = { sent: [] as { title: string; text: string }[], fails: undefined as Error | undefined };
  let timer: { action: () => void; ms: number } | undefined;
  const draft = new PatternDraft(ID, saved, {
    save: (sent) => {
      if (server.fails) return Promise.reject(server.fails);
      server.sent.push(sent);
      return Promise.resolve();
    },
    later: (action, ms) => {
      timer = { action, ms };
      return () => (timer = undefined);
    },
  });
  const settle = () => new Promise((resolve) => setTimeout(resolve));
  const rest = async () => {
    const due = timer;
    timer = undefined;
    due?.action();
    await settle();
  };
  return { draft, server, rest, settle, waits: () => timer?.ms };
}

describe('a pattern being written', () => {
  it('is sent when the text makes sense and the typing rests', async () => {
    const { draft, server, rest, waits } = writing();
    expect(draft.moment()).toMatchObject({ state: 'saved', draft: { title: 'Tide', text: '4/4 q q h' } });
    draft.change({ title: 'Tide', text: '4/4 q q q' });
    expect([draft.moment().state, waits()]).toEqual(['unfinished', undefined]);
    draft.change({ title: 'Tide', text: '4/4 q q q q' });
    expect([draft.moment().state, waits()]).toEqual(['saving', 700]);
    await rest();
    expect(server.sent).toEqual([{ title: 'Tide', text: '4/4 q q q q' }]);
    expect(draft.moment().state).toBe('saved');
    expect(storedDraft(ID)).toBeUndefined();
  });

  it('keeps the last readable rhythm in sight, and says where the text stops making sense', () => {
    const { draft } = writing();
    draft.change({ title: 'Tide', text: '4/4 q q h x' });
    const { parse } = draft.moment();
    expect(printRhythm(parse.score!.parts[0]!.pattern)).toBe('4/4 q q h');
    expect(parse.error).toBeDefined();
    draft.change({ title: 'Tide', text: ' ' });
    expect(draft.moment().parse).toEqual({ score: undefined, error: undefined, bars: [] });
    expect(parseDraft('4/4 q', undefined).bars[0]!.verdict).toBe('short');
  });

  it('stays on the device through a reload while the server is away, and goes there once it is back', async () => {
    const first = writing();
    first.server.fails = new Error('away');
    first.draft.change({ title: 'Tide', text: '4/4 w' });
    await first.rest();
    expect(first.draft.moment()).toMatchObject({ state: 'on-device', problem: { message: 'away' } });
    expect(first.waits()).toBe(4000);

    const reloaded = writing();
    expect(reloaded.draft.moment().draft.text).toBe('4/4 w');
    reloaded.draft.open();
    await reloaded.rest();
    expect(reloaded.server.sent).toEqual([{ title: 'Tide', text: '4/4 w' }]);
    expect(storedDraft(ID)).toBeUndefined();
  });

  it('does not forget what was typed while it was being sent', async () => {
    const { draft, server, rest } = writing();
    draft.change({ title: 'Tide', text: '4/4 w' });
    const sending = rest();
    draft.change({ title: 'Tide', text: '4/4 h h' });
    await sending;
    expect(storedDraft(ID)).toEqual({ title: 'Tide', text: '4/4 h h' });
    expect(draft.moment().state).toBe('saving');
    await rest();
    expect(server.sent.map(({ text }) => text)).toEqual(['4/4 w', '4/4 h h']);
    expect(storedDraft(ID)).toBeUndefined();
  });

  it('without a title is called so, and a title alone is sent too', async () => {
    const { draft, server, rest } = writing(undefined);
    draft.change({ title: ' ', text: '4/4 w' });
    await rest();
    draft.change({ title: 'Low tide', text: '4/4 w' });
    await rest();
    expect(server.sent.map(({ title }) => title)).toEqual(['Untitled', 'Low tide']);
  });

  it('is sent at once at the end of a visit, when there is anything to send', async () => {
    const { draft, server, settle } = writing();
    draft.close();
    draft.change({ title: 'Tide', text: '4/4 w' });
    draft.close();
    await settle();
    expect(server.sent).toEqual([{ title: 'Tide', text: '4/4 w' }]);
  });

  it('takes what arrives late only onto an empty page', () => {
    const empty = writing(undefined);
    empty.draft.arrived(SAVED);
    expect(empty.draft.moment()).toMatchObject({ state: 'saved', draft: { title: 'Tide' } });
    const written = writing(undefined);
    written.draft.change({ title: '', text: '4/4 w' });
    written.draft.arrived(SAVED);
    expect(written.draft.moment().draft.text).toBe('4/4 w');
  });

  it('tells who listens, until they stop', () => {
    const { draft } = writing();
    let told = 0;
    const stop = draft.subscribe(() => told++);
    draft.change({ title: 'Tide', text: '4/4 w' });
    stop();
    draft.change({ title: 'Tide', text: '4/4 h' });
    expect(told).toBe(1);
  });

  it('changed by two is put together: what only one changed stays, of what both did what is chosen', async () => {
    for (const [chosen, sent] of [
      [['text'], { title: 'Mine', text: '4/4 w' }],
      [[], { title: 'Mine', text: '4/4 h h' }],
    ] as const) {
      const theirs = { title: 'Tide', text: '4/4 w' };
      const { draft, server, rest } = writing();
      server.fails = Object.assign(new Error('both'), { clash: { theirs, parts: ['text'] } });
      draft.change({ title: 'Mine', text: '4/4 h h' });
      await rest();
      expect(draft.moment().state).toBe('on-device');
      server.fails = undefined;
      draft.choose(theirs, new Set(chosen));
      expect([draft.moment().draft, storedDraft(ID)]).toEqual([sent, sent]);
      await rest();
      expect([server.sent, draft.moment().state]).toEqual([[sent], 'saved']);
    }
  });

  it('of which theirs is chosen in all is theirs, and nothing is sent', async () => {
    const theirs = { title: 'Ebb', text: '4/4 w' };
    const { draft, server, rest } = writing();
    server.fails = Object.assign(new Error('both'), { clash: { theirs, parts: ['title', 'text'] } });
    draft.change({ title: 'Mine', text: '4/4 h h' });
    await rest();
    server.fails = undefined;
    draft.choose(theirs, new Set(['title', 'text']));
    expect([draft.moment().draft, draft.moment().state, storedDraft(ID)]).toEqual([theirs, 'saved', undefined]);
    await rest();
    expect(server.sent).toEqual([]);
  });
});
