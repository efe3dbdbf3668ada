// @vitest-environment happy-dom
import { act, fireEvent, renderHook, screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { type Level, difficultyOf } from '../../../core/making/level.ts';
import { makeSet } from '../../../core/making/makeSet.ts';
import { COMMON_TIME } from '../../../core/rhythm/meter.ts';
import { measureText } from '../../../core/rhythm/text.ts';
import { patternOf } from '../../../core/rhythm/arbitrary.test-helper.ts';
import type { MakeAnswer, MakeRequest } from '../../files/makeMessages.ts';
import { FakeServer, mount, tidyAfterEach } from '../../page.test-helper.tsx';
import { MadeCards } from './MadeCards.tsx';
import { SETTINGS, focusIn, focusText, wantedOf } from './makeSettings.ts';
import { useKeeping } from './useKeeping.ts';
import { type MadeCard, useMade } from './useMade.ts';

tidyAfterEach();

const asked: MakeRequest[] = [];
let answer: (request: MakeRequest) => MakeAnswer;

/** The worker, in this thread: what it was asked is written down. */
class Worker extends EventTarget {
  postMessage(request: MakeRequest) {
    asked.push(request);
    queueMicrotask(() => this.dispatchEvent(new MessageEvent('message', { data: answer(request) })));
  }
  terminate() {
    // Nothing runs.
  }
}

const WANTED = {
  meter: COMMON_TIME,
  measures: 2,
  level: 2 as Level,
  elements: ['eighth-pair', 'quarter-rest', 'half'] as const,
};
const making = ({ wanted, count, seed, known }: MakeRequest) => makeSet(wanted, count, seed, new Set(known));

beforeEach(() => {
  asked.length = 0;
  answer = making;
  vi.stubGlobal('Worker', Worker);
});

async function twelve(known: readonly string[] = []) {
  const { result } = renderHook(() => useMade(known));
  await act(async () => result.current.anew(WANTED, 12));
  expect(result.current.cards).toHaveLength(12);
  return result;
}

describe('made patterns', () => {
  it.each([
    ['easier', -1],
    ['harder', 1],
  ] as const)('%s is the same material a level away, in place of its card alone', async (_word, by) => {
    const made = await twelve();
    const [first, second, ...others] = made.current.cards as [MadeCard, MadeCard];
    await act(async () => made.current.shift(second, by));
    expect(asked.at(-1)).toMatchObject({ count: 1, wanted: { ...WANTED, level: second.level + by } });
    const [sameFirst, changed, ...same] = made.current.cards;
    expect([sameFirst, same]).toEqual([first, others]);
    expect(changed!.text).not.toBe(second.text);
    expect(asked.at(-1)!.known).toContain(first.text);
  });

  it('there is nothing easier than the first level, nor harder than the last', async () => {
    const made = await twelve();
    const [card] = made.current.cards as [MadeCard];
    asked.length = 0;
    await act(async () => made.current.shift({ ...card, level: 1 }, -1));
    await act(async () => made.current.shift({ ...card, level: 5 }, 1));
    expect(asked).toEqual([]);
  });

  it('more like this are twelve of what is in it, as hard as it is', async () => {
    const made = await twelve();
    const card: MadeCard = { ...made.current.cards[0]!, pattern: patternOf('4/4 q q h | e e q h'), level: 3 };
    await act(async () => made.current.alike(card, 12));
    const request = asked.find(({ wanted }) => wanted.level === 3)!;
    expect([...request.wanted.elements].sort()).toEqual(['eighth-pair', 'half', 'quarter']);
    expect(request.count).toBe(12);
  });

  it('around a locked measure that measure stays', async () => {
    const made = await twelve();
    const [card] = made.current.cards as [MadeCard];
    await act(async () => made.current.around(card, new Set([1])));
    expect(measureText(made.current.cards[0]!.pattern.measures[1]!)).toBe(measureText(card.pattern.measures[1]!));
    expect([...asked.at(-1)!.wanted.locked!.keys()]).toEqual([1]);
  });

  it('nothing is made that the teacher has; of a level with too few the rest is harder, and it is said', async () => {
    answer = (request) => {
      const set = making({ ...request, count: request.wanted.level === 2 ? 4 : request.count });
      return typeof set === 'string' ? set : { ...set, short: request.wanted.level === 2 };
    };
    const made = await twelve(['4/4 q q q q']);
    expect(asked.map(({ wanted, count }) => [wanted.level, count])).toEqual([
      [2, 12],
      [3, 8],
    ]);
    expect(asked[1]!.known).toEqual(['4/4 q q q q', ...made.current.cards.slice(0, 4).map(({ text }) => text)]);
    expect(made.current.trouble).toEqual({ kind: 'short', made: 4, of: 12, level: 2 });
    expect(made.current.making).toBe(false);
  });

  it('says why nothing can be made, and keeps what was there', async () => {
    const made = await twelve();
    const before = made.current.cards;
    answer = () => 'no-fill';
    await act(async () => made.current.anew(WANTED, 12));
    expect(made.current.trouble).toEqual({ kind: 'no-fill', focus: undefined });
    expect(made.current.cards).toBe(before);
  });
});

describe('keeping', () => {
  const card = (key: number, text: string, level: Level = 2): MadeCard => {
    const pattern = patternOf(text);
    const { score } = difficultyOf(pattern);
    return { key, text, pattern, level, score, focusAt: [], wanted: WANTED };
  };
  function keeping() {
    const server = new FakeServer();
    const titled = { id: 'x', title: 'Level 2', text: '4/4 w' } as never;
    return { server, ...renderHook(() => useKeeping([titled], 'quarters')) };
  }
  it('gives each a title of its own; kept again it is there once', async () => {
    const { server, result } = keeping();
    const [one, two] = [card(1, '4/4 h h'), card(2, '4/4 q q h')];
    await act(async () => void (await result.current.keep([one, two], 'Gulls, 3 Sep')));
    expect(server.sent.map(({ body }) => body)).toEqual([
      { title: 'Half 1', text: '4/4 h h', folder: 'Gulls, 3 Sep' },
      { title: 'Half 2', text: '4/4 q q h', folder: 'Gulls, 3 Sep' },
    ]);
    const ids = await act(async () => result.current.keep([two, one]));
    expect(server.sent).toHaveLength(2);
    expect(ids).toEqual([result.current.kept.get(2), result.current.kept.get(1)]);
  });
  it('what could not be stored is not kept, and says why', async () => {
    const { server, result } = keeping();
    server.refuses = () => ({ status: 422, code: 'bad-request', message: 'No.' });
    expect(await act(async () => result.current.keep([card(1, '4/4 h h')]))).toBeUndefined();
    expect([result.current.kept.size, result.current.problem?.message]).toEqual([0, 'No.']);
  });
});

describe('a card', () => {
  const cards = () => {
    const pattern = patternOf('4/4 q q h | w');
    return [{ key: 7, text: '4/4 q q h | w', pattern, level: 2, score: 1, focusAt: [], wanted: WANTED } as never];
  };
  it('says what is wanted: easier a level down, harder a level up, kept once', () => {
    const [onShift, onKeep, onAlike, onAround, onHear] = [vi.fn(), vi.fn(), vi.fn(), vi.fn(), vi.fn()];
    const [card] = cards() as unknown as [MadeCard];
    mount(
      <MadeCards
        cards={[card]}
        kept={new Set()}
        heard={undefined}
        naming="quarters"
        {...{ onShift, onKeep, onAlike, onAround, onHear }}
      />,
    );
    const click = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
    click('Easier');
    expect(onShift).toHaveBeenLastCalledWith(card, -1);
    click('Harder');
    expect(onShift).toHaveBeenLastCalledWith(card, 1);
    click('More like this');
    expect(onAlike).toHaveBeenCalledWith(card);
    click('Keep');
    expect(onKeep).toHaveBeenCalledWith(card);
    click('Hear');
    expect(onHear).toHaveBeenCalledWith(card);
    click('Keep measure 2');
    click('Make the others anew');
    expect(onAround).toHaveBeenCalledWith(card, new Set([1]));
  });
});

describe('what is to be made', () => {
  it('is remembered, and what cannot be is as usual', () => {
    SETTINGS.write({ meter: '6/8', measures: 2, level: 3, elements: ['compound'], focus: 'element half' });
    expect(SETTINGS.read()).toMatchObject({ meter: '6/8', level: 3, focus: 'element half' });
    localStorage.setItem('make.settings', '{"meter":"13/8","level":9,"elements":["x"],"focus":"element x"}');
    globalThis.dispatchEvent(new StorageEvent('storage', { key: 'make.settings' }));
    expect(SETTINGS.read()).toMatchObject({ meter: '4/4', measures: 4, level: 2, focus: '' });
    SETTINGS.write(undefined);
  });
  it.each(['element half', 'misreading rest-skipped', ''])('a focus is a word and back: “%s”', (text) =>
    expect(focusText(focusIn(text))).toBe(text),
  );
  it('goes with its meter and focus', async () => {
    const settings = { meter: '3/4', measures: 2, level: 1 as const, elements: ['half'] as const };
    expect(wantedOf({ ...settings, focus: 'element half' })).toMatchObject({
      meter: { upper: 3, lower: 4 },
      focus: { kind: 'element', element: 'half' },
    });
    expect(wantedOf({ ...settings, focus: '' })).not.toHaveProperty('focus');
    await waitFor(() => undefined);
  });
});
