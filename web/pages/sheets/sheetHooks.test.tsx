// @vitest-environment happy-dom
import { act, renderHook } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { SheetEdit } from '../../../contract/sheet.ts';
import { MOST_PARTS } from '../../../core/sheets/sheet.ts';
import { usualCount } from '../../../core/sheets/sheetKinds.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import type { SheetAnswer, SheetRequest } from '../../files/sheetMessages.ts';
import { tidyAfterEach } from '../../page.test-helper.tsx';
import { forgetDraft, keepDraft, lastDraft } from './keptDraft.ts';
import { aboutHard, addPart, changePart, drawnSheet, levelTest, movePart, newSheet, removePart } from './sheetDraft.ts';
import { sheetFile, useSheetFile } from './useSheetFile.ts';

tidyAfterEach();

const VOICE = voiceOf(undefined);
const keys = ({ parts }: SheetEdit) => parts.map(({ key }) => key);
const kinds = ({ parts }: SheetEdit) => parts.map(({ kind }) => kind);

describe('a sheet that is put together', () => {
  const sheet = () => addPart(addPart(newSheet(VOICE, null), 'how-many'), 'circle');
  it('begins with counts, and each part that comes has a key of its own', () => {
    expect(newSheet(VOICE, 'room')).toMatchObject({ classId: 'room', names: false, versions: false, paper: 'a4' });
    expect(kinds(sheet())).toEqual(['counts', 'how-many', 'circle']);
    expect(new Set(keys(sheet())).size).toBe(3);
    const without = removePart(sheet(), keys(sheet())[1]!);
    expect(new Set(keys(addPart(without, 'counts'))).size).toBe(3);
    expect(sheet().parts[0]!.count).toBe(usualCount('counts'));
  });
  it('never has more parts than fit, and never none', () => {
    let many = newSheet(VOICE, null);
    for (let i = 0; i < 20; i++) many = addPart(many, 'counts');
    expect(many.parts.length).toBe(MOST_PARTS);
    const one = newSheet(VOICE, null);
    expect(removePart(one, keys(one)[0]!)).toBe(one);
  });
  it('parts are changed, moved, and given back what is usual', () => {
    const [, second] = keys(sheet());
    const changed = changePart(sheet(), second!, { count: 3, level: 4, elements: ['half'] });
    expect(changed.parts[1]).toMatchObject({ count: 3, level: 4, elements: ['half'] });
    expect(changePart(changed, second!, { elements: undefined }).parts[1]).not.toHaveProperty('elements');
    expect(keys(movePart(sheet(), second!, 0))).toEqual([second, keys(sheet())[0], keys(sheet())[2]]);
    for (const to of [-1, 3]) expect(kinds(movePart(sheet(), second!, to))).toEqual(kinds(sheet()));
    expect(kinds(movePart(sheet(), 99, 0))).toEqual(kinds(sheet()));
  });
  it('is about what is hard, with quarters between', () => {
    for (const { elements } of aboutHard(sheet(), ['half', 'tie']).parts)
      expect(elements).toEqual(['quarter', 'half', 'tie']);
  });
  it('a test goes up four levels, two rhythms of each, in two versions', () => {
    const test = levelTest(newSheet(VOICE, null), ['half'], '3/4');
    expect(test).toMatchObject({ title: 'Test', versions: true });
    expect(test.parts.map(({ level, count, meter }) => [level, count, meter])).toEqual(
      [1, 2, 3, 4].map((level) => [level, 2, '3/4']),
    );
    expect(levelTest(newSheet(VOICE, null), [], '4/4').parts[0]).not.toHaveProperty('elements');
  });
  it('has a title on paper whatever is typed', () =>
    expect([
      drawnSheet({ ...sheet(), title: '  ' }).title,
      drawnSheet({ ...sheet(), title: ' Week 7 ' }).title,
    ]).toEqual(['Sheet', 'Week 7']));
  it('is there again after a reload: the one that was changed last, not another', () => {
    const draft = sheet();
    const was = newSheet(VOICE, null);
    keepDraft('a', draft, was);
    expect([lastDraft('a'), lastDraft('b'), lastDraft(undefined)]).toEqual([
      { id: 'a', sheet: draft, was },
      undefined,
      undefined,
    ]);
    keepDraft(undefined, draft);
    expect([lastDraft('a'), lastDraft(undefined)]).toEqual([undefined, { sheet: draft }]);
    forgetDraft();
    expect(lastDraft(undefined)).toBeUndefined();
  });
});

describe('a sheet as it is printed', () => {
  const asked: { worker: Worker; request: SheetRequest }[] = [];
  class Worker extends EventTarget {
    terminated = false;
    postMessage(request: SheetRequest) {
      asked.push({ worker: this, request });
    }
    terminate() {
      this.terminated = true;
    }
    says(answer: SheetAnswer) {
      this.dispatchEvent(new MessageEvent('message', { data: answer }));
    }
  }
  const bytes = new Uint8Array();
  const drawn = (id: number, points = 1): SheetAnswer => ({ ok: true, id, bytes, parts: [], points, pages: 1 });
  const wanted = (title: string) => ({
    sheet: drawnSheet({ ...newSheet(VOICE, null), title, seed: 1 }),
    voice: VOICE,
    names: [],
  });
  beforeEach(() => {
    asked.length = 0;
    vi.useFakeTimers();
    vi.stubGlobal('Worker', Worker);
  });

  it('is drawn when what is typed has settled, and only the newest is shown', () => {
    const { result, rerender, unmount } = renderHook(({ title }) => useSheetFile(wanted(title)), {
      initialProps: { title: 'W' },
    });
    vi.advanceTimersByTime(100);
    rerender({ title: 'We' });
    vi.advanceTimersByTime(100);
    expect(asked).toEqual([]);
    vi.advanceTimersByTime(60);
    expect(asked.map(({ request }) => request.sheet.title)).toEqual(['We']);
    const [{ worker, request }] = asked as [(typeof asked)[0]];
    rerender({ title: 'Week' });
    act(() => worker.says(drawn(request.id)));
    expect(result.current.file).toBeUndefined();
    vi.advanceTimersByTime(200);
    act(() => worker.says(drawn(asked.at(-1)!.request.id, 7)));
    expect(result.current.file?.points).toBe(7);
    act(() => worker.says({ ok: false, id: asked.at(-1)!.request.id, trouble: 'no room' }));
    expect([result.current.trouble, result.current.file?.points]).toEqual(['The sheet cannot be drawn: no room.', 7]);
    unmount();
    expect(worker.terminated).toBe(true);
  });

  it('is made once to be saved, or says what went wrong', async () => {
    vi.useRealTimers();
    const made = sheetFile(wanted('A'));
    asked[0]!.worker.says(drawn(0, 3));
    expect(await made).toMatchObject({ points: 3 });
    expect(asked[0]!.worker.terminated).toBe(true);
    const failed = sheetFile(wanted('B'));
    asked[1]!.worker.says({ ok: false, id: 0, trouble: 'no room' });
    await expect(failed).rejects.toThrow('The sheet cannot be made: no room.');
  });
});
