// @vitest-environment happy-dom
import { fireEvent, screen } from '@testing-library/react';
import { v4 as uuid } from 'uuid';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Change } from '../store/changes.ts';
import { FakeServer, click, mount, tidyAfterEach } from '../page.test-helper.tsx';
import type { Waiting } from '../store/keptTakes.ts';
import { BothVersions } from '../domain/BothVersions.tsx';
import ChangesNote from './ChangesNote.tsx';
import { OutboxNote } from './OutboxNote.tsx';

tidyAfterEach();

const PATTERN = `/patterns/${uuid()}`;
const outbox = vi.hoisted(() => ({ dropTake: vi.fn(), tryAgain: vi.fn() }));
const kept = vi.hoisted(() => ({ dropChange: vi.fn(), insist: vi.fn() }));
vi.mock('../api/outbox.ts', () => ({ ...outbox, onOutboxChange: () => () => undefined, wouldBeLost: () => false }));
vi.mock('../store/changes.ts', () => kept);
beforeEach(() => {
  new FakeServer();
  for (const spy of [...Object.values(outbox), ...Object.values(kept)]) spy.mockReset();
});

describe('two versions', () => {
  const show = (parts: readonly string[], theirs: object, mine: object) => {
    const onChosen = vi.fn<(theirs: ReadonlySet<string>) => void>();
    mount(<BothVersions clash={{ theirs: { ...theirs }, parts, mine }} onChosen={onChosen} />);
    return () => onChosen.mock.calls.map(([chosen]) => [...chosen]);
  };
  it('of one part: mine is what was typed here, theirs what is there, and each button keeps its own', () => {
    const chosen = show(['name'], { name: 'Ben' }, { name: 'Benny' });
    expect(screen.getAllByRole('cell').map((cell) => cell.textContent)).toEqual(['', 'Ben', 'Benny']);
    expect(screen.queryByRole('radio')).toBeNull();
    click('Leave what is there');
    click('Keep mine');
    expect(chosen()).toEqual([['name'], []]);
  });
  it('of several parts: each is chosen by itself, and nothing is kept before all are', () => {
    const chosen = show(
      ['name', 'minutes', 'day'],
      { name: 'A', minutes: 30, day: 1 },
      { name: 'B', minutes: 45, day: 2 },
    );
    const keep = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Keep what is chosen' });
    fireEvent.click(screen.getByLabelText('A'));
    fireEvent.click(screen.getByLabelText('45'));
    expect(keep().disabled).toBe(true);
    fireEvent.click(screen.getByLabelText('2'));
    fireEvent.click(screen.getByLabelText('1'));
    fireEvent.click(keep());
    expect(chosen()).toEqual([['name', 'day']]);
  });
});

describe('changes that wait', () => {
  const change = (more: Partial<Change>): Change => ({
    id: `1 ${PATTERN}`,
    teacherId: 't',
    path: PATTERN,
    body: { title: 'Mine', text: '4/4 w' },
    was: { title: 'Steps', text: '4/4 w' },
    at: 1,
    ...more,
  });
  const clash = { message: 'Changed.', theirs: { title: 'Theirs', text: '4/4 w' }, parts: ['title'] };
  const open = (...changes: readonly Change[]) => {
    mount(<ChangesNote changes={changes} />);
    fireEvent.click(screen.getByRole('button', { name: /change/ }));
  };
  it('of which the other side changed the same: mine is sent once more, or but for what is theirs', () => {
    const one = change({ refused: clash });
    open(one);
    expect(screen.getByText('1 change to look at')).toBeTruthy();
    click('Leave what is there');
    expect(kept.insist).toHaveBeenLastCalledWith(one, new Set(['title']));
    click('Keep mine');
    expect(kept.insist).toHaveBeenLastCalledWith(one, new Set());
  });
  it('that removed something that was changed: keep it, or remove it all the same', () => {
    const one = change({ body: undefined, refused: { message: 'Somebody changed it.' } });
    open(one);
    click('Keep it');
    expect(kept.dropChange).toHaveBeenCalledExactlyOnceWith(one.id);
    click('Remove it all the same');
    expect(kept.insist).toHaveBeenCalledExactlyOnceWith(one);
  });
  it('and nothing else are only counted, with what they are', () => {
    open(change({}), change({ id: '2', path: `/patterns/${uuid()}`, body: undefined, was: { title: 'Gone' } }));
    expect(screen.getByRole('status').textContent).toBe('2 changes waiting to be sent');
    expect(screen.getAllByRole('listitem').map((item) => item.textContent.replace(/, \w+ \d.*/, ''))).toEqual([
      'Pattern “Mine”',
      'Pattern “Gone”, removed',
    ]);
    expect(screen.queryByRole('button', { name: 'Keep mine' })).toBeNull();
  });
});

describe('takes that wait', () => {
  const take = (more: object = {}) =>
    ({
      id: 't1',
      childName: 'Ada',
      upload: { title: 'Steps', takenAt: 1 },
      stored: false,
      ...more,
    }) as unknown as Waiting;
  const open = (...takes: readonly Waiting[]) => {
    mount(<OutboxNote waiting={takes} />);
    fireEvent.click(screen.getByRole('button', { name: /take|recording/ }));
  };
  it('are tried again or removed by their own buttons, removed only when that is confirmed', () => {
    const refused = take({ refused: 'It is out of all bounds.' });
    open(refused);
    expect(screen.getByText('It is out of all bounds.')).toBeTruthy();
    click('Try again');
    expect(outbox.tryAgain).toHaveBeenCalledExactlyOnceWith(refused);
    const asked = vi.fn(() => false);
    vi.stubGlobal('confirm', asked);
    click('Remove it');
    expect([asked.mock.calls, outbox.dropTake.mock.calls]).toEqual([[['Remove this take of Ada for good?']], []]);
    asked.mockReturnValue(true);
    click('Remove it');
    expect(outbox.dropTake).toHaveBeenCalledExactlyOnceWith('t1');
  });
  it('whose sound was not taken are stored all the same, and go when that was seen', () => {
    open(take({ stored: true, refused: 'A recording may have 30 MB.' }));
    expect(screen.getByText('1 take stored without sound')).toBeTruthy();
    expect(document.body.textContent).toContain(': stored, without its sound');
    expect(screen.queryByRole('button', { name: 'Remove it' })).toBeNull();
    click('Good');
    expect(outbox.dropTake).toHaveBeenCalledExactlyOnceWith('t1');
  });
  it('are counted, and have no buttons while they are on their way', () => {
    open(take(), take({ id: 't2' }));
    expect(screen.getByText('2 takes waiting')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Try again' })).toBeNull();
  });
  it('whose take is stored are recordings', () => {
    open(take({ stored: true }));
    expect(screen.getByText('1 recording waiting')).toBeTruthy();
    expect(screen.getByText(/the take is stored, its recording not yet/)).toBeTruthy();
  });
  it('are not spoken of when there are none', () => {
    mount(<OutboxNote waiting={[]} />);
    expect(screen.queryByRole('button')).toBeNull();
  });
});
