// @vitest-environment happy-dom
import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { v4 as uuid } from 'uuid';
import type { ShelfItemWhole, ShelfThing } from '../../../contract/schoolShelf.ts';
import type { TermPlanEdit } from '../../../contract/termPlan.ts';
import { FakeServer, click, mount, tidyAfterEach, type, where } from '../../page.test-helper.tsx';
import ShelfPage from './ShelfPage.tsx';
import { readShelfFile, shelfFileText } from './shelfFile.ts';
import { lessonThing, linesThing, sheetThing, termThing } from './shelfThings.ts';
import { copyOf } from './takeCopy.ts';

tidyAfterEach();

const SCHOOL = uuid();
const PATH = `/schools/${SCHOOL}/shelf`;
const FROM = 'Noor Tide, Hill School';
const teacher = {
  id: uuid(),
  name: 'Robin',
  schools: [{ id: SCHOOL, name: 'Marrow Lane', as: 'Robin', administrator: false }],
};
const pattern = (title: string, text: string, more: object = {}) => ({ id: uuid(), title, text, ...more });
const ids = () => {
  let n = 0;
  return () => `new-${++n}`;
};
const maker = (own: ReturnType<typeof pattern>[] = []) => ({ from: FROM, own, newId: ids() });

describe('a copy from the shelf', () => {
  it('of lines: each rhythm once, in the folder, with who made it; what is there already is not copied', () => {
    const own = pattern('A', '4/4 w');
    const thing = linesThing([own, pattern('B', '4/4 h h'), pattern('B', '4/4 h h')]);
    expect(copyOf(thing, maker([own]), { folder: 'From the shelf' })).toEqual({
      to: '/patterns',
      writes: [
        { path: '/patterns/new-1', body: { title: 'B', text: '4/4 h h', folder: 'From the shelf', from: FROM } },
      ],
    });
  });

  it('of a lesson: for a class, of no day, with the patterns it needs', () => {
    const at = { patternId: uuid(), title: 'A', text: '4/4 w' };
    const lesson = {
      title: 'Monday',
      minutes: 40,
      day: '2026-09-28',
      starts: '09:40',
      held: { at: 5, seconds: 9, leftOut: [] },
      blocks: [
        { key: 0, kind: 'lead' as const, patterns: [at], steps: [] },
        { key: 1, kind: 'read' as const, patterns: [at], steps: [] },
      ],
    };
    const thing = lessonThing(lesson);
    expect(copyOf(thing, maker(), { folder: 'F' })).toBeUndefined();
    const copy = copyOf(thing, maker(), { folder: 'F', classId: 'c' })!;
    expect(copy.to).toBe('/plan/c/new-1');
    expect(copy.writes.map(({ path }) => path)).toEqual(['/patterns/new-2', '/classes/c/lessons/new-1']);
    expect(copy.writes[1]!.body).toMatchObject({ title: 'Monday', day: null, starts: null, held: null, from: FROM });
    const { blocks } = copy.writes[1]!.body as typeof lesson;
    expect(blocks.map(({ patterns }) => patterns[0]!.patternId)).toEqual(['new-2', 'new-2']);
  });

  it('of a term: into the days of the class, what does not fit waits beside it', () => {
    const step = { element: 'half', step: 'meet' } as const;
    const term: TermPlanEdit = {
      from: '2026-09-07',
      until: '2026-09-20',
      slots: [{ weekday: 0, starts: '09:00', minutes: 40 }],
      holidays: [],
      order: [],
      contents: [],
      left: [],
    };
    const thing = termThing({ ...term, order: ['half'], contents: [[step], [], [step]] });
    expect(copyOf(thing, maker(), { folder: 'F', classId: 'c', term: null })).toBeUndefined();
    expect(copyOf(thing, maker(), { folder: 'F', classId: 'c', term })!.writes).toEqual([
      {
        path: '/classes/c/term-plan',
        body: { ...term, order: ['half'], contents: [[step], []], left: [step], was: term },
      },
    ]);
  });

  it('of a sheet: without the class it was for and its names', () => {
    const sheet = {
      title: 'Week 7',
      seed: 1,
      paper: 'a4' as const,
      large: false,
      versions: false,
      bpm: 72,
      parts: [{ key: 0, kind: 'sums' as const, count: 4, level: 2 as const }],
      classId: uuid(),
      names: true,
      counts: { school: 'ta' as const },
      naming: 'quarters' as const,
    };
    const thing = sheetThing({ id: uuid(), ...sheet });
    expect(JSON.stringify(thing)).not.toContain(sheet.classId);
    const [write] = copyOf(thing, maker(), { folder: 'F' })!.writes;
    expect(write!.body).toEqual({ ...sheet, classId: null, names: false, from: FROM });
  });
});

