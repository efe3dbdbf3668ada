// @vitest-environment happy-dom
import { screen, waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import type { SavedSheet, SheetEdit } from '../../../contract/sheet.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import { FakeServer, click, mount, tidyAfterEach, where } from '../../page.test-helper.tsx';
import { KeepSheet } from './KeepSheet.tsx';
import { editOf, newSheet } from './sheetDraft.ts';

tidyAfterEach();

const WAS = { ...newSheet(voiceOf(undefined), null), title: 'Week 3' };
const SAVED: SavedSheet = { ...WAS, id: 'sheet' };
const CLASSES = [{ id: 'room', name: 'Harbour 2' }];

function open(sheet: SheetEdit, saved?: SavedSheet) {
  const server = new FakeServer();
  const onKept = vi.fn();
  const was = saved && editOf(saved);
  mount(<KeepSheet sheet={sheet} saved={saved} was={was} classes={CLASSES} onKept={onKept} />, '/sheets/here');
  return { server, onKept };
}

it('says what a sheet was made from, and goes on with what the server came to', async () => {
  const mine = { ...WAS, title: ' Week 4 ' };
  const { server, onKept } = open(mine, SAVED);
  const now = { ...mine, title: 'Week 4', large: true };
  server.replies.set('PUT /sheets/sheet', { ...now, id: 'sheet' });
  click('Save the changes');
  await waitFor(() => expect(onKept).toHaveBeenCalledOnce());
  expect(server.sent).toEqual([{ method: 'PUT', path: '/sheets/sheet', body: { ...mine, title: 'Week 4', was: WAS } }]);
  expect(onKept).toHaveBeenCalledWith(now);
  // The next change is made from that, not from what was sent.
  click('Save the changes');
  await waitFor(() => expect(server.sent).toHaveLength(2));
  expect(server.sent[1]!.body).toMatchObject({ was: { large: true } });
});

it('shows both where another device changed the same, in words', async () => {
  const { server, onKept } = open({ ...WAS, classId: 'room', counts: { school: 'takadimi' } }, SAVED);
  const theirs = { ...WAS, classId: null, counts: { school: 'ta' } };
  server.refuses = () => ({ status: 409, code: 'clash', message: 'both', theirs, parts: ['classId', 'counts'] });
  click('Save the changes');
  await screen.findByRole('alert', { name: 'Changed by somebody else' });
  expect(screen.getAllByRole('rowheader').map(({ textContent }) => textContent)).toEqual(['Class', 'Counting']);
  const cells = screen.getAllByRole('cell').map(({ textContent }) => textContent);
  expect(cells.slice(1)).toEqual([
    'no class',
    'Harbour 2',
    'Counts as: Ta ti (by value)',
    'Counts as: Takadimi (by place in the beat)',
  ]);
  click('Leave what is there');
  await waitFor(() => expect(onKept).toHaveBeenCalledWith(theirs));
  expect(screen.queryByRole('alert')).toBeNull();
});

it('a new one gets an address of its own, and nothing it was made from', async () => {
  const { server } = open(WAS);
  click('Keep this sheet');
  await waitFor(() => expect(where()).toMatch(/^\/sheets\/[0-9a-f-]{36}$/));
  expect(server.sent[0]!.path).toBe(where());
  expect(server.sent[0]!.body).toEqual(WAS);
});

it('is thrown away when that is meant', async () => {
  const { server } = open(WAS, SAVED);
  const asked = vi.fn().mockReturnValueOnce(false).mockReturnValueOnce(true);
  vi.stubGlobal('confirm', asked);
  click('Throw this sheet away');
  click('Throw this sheet away');
  await waitFor(() => expect(where()).toBe('/sheets'));
  expect([asked.mock.calls.length, server.log]).toEqual([2, ['DELETE /sheets/sheet']]);
});
