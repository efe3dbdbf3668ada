// @vitest-environment happy-dom
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { v4 as uuid } from 'uuid';
import { FakeServer, click, mount, tidyAfterEach, type } from '../../page.test-helper.tsx';
import AnswersPage from './AnswersPage.tsx';
import { InvitationsCard } from './InvitationsCard.tsx';
import SchoolPage from './SchoolPage.tsx';
import { AccountsCard } from './AccountsCard.tsx';

tidyAfterEach();

const [me, open, closed] = [uuid(), uuid(), uuid()];
const member = (id: string, name: string, more: object = {}) => ({
  id,
  name,
  administrator: false,
  closed: false,
  createdAt: 1,
  ...more,
});
const STAFF = [
  member(me, 'Robin', { administrator: true }),
  member(open, 'Kim'),
  member(closed, 'Sal', { closed: true }),
];
const SCHOOL = uuid();
const PATH = `/schools/${SCHOOL}/staff`;

it('closes who is open, opens who is closed, and has no such button for oneself', async () => {
  const server = new FakeServer({ [PATH]: STAFF });
  mount(<AccountsCard schoolId={SCHOOL} self={me} />);
  await screen.findByText('administrator, you');
  expect(screen.queryByRole('button', { name: 'Close Robin' })).toBeNull();
  expect(screen.queryByRole('button', { name: 'Code for a new password for Sal' })).toBeNull();
  click('Close Kim');
  click('Open Sal');
  await waitFor(() =>
    expect(server.sent).toEqual([
      { method: 'PUT', path: `${PATH}/${open}`, body: { closed: true } },
      { method: 'PUT', path: `${PATH}/${closed}`, body: { closed: false } },
    ]),
  );
});

it('a new account gives a code for its teacher, shown until it was handed over', async () => {
  const server = new FakeServer({ [PATH]: STAFF });
  server.replies.set(`POST ${PATH}`, { code: 'abcde-fghjk-mnpqr-stuvw' });
  mount(<AccountsCard schoolId={SCHOOL} self={me} />);
  const make = await screen.findByRole<HTMLButtonElement>('button', { name: 'Make the account' });
  type('Name of a new teacher', '   ');
  expect(make.disabled).toBe(true);
  type('Name of a new teacher', ' Nel ');
  click('Make the account');
  expect(await screen.findByText('abcde-fghjk-mnpqr-stuvw')).toBeTruthy();
  expect(screen.getByText(/Give this code to/).textContent).toContain('Give this code to Nel in person');
  expect(server.sent[0]!.body).toEqual({ name: 'Nel' });
  expect(screen.getByLabelText<HTMLInputElement>('Name of a new teacher').value).toBe('');
  click('Done');
  expect(screen.queryByText('abcde-fghjk-mnpqr-stuvw')).toBeNull();
});

it('says why an account cannot be made, and keeps the name', async () => {
  const server = new FakeServer({ [PATH]: STAFF });
  server.refuses = () => ({ status: 422, code: 'name-taken', message: 'There is a Kim already.' });
  mount(<AccountsCard schoolId={SCHOOL} self={me} />);
  await screen.findByText('administrator, you');
  type('Name of a new teacher', 'Kim');
  click('Make the account');
  expect(await screen.findByText('There is a Kim already.')).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>('Name of a new teacher').value).toBe('Kim');
});

describe('invitations', () => {
  const INVITES = `/schools/${SCHOOL}/invitations`;
  it('are made for so many, shown once, and ended', async () => {
    const id = uuid();
    const server = new FakeServer({ [INVITES]: [{ id, administrator: true, left: 1, expiresAt: Date.now() }] });
    server.replies.set(`POST ${INVITES}`, { code: 'abcde-fghjk' });
    mount(<InvitationsCard schoolId={SCHOOL} />);
    await screen.findByText('for administrators');
    type('For how many', '12');
    click('Make an invitation');
    expect(await screen.findByText('abcde-fghjk')).toBeTruthy();
    expect(server.sent[0]).toEqual({ method: 'POST', path: INVITES, body: { uses: 12, administrator: false } });
    click('Done');
    expect(screen.queryByText('abcde-fghjk')).toBeNull();
    click('End it');
    await waitFor(() => expect(server.log.at(-1)).toBe(`DELETE ${INVITES}/${id}`));
  });
});

describe('the page of a school', () => {
  const KEEPS = { takes: 365, recordings: null, terms: null, left: 90 };
  const school = { id: SCHOOL, name: 'Marrow Lane', zone: 'Europe/Berlin', language: null, retention: KEEPS };
  const at = (administrator: boolean) => ({
    id: me,
    name: 'Robin',
    schools: [{ id: SCHOOL, name: 'Marrow Lane', as: 'Robin', administrator }],
  });
  const answers = (more: object = {}) => ({
    [`/schools/${SCHOOL}`]: { ...school, retentionFrom: 0, ...more },
    [`/schools/${SCHOOL}/cleared`]: [{ night: '2026-12-01', kind: 'takes', removed: 31 }],
    [PATH]: STAFF,
    [`/schools/${SCHOOL}/invitations`]: [],
    [`/schools/${SCHOOL}/would-go?takes=120&recordings=&terms=&left=90`]: {
      takes: 7,
      recordings: 0,
      terms: 2,
      held: 3,
    },
    [`/schools/${SCHOOL}/would-go?takes=365&recordings=&terms=&left=90`]: {
      takes: 0,
      recordings: 0,
      terms: 0,
      held: 0,
    },
  });

  it('tells a teacher how long things are kept and what went, and offers nothing to change', async () => {
    const server = new FakeServer(answers({ retentionFrom: Date.now() + 5 * 86_400_000 }));
    mount(<SchoolPage teacher={at(false)} />, '/school');
    expect((await screen.findByText('Takes and their marks')).nextSibling?.textContent).toBe('1 year');
    expect(screen.getByText('Children and classes in the bin').nextSibling?.textContent).toBe('90 days');
    expect(screen.getByText(/until then nothing is removed/)).toBeTruthy();
    expect((await screen.findByText('31')).parentElement?.textContent).toContain('takes');
    expect(screen.queryByRole('button')).toBeNull();
    expect(server.sent).toEqual([]);
  });

  it('says what would go before an administrator sets a shorter time', async () => {
    const server = new FakeServer(answers());
    mount(<SchoolPage teacher={at(true)} />, '/school');
    const takes = await screen.findByLabelText<HTMLSelectElement>('Takes and their marks');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keep these settings' }).disabled).toBe(true);
    fireEvent.change(takes, { target: { value: '120' } });
    expect(await screen.findByText(/With these times 7 takes, 0 recordings and 2 closed terms/)).toBeTruthy();
    expect(screen.getByText(/3 takes are held/)).toBeTruthy();
    click('Keep these settings');
    await waitFor(() => expect(server.sent).toHaveLength(1));
    const { id: _id, ...edit } = school;
    expect(server.sent[0]!.body).toEqual({ ...edit, retention: { ...KEEPS, takes: 120 } });
  });

  it('answers what parents ask with the times of the school', async () => {
    void new FakeServer(answers());
    mount(<AnswersPage teacher={at(false)} />, '/school/answers');
    expect(await screen.findByText('What was clapped, and its marks: 1 year')).toBeTruthy();
    expect(screen.getByText('Marrow Lane: what is kept of children')).toBeTruthy();
  });
});
