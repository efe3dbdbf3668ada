import 'fake-indexeddb/auto';
import { deleteDB } from 'idb';
import { beforeEach, describe, expect, it } from 'vitest';
import type { VoiceWord } from '../../contract/voice.ts';
import { MOST_SENT } from '../../core/listening/voiceFacts.ts';
import { WordQueue, replaced } from './wordQueue.ts';

const word = (name: string, sound = 'a'): VoiceWord => ({ word: name, vowel: 0.1, sound });
const AWAY = Object.assign(new Error('away'), { worthRetrying: true });

/** A server in memory, and a clock that goes when it is told. */
function device() {
  const server = new Map<string, string>();
  const [sent, later]: [string[][], (() => void)[]] = [[], []];
  const state = { trouble: undefined as Error | undefined, while: async () => {} };
  return {
    server,
    sent,
    state,
    queue: (teacherId = 'ann') =>
      new WordQueue(teacherId, {
        send: async (words) => {
          await state.while();
          if (state.trouble) throw state.trouble;
          sent.push(words.map((one) => one.word));
          for (const one of words) server.set(one.word, one.sound);
        },
        stored: () => Promise.resolve(),
        later: (action) => void later.push(action),
      }),
    goOn: () => later.splice(0).forEach((action) => action()),
    get planned() {
      return later.length;
    },
  };
}
const settled = (queue: WordQueue) => expect.poll(() => queue.moment().waiting.length).toBe(0);

// Emptied, not put in the place of: what other tests have open would stay open beside it.
beforeEach(() => deleteDB('clapboard'));

describe('words on their way', () => {
  it('are sent some at a time, each once, and leave the device', async () => {
    const { queue, sent, server } = device();
    const names = Array.from({ length: MOST_SENT + 3 }, (_, i) => `w${i}`);
    const words = queue();
    await words.keep(names.map((name) => word(name)));
    expect(sent.map(({ length }) => length)).toEqual([MOST_SENT, 3]);
    expect([...server.keys()].toSorted()).toEqual(names.toSorted());
    expect(words.moment()).toEqual({ waiting: [], problem: undefined });
    await queue().keep([word('x')]);
    expect(sent.at(-1)).toEqual(['x']);
  });

  it('stay while the server is away, through a reload, and go when it is back', async () => {
    const { queue, state, server, goOn } = device();
    state.trouble = AWAY;
    await queue().keep([word('1'), word('2')]);
    const again = queue();
    const close = again.open();
    await expect.poll(() => again.moment().problem).toBe(AWAY);
    expect(again.moment().waiting.map((one) => one.word)).toEqual(['1', '2']);
    state.trouble = undefined;
    goOn();
    await settled(again);
    expect([...server.keys()]).toEqual(['1', '2']);
    close();
  });

  it('are not sent again by themselves where they were refused, but with the next', async () => {
    const made = device();
    const { queue, state, server } = made;
    state.trouble = new Error('too many');
    const words = queue();
    await words.keep([word('1')]);
    expect(made.planned).toBe(0);
    expect(words.moment()).toMatchObject({ problem: { message: 'too many' }, waiting: [{ word: '1' }] });
    state.trouble = undefined;
    await words.keep([word('2')]);
    expect([...server.keys()]).toEqual(['1', '2']);
    expect(words.moment().problem).toBeUndefined();
  });

  it('a word that is said again while it is sent is sent again', async () => {
    const { queue, state, server, sent } = device();
    const words = queue();
    let again: Promise<void> | undefined;
    state.while = async () => {
      again ??= words.keep([word('1', 'better')]);
      await new Promise((resolve) => setTimeout(resolve, 30));
    };
    await words.keep([word('1', 'first')]);
    await again;
    expect(server.get('1')).toBe('better');
    expect(sent).toEqual([['1'], ['1']]);
  });

  it('are their teacher’s alone, and can be taken back', async () => {
    const { queue, state, server } = device();
    state.trouble = AWAY;
    await queue('ann').keep([word('1'), word('2'), word('3')]);
    await queue('ben').keep([word('9')]);
    await queue('ann').drop('2');
    state.trouble = undefined;
    const ben = queue('ben');
    ben.open();
    await expect.poll(() => server.has('9')).toBe(true);
    expect([...server.keys()]).toEqual(['9']);
    const ann = queue('ann');
    ann.open();
    await expect.poll(() => [...server.keys()]).toEqual(['9', '1', '3']);
    state.trouble = AWAY;
    await ann.keep([word('4'), word('5')]);
    await ann.drop();
    expect(ann.moment()).toEqual({ waiting: [], problem: undefined });
  });

  it('a closed page asks for nothing', async () => {
    const { queue, state, server, goOn } = device();
    const words = queue();
    const close = words.open();
    state.trouble = AWAY;
    await words.keep([word('1')]);
    close();
    state.trouble = undefined;
    goOn();
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(server.size).toBe(0);
  });

  it('a word takes the place of what was said before', () =>
    expect(replaced([word('1'), word('2')], [word('1', 'b')])).toEqual([word('2'), word('1', 'b')]));
});
