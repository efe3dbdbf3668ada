// @vitest-environment happy-dom
import { screen, waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { v4 as uuid } from 'uuid';
import { FakeServer, click, mount, tidyAfterEach, type, where } from '../../../page.test-helper.tsx';
import ErasedProof from './ErasedProof.tsx';
import KeptOfChild from './KeptOfChild.tsx';

tidyAfterEach();

const child = { id: uuid(), name: 'Ada', adaptations: null };
const schoolClass = {
  id: uuid(),
  name: 'Terns',
  ages: '9-10' as const,
  school: 'ta' as const,
  rests: null,
  role: 'owner' as const,
  owner: 'Ann',
  children: [child],
};
const PATH = `/classes/${schoolClass.id}/children/${child.id}`;
const ERASED = {
  name: 'Ada',
  at: 5,
  tables: [
    { table: 'children', before: 1, after: 0 },
    { table: 'takes', before: 12, after: 0 },
  ],
};

it('deletes all of a child only when its name was written, and hands on the proof', async () => {
  const server = new FakeServer({ [`${PATH}/hold`]: { why: null } });
  server.replies.set(`DELETE ${PATH}/everything`, ERASED);
  const erased = vi.fn();
  mount(<KeptOfChild schoolClass={schoolClass} child={child} onErased={erased} />);
  const button = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Delete everything' });
  expect(button().disabled).toBe(true);
  type('Write Ada to say so', 'ada');
  expect(button().disabled).toBe(true);
  type('Write Ada to say so', ' Ada ');
  click('Delete everything');
  await waitFor(() => expect(erased).toHaveBeenCalledExactlyOnceWith(ERASED));
  expect(server.log).toEqual([`DELETE ${PATH}/everything`]);
  expect(screen.getByRole('link', { name: /Save everything of Ada/ }).getAttribute('href')).toBe(
    `/api${PATH}/everything`,
  );
});

it('holds a child with a reason, and lets it go', async () => {
  const answers: Record<string, unknown> = { [`${PATH}/hold`]: { why: null } };
  const server = new FakeServer(answers);
  mount(<KeptOfChild schoolClass={schoolClass} child={child} onErased={() => undefined} />);
  await screen.findByLabelText('Why it has to be kept');
  type('Why it has to be kept', ' a report ');
  answers[`${PATH}/hold`] = { why: 'a report' };
  click('Keep it until I let it go');
  expect(await screen.findByText(/Kept beyond the school’s time: a report/)).toBeTruthy();
  expect(server.sent[0]).toEqual({ method: 'PUT', path: `${PATH}/hold`, body: { why: 'a report' } });
  click('Let it go with the rest');
  await waitFor(() => expect(server.sent[1]?.body).toEqual({ why: null }));
});

it.each([
  [0, 'Nothing of Ada is left'],
  [2, '2 rows of Ada are left'],
])('with %i rows that are left the proof says “%s”, the fullest tables first', async (after, title) => {
  void new FakeServer();
  const tables = ERASED.tables.map((one) => (one.table === 'takes' ? { ...one, after } : one));
  mount(<ErasedProof erased={{ ...ERASED, tables }} classId={schoolClass.id} />);
  expect(screen.getByRole('heading').textContent).toBe(title);
  expect(screen.getAllByRole('rowheader').map(({ textContent }) => textContent)).toEqual(['takes', 'children']);
  click('Done');
  await waitFor(() => expect(where()).toBe(`/classes/${schoolClass.id}`));
});