describe('a file of a shelf', () => {
  const item: ShelfItemWhole = {
    id: uuid(),
    title: 'Steps',
    about: '',
    kind: 'pattern',
    from: FROM,
    mine: false,
    putAt: 1,
    thing: { kind: 'pattern', pattern: { title: 'Steps', text: '4/4 q q h' } },
  };
  it('comes back as it was saved', () => {
    expect(readShelfFile(shelfFileText([item]))).toMatchObject({
      items: [{ title: 'Steps', about: '', from: FROM, thing: item.thing }],
    });
  });
  it.each(['', '{}', '{"kind":"clapboard-class"}', shelfFileText([])])('%s is none', (text) => {
    expect(readShelfFile(text)).toContain('no file of a school');
  });
});

describe('the shelf', () => {
  const thing: ShelfThing = { kind: 'pattern', pattern: { title: 'Steps', text: '4/4 q q h' } };
  const listed = (title: string, more: object = {}) => ({
    id: uuid(),
    title,
    about: 'a word',
    kind: 'pattern',
    from: FROM,
    mine: false,
    putAt: 1,
    ...more,
  });

  it('shows what is looked for, opens it, and takes a copy', async () => {
    const [steps, rope] = [listed('Steps'), listed('Rope', { mine: true, kind: 'lesson' })];
    const answers = { [PATH]: [steps, rope], [`${PATH}/${steps.id}`]: { ...steps, thing }, '/patterns': [] };
    const server = new FakeServer({ ...answers, '/classes': [] });
    mount(<ShelfPage teacher={teacher} />, '/shelf');
    await screen.findByText('Rope');
    expect(screen.getAllByRole('button', { name: /^Take/ })).toHaveLength(1);
    type('Find on the shelf', 'noor');
    expect(screen.getByText('Rope')).toBeTruthy();
    type('Find on the shelf', 'steps');
    expect(screen.queryByText('Rope')).toBeNull();
    click('Look at “Steps”');
    await screen.findByRole('button', { name: 'Hear “Steps”' });
    await waitFor(() =>
      expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Take a copy' }).disabled).toBe(false),
    );
    click('Take a copy');
    await waitFor(() => expect(where()).toMatch(/^\/patterns\/.{36}$/));
    expect(server.sent[0]).toMatchObject({ method: 'PUT', body: { folder: 'From the shelf', from: FROM } });
  });

  it('lays out what another page asks for, under a name of its own', async () => {
    const mine = pattern('Mine', '4/4 w');
    const server = new FakeServer({
      [PATH]: [],
      '/patterns': [pattern('Other', '4/4 h h'), mine],
      '/plans': [],
      '/sheets': [],
      '/classes': [],
    });
    mount(<ShelfPage teacher={teacher} />, `/shelf?lay=pattern:${mine.id}`);
    await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('What it is called there').value).toBe('Mine'));
    type('What it is called there', ' Deep breath ');
    click('Lay it on the shelf');
    await waitFor(() => expect(server.sent).toHaveLength(1));
    expect(server.sent[0]!.body).toEqual({
      title: 'Deep breath',
      about: '',
      thing: { kind: 'pattern', pattern: { title: 'Mine', text: '4/4 w' } },
    });
    expect(server.sent[0]!.path).toMatch(new RegExp(`^${PATH}/.{36}$`));
    await waitFor(() => expect(screen.queryByText('Lay it on the shelf')).toBeNull());
  });

  it('says why something may not lie there, and keeps what was typed', async () => {
    const server = new FakeServer({
      [PATH]: [],
      '/patterns': [pattern('A', '4/4 w')],
      '/plans': [],
      '/sheets': [],
      '/classes': [],
    });
    server.refuses = () => ({ status: 422, code: 'names-a-child', message: '“Mia” is a child of Terns.' });
    mount(<ShelfPage teacher={teacher} />, '/shelf?lay=pattern');
    await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('What it is called there').value).toBe('A'));
    type('A word on it', 'for Mia');
    click('Lay it on the shelf');
    expect(await screen.findByText('“Mia” is a child of Terns.')).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('A word on it').value).toBe('for Mia');
  });
});
