// @vitest-environment happy-dom
import { screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { expect, it, vi } from 'vitest';
import { type Plan, READY_PLANS } from '../../../core/leading/plan.ts';
import { FakeServer, click, mount, tidyAfterEach, type } from '../../page.test-helper.tsx';
import { KeepPlan } from './KeepPlan.tsx';

tidyAfterEach();

const { id: _id, ...READY } = READY_PLANS()[0]!;
const OWN = { ...READY, title: 'Mine', fades: true, study: 8, id: 'plan' };

function Keeping({ own, onKept }: { own: typeof OWN | undefined; onKept: (id: string) => void }) {
  const [plan, setPlan] = useState<Plan>({ ...OWN, twoLines: true, study: 9, countInWords: ['one', '', 'go'] });
  return (
    <>
      <output>{`${plan.title} ${plan.countIn}`}</output>
      <KeepPlan plan={plan} own={own} onChange={setPlan} onKept={onKept} onRemoved={() => onKept('gone')} />
    </>
  );
}

function open(own?: typeof OWN) {
  const server = new FakeServer();
  const kept = vi.fn();
  mount(<Keeping own={own} onKept={kept} />);
  return { server, kept };
}
const shown = () => document.querySelector('output')!.textContent;

it('keeps all that a plan says, and what it was made from', async () => {
  const { server } = open(OWN);
  type('Name of the plan', 'Ours');
  const { id: _own, ...was } = OWN;
  const sent = { ...was, title: 'Ours', twoLines: true, study: 9, countInWords: ['one', 'go'] };
  server.replies.set('PUT /plans/plan', { ...sent, countIn: 'two-beats', id: 'plan' });
  click('Save');
  await screen.findByText('Saved');
  expect(server.sent).toEqual([{ method: 'PUT', path: '/plans/plan', body: { ...sent, was } }]);
  // What another device changed meanwhile is shown, too.
  expect(shown()).toBe('Ours two-beats');
});

it('shows both where another device changed the same, in words', async () => {
  const { server } = open(OWN);
  const { id: _own, ...was } = OWN;
  const theirs = { ...was, divided: true, study: 4 };
  server.refuses = () => ({
    status: 409,
    code: 'clash',
    message: 'both',
    theirs,
    parts: ['twoLines', 'study'],
  });
  click('Save');
  await screen.findByRole('alert', { name: 'Changed by somebody else' });
  expect(screen.getAllByRole('rowheader').map(({ textContent }) => textContent)).toEqual([
    'Two lines: rhythm above, beat below',
    'Seconds to look first',
  ]);
  server.refuses = () => undefined;
  server.replies.set('PUT /plans/plan', { ...theirs, title: 'Settled', id: 'plan' });
  click('Keep all of mine');
  await waitFor(() => expect(shown()).toMatch(/^Settled/));
  expect(server.sent[1]!.body).toMatchObject({ twoLines: true, divided: true, study: 9, was: theirs });
});

it('as new it has another address, and is not made from anything', async () => {
  const { server, kept } = open();
  expect(screen.queryByRole('button', { name: 'Save' })).toBeNull();
  click('Save as new');
  await waitFor(() => expect(kept).toHaveBeenCalledOnce());
  expect(server.sent[0]!.path).toBe(`/plans/${kept.mock.calls[0]![0]}`);
  expect(server.sent[0]!.body).not.toHaveProperty('was');
});

it('is removed', async () => {
  const { server, kept } = open(OWN);
  click('Remove');
  await waitFor(() => expect(kept).toHaveBeenCalledWith('gone'));
  expect(server.log).toEqual(['DELETE /plans/plan']);
});
