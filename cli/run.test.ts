import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import wavefile from 'wavefile';
import { mxlOf } from '../core/formats/mxl.ts';
import { clickedTake } from '../core/listening/clickedTake.ts';
import { synthesiseClaps } from '../core/sound/clapSynth.ts';
import { synthesiseClass } from '../core/sound/classSynth.ts';
import { wavFile } from '../core/sound/wav.ts';
import { COMMANDS, commandIn } from './commands.ts';
import { endOf, run } from './run.ts';
import { few } from '../scripts/test/trial.test-helper.ts';

/** One command, in this process. */
async function clapboard(args: readonly string[], input = '') {
  const [out, err]: [string[], string[]] = [[], []];
  let code = 0;
  const io = {
    lines: async function* () {
      await Promise.resolve();
      yield* input.split('\n');
    },
    text: (file: string | undefined) => (file === undefined ? input : readFileSync(file, 'utf8')),
    out: (text: string) => void out.push(text),
    note: (text: string) => void err.push(text),
  };
  await run(args, io).catch((error: NodeJS.ErrnoException) => {
    const end = endOf(error);
    code = end.code;
    err.push(end.said);
  });
  return { out: out.join('\n').trim(), err: err.join('\n').trim(), code };
}

const lines = (...requests: readonly (object | string)[]) =>
  requests.map((request) => (typeof request === 'string' ? request : JSON.stringify(request))).join('\n');
const answers = (out: string) => out.split('\n').map((line) => JSON.parse(line) as Record<string, unknown>);

const TAKE = { pattern: '4/4 q q e e q', bpm: 60, onsets: [0, 1, 2, 2.5, 3] };

it.each([['listen'], ['score'], ['convert', 'out.txt']])('%s names a file that is not there', async (verb, ...more) => {
  const { err, code } = await clapboard([verb, '/nowhere/a.wav', ...more]);
  expect([code, err]).toEqual([2, 'clapboard: no such file or folder: /nowhere/a.wav']);
});

describe('the command itself', () => {
  const command = (args: readonly string[], input = '') => {
    const { stdout, stderr, status } = spawnSync('bin/clapboard', args, { input, encoding: 'utf8' });
    return { out: stdout, err: stderr, code: status };
  };
  it('reads standard input, writes a line a result, and ends well', async () => {
    const requests = lines({ id: 1, ...TAKE }, { id: 2, pattern: 'x', bpm: 60, onsets: [] });
    const { out, err, code } = command(['score', '--batch'], requests);
    expect([err, code]).toEqual(['', 0]);
    expect(out).toBe(`${(await clapboard(['score', '--batch'], requests)).out}\n`);
    expect(command(['score'], JSON.stringify(TAKE)).out).toBe(
      `${(await clapboard(['score'], JSON.stringify(TAKE))).out}\n`,
    );
  });
  it('ends with 2 and one line where the user can mend it', () =>
    expect(command(['count', '--school', 'none', 'q'])).toEqual({
      out: '',
      err: expect.stringMatching(/^clapboard: .*\n$/) as unknown,
      code: 2,
    }));
  it('notes stand beside the results, not among them', () => {
    const { out, err, code } = command(['make', '--elements', 'quarter', '--measures', '1', '--count', '3']);
    expect(code).toBe(0);
    expect(err).toMatch(/\S\n$/);
    for (const line of out.trim().split('\n')) JSON.parse(line);
  });
});

describe('help', () => {
  const verbs = Object.entries(COMMANDS) as [string, { options: readonly string[]; example: string }][];
  it('names every verb, with nothing or with --help', async () => {
    const { out, code } = await clapboard(['--help']);
    expect([code, (await clapboard([])).out]).toEqual([0, out]);
    for (const [verb, { example }] of verbs) {
      expect(out).toContain(`\n  ${verb} `);
      expect(example.split(' ')[0]).toBe(verb);
    }
  });
  it.each(verbs)('%s says what it takes, and nothing else is taken', async (verb, { options, example }) => {
    for (const asked of [
      [verb, '--help'],
      ['help', verb],
    ]) {
      const { out, code } = await clapboard(asked);
      expect([code, out.split('For example: clapboard ')[1]]).toEqual([0, example]);
      const names = [...out.matchAll(/^ {2}--([a-z-]+)/gm)].map(([, name]) =>
        name!.replace(/-(.)/g, (_, letter: string) => letter.toUpperCase()),
      );
      expect(names).toEqual(options);
    }
    const { err, code } = await clapboard([verb, '--quay', '3']);
    expect([code, err]).toEqual([2, "clapboard: unknown option '--quay'"]);
  });
  it('an example is taken as it stands', () => {
    for (const [verb, { example }] of verbs) {
      const words = example.replace(/ <.*/, '').match(/"[^"]*"|\S+/g)!;
      expect(commandIn(words.map((word) => word.replaceAll('"', '')))).toMatchObject({ verb });
    }
  });
});

describe('count', () => {
  it('prints plain tokens', async () =>
    expect(await clapboard(['count', '--school', 'numbers', '--plain', '4/4 q. e q (q)'])).toEqual({
      out: '1-₂ & 3 (4)',
      err: '',
      code: 0,
    }));
  it('prints JSON, with the rest style and the counted value', async () => {
    const { out } = await clapboard(['count', '--school', 'numbers', '--rests', 'rest', '--beat', 'e', '6/8 q. (q.)']);
    expect(JSON.parse(out)).toMatchObject({
      plain: '1-2-3 rest-rest-rest',
      measures: [
        {
          number: 1,
          tokens: [
            { kind: 'note', beat: '1' },
            { kind: 'rest', beat: '4' },
          ],
        },
      ],
    });
  });
  it('answers batches line by line, in order, errors with their id', async () => {
    const { out, code } = await clapboard(
      ['count', '--batch'],
      lines(
        { id: 1, text: '4/4 q h q', school: 'ta' },
        { id: 'b', text: '4/4 x', school: 'ta' },
        { text: '4/4 q', school: 'none' },
        'no json',
        { id: 2, text: 'h h', school: 'numbers', rests: 'sh' },
      ),
    );
    const [first, unread, noSchool, noJson, last] = answers(out);
    expect(code).toBe(0);
    expect(first).toMatchObject({ id: 1, plain: 'ta ta-a ta' });
    expect(unread).toEqual({ id: 'b', error: expect.stringContaining('line 1, column 5') as unknown });
    expect(noSchool!['error']).toContain('school must be one of: numbers');
    expect(noJson!['error']).toContain('not JSON');
    expect(last).toMatchObject({ id: 2, plain: '1-2 3-4' });
  });
});

describe('check', () => {
  it('says each measure’s total', async () => {
    expect(JSON.parse((await clapboard(['check', '4/4 ^ q | q. q e | h.'])).out)).toEqual({
      ok: false,
      measures: [
        { number: 0, total: '1', expected: '4', verdict: 'pickup' },
        { number: 1, total: '3', expected: '4', verdict: 'short' },
        { number: 2, total: '3', expected: '3', verdict: 'full' },
      ],
    });
  });
  it('answers batches', async () =>
    expect(answers((await clapboard(['check', '--batch'], lines({ id: 7, text: 'w' }))).out)).toEqual([
      { id: 7, ok: true, measures: [{ number: 1, total: '4', expected: '4', verdict: 'full' }] },
    ]));
});

describe('say', () => {
  const said = async (...args: string[]) =>
    JSON.parse((await clapboard(['say', ...args])).out) as { text: string; others: string[]; school: string };
  it('writes what is spoken', async () =>
    expect((await said('--school', 'ta', 'ta ti-ti ta-a')).text).toBe('4/4 q e e h'));
  it('takes a meter and finds the school', async () =>
    expect(await said('--meter', '6/8', '1 la li 2')).toMatchObject({ text: '6/8 e e e q.', school: 'numbers' }));
  it('gives other readings', async () =>
    expect(await said('--school', 'numbers', '1 3')).toMatchObject({
      text: '4/4 h h',
      others: expect.arrayContaining(['4/4 q (q) q (q)']) as unknown,
    }));
  it('says which word it cannot read', async () =>
    expect(await clapboard(['say', '--school', 'ta', 'ta zup'])).toMatchObject({
      code: 2,
      err: expect.stringContaining('column 4') as unknown,
    }));
});

describe('score', () => {
  it('says how much: milliseconds, measures, beats', async () => {
    const amounts = async (pattern: string, onsets: readonly number[]) => {
      const { out } = await clapboard(['score'], JSON.stringify({ pattern, bpm: 60, onsets }));
      return (JSON.parse(out) as { misreadings: object[] }).misreadings[0];
    };
    const text = '4/4 q q h | e e e e h | h q q | q. e h';
    const beats = [0, 1, 2, 4, 4.5, 5, 5.5, 6, 8, 10, 11, 12, 13.5, 14];
    expect(
      await amounts(
        text,
        beats.map((beat) => beat + 0.25),
      ),
    ).toMatchObject({ code: 'behind-the-click', ms: 250 });
    expect(await amounts(text, [0, 1, 2, 8, 10, 11, 12, 13.5, 14])).toMatchObject({ code: 'measure-silent', count: 1 });
    expect(
      await amounts(
        text,
        beats.map((beat) => beat + 2),
      ),
    ).toMatchObject({ code: 'entered-late', beats: '2' });
  });

  it('reads one request from standard input or a file', async () => {
    const file = join(mkdtempSync(join(tmpdir(), 'take-')), 'take.json');
    writeFileSync(file, JSON.stringify(TAKE));
    const fromInput = await clapboard(['score'], JSON.stringify(TAKE));
    expect(JSON.parse(fromInput.out)).toMatchObject({
      accuracy: 1,
      mark: 4,
      heard: TAKE.pattern,
      misreadings: [],
      follow: [],
      extras: [],
    });
    expect((await clapboard(['score', file])).out).toBe(fromInput.out);
  });
  it('answers batches', async () => {
    const out = answers(
      (
        await clapboard(
          ['score', '--batch'],
          lines(
            { id: 'a', ...TAKE },
            { id: 'b', ...TAKE, bpm: 0 },
            { id: 'c', ...TAKE, onsets: [2, 1] },
            { id: 'd', ...TAKE, onsets: ['x'] },
          ),
        )
      ).out,
    );
    expect(out.map(({ id, mark, error }) => [id, mark, error])).toEqual([
      ['a', 4, undefined],
      ['b', undefined, expect.stringContaining('bpm') as unknown],
      ['c', undefined, expect.stringContaining('sorted') as unknown],
      ['d', undefined, expect.stringContaining('onsets.0 must be number') as unknown],
    ]);
  });
});

describe('marks of another scale', () => {
  const nearly = { ...TAKE, onsets: TAKE.onsets.slice(0, -1) };
  const markIn = async (...scale: string[]) =>
    (JSON.parse((await clapboard(['score', '--scale', ...scale], JSON.stringify(nearly))).out) as { mark: unknown })
      .mark;
  it('are numbers where it has numbers, else its words', async () => {
    expect(
      await Promise.all(['0-4', '1-5', '6-1', 'A-F', 'A-D,F', '0-10', 'percent'].map((one) => markIn(one))),
    ).toEqual([3, 4, 3, 'C', 'B', 8, 80]);
    expect(await markIn('starting, on the way ,secure')).toBe('on the way');
  });
  it('stand in the request, or on the command line for all of a batch', async () => {
    const requests = lines({ ...TAKE }, { ...TAKE, scale: '6-1' }, { ...TAKE, scale: ['a', 'A', 'b'] });
    const out = answers((await clapboard(['score', '--batch', '--scale', 'A-F'], requests)).out);
    expect(out.map(({ mark, error }) => mark ?? error)).toEqual(['A', 1, 'scale: two steps have the same word']);
  });
  it('are read as they are given, and lead to the same next step', async () => {
    const at = (day: number, mark: unknown) => ({ child: 'Ada', takenAt: day, ...TAKE, mark });
    const next = async (scale: string, ...marks: unknown[]) => {
      const { out } = await clapboard(
        ['records', '--batch', '--scale', scale, '--now', '9'],
        lines(...marks.map((mark, day) => at(day, mark))),
      );
      return answers(out).map(({ next: step, error }) => (step as { kind: string } | undefined)?.kind ?? error);
    };
    expect(await next('6-1', 1, 1)).toEqual(['faster']);
    expect(await next('6-1', 2, 2)).toEqual(['again']);
    expect(await next('A-D,F', 'd', 'F')).toEqual(['half-speed']);
    expect(await next('0-4', 4, 4)).toEqual(['faster']);
    expect((await next('A-F', 'G'))[0]).toContain('“G” is none of A to F: expected F to A');
    expect((await next('0-4', 5))[0]).toContain('expected 0 to 4');
  });
  it.each([
    ['1-6', '--scale takes 0-4'],
    ['a,b', '3 to 6 words'],
  ])('--scale %s: %s', async (scale, words) => {
    const { code, err } = await clapboard(['score', '--scale', scale], JSON.stringify(TAKE));
    expect([code, err]).toEqual([2, expect.stringContaining(words)]);
  });
});

describe('records', () => {
  const take = (child: string, day: number, onsets: readonly number[], more: object = {}) => ({
    child,
    takenAt: Date.UTC(2026, 8, day, 9),
    pattern: '4/4 q q e e q | q. e h',
    bpm: 60,
    onsets,
    ...more,
  });
  const right = [0, 1, 2, 2.5, 3, 4, 5.5, 6];
  const standing = (out: string) =>
    answers(out) as unknown as {
      child: string;
      elements: { element: string; heard: number; right: number; state: string; lastSeen: unknown }[];
      next: object;
    }[];
  const book = async (now: string | undefined, ...takes: object[]) =>
    standing(
      (await clapboard(['records', '--batch', ...(now === undefined ? [] : ['--now', now])], lines(...takes))).out,
    );

  it('says how each child stands, element by element, and what comes next', async () => {
    const days = [3, 1, 2, 4].map((day) => take('Ada', day, right));
    const [ada, bo] = await book('2026-09-05T00:00:00Z', ...days, take('Bo', 1, right, { mark: 2 }), take('Bo', 2, []));
    expect(ada!.elements).toEqual(
      ['quarter', 'eighth-pair', 'half', 'dotted-quarter'].map((element) => ({
        element,
        heard: 4,
        right: 1,
        state: 'firm',
        places: { right: element === 'quarter' ? 12 : 4, misread: 0, notTold: 0 },
        sure: expect.any(Number) as number,
        lastSeen: Date.UTC(2026, 8, 4, 9),
      })),
    );
    expect(ada!.next).toMatchObject({ kind: 'faster', bpm: 76, pattern: days[0]!.pattern });
    // A take without a clap says nothing of what it was to be.
    expect(bo!.elements.map(({ state, right: part }) => `${state} ${part}`)).toEqual([
      'growing 1',
      ...Array<string>(3).fill('new 1'),
    ]);
    expect(bo!.elements[0]).toMatchObject({ places: { right: 3, misread: 0, notTold: 3 } });
    expect(bo!.next).toMatchObject({ kind: 'measure', measure: 1 });
  });
  it('what was firm is due when not heard for three weeks; a term that is over is read as it ended', async () => {
    const days = [1, 2, 3, 4].map((day) => take('Ada', day, right));
    const state = async (now?: string, more: object[] = []) =>
      (await book(now, ...days, ...more))[0]!.elements[0]!.state;
    expect([await state('2026-09-25T08:59:00Z'), await state('2026-09-25T09:00:00Z')]).toEqual(['firm', 'due']);
    expect(await state(String(Date.UTC(2026, 8, 26)))).toBe('due');
    const long = days.map((one) => ({ ...one, takenAt: one.takenAt - 1e12 }));
    expect((await book(undefined, ...long))[0]!.elements[0]!.state).toBe('firm');
    const ago = (weeks: number) =>
      days.map((one, i) => ({ ...one, takenAt: Date.now() - (7 * weeks - i) * 86_400_000 }));
    const stateOf = async (takes: object[]) => (await book(undefined, ...takes))[0]!.elements[0]!.state;
    expect([await stateOf(ago(1)), await stateOf(ago(5))]).toEqual(['firm', 'due']);
  });
  it('dates in words keep their own day, and come back as they were given', async () => {
    const at = async (...times: string[]) =>
      (await book('2026-09-09T00:00:00Z', ...times.map((takenAt) => take('Ada', 1, right, { takenAt }))))[0]!
        .elements[0]!;
    const morning = '2026-09-03T09:00:00+13:00';
    expect((await at(...Array<string>(3).fill(morning), '2026-09-03T14:00:00+13:00')).state).toBe('growing');
    expect(await at(...Array<string>(3).fill(morning), '2026-09-04T09:00:00+13:00')).toMatchObject({
      state: 'firm',
      lastSeen: '2026-09-04T09:00:00+13:00',
    });
  });
  it('a line that cannot be read says which it was, the others count', async () => {
    const { out, code } = await clapboard(
      ['records', '--batch'],
      lines(take('Ada', 1, right), '{', take('Bo', 1, right, { takenAt: 'soon' }), take('Cy', 1, [2, 1])),
    );
    expect(code).toBe(0);
    expect(answers(out)).toMatchObject([{ line: 2 }, { line: 3 }, { line: 4 }, { child: 'Ada' }]);
    expect((await clapboard(['records'])).err).toContain('records --batch');
    expect((await clapboard(['records', '--batch', '--now', 'later'], '')).code).toBe(2);
  });
});

describe('ear', () => {
  const ear = (...args: readonly string[]) => clapboard(['ear', ...args]);

  it('choose: a line a question, from a text or from elements', async () => {
    const { out, code } = await ear('choose', '--seed', '3', '--count', '2', '--text', '4/4 q (q) e e q');
    expect(code).toBe(0);
    const asked = answers(out);
    expect(asked).toHaveLength(2);
    for (const { options, answer, reasons } of asked as { options: string[]; answer: number; reasons: object[] }[]) {
      expect(options[answer]).toBe('4/4 q (q) e e q');
      expect(reasons).toHaveLength(3);
      for (const reason of reasons)
        expect(Object.keys(reason)).toEqual(['option', 'measure', 'beat', 'claps', 'hasClaps', 'sentence']);
    }
    const made = (await ear('choose', '--seed', '3', '--elements', 'quarter, half', '--meter', '3/4', '--beats', '6'))
      .out;
    expect((JSON.parse(made) as { options: string[] }).options).toContainEqual(expect.stringMatching(/^3\/4 .+ \| /));
  });
  it('write: measure by measure', async () =>
    expect(JSON.parse((await ear('write', '--text', '4/4 q q h', '--answer', '4/4 q q e e q')).out)).toMatchObject({
      right: false,
      sameSound: false,
      measures: [{ number: 1, right: false, sameSound: false, wrongFromBeat: 3 }],
    }));
  it('same: the simplest first', async () =>
    expect((JSON.parse((await ear('same', '2/4 e (e) q')).out) as string[])[0]).toBe('2/4 q q'));
  it('signs: with prompt, options, answer and picture', async () => {
    const [first] = answers((await ear('signs', '--seed', '1', '--count', '3')).out);
    expect(Object.keys(first!)).toEqual(
      expect.arrayContaining(['kind', 'prompt', 'options', 'answer', 'misconceptions', 'steps', 'picture']),
    );
  });
  it('answers batches line by line', async () => {
    const { out } = await clapboard(
      ['ear', 'write', '--batch'],
      lines({ id: 7, text: 'q q h', answer: 'h h' }, { text: 'x' }),
    );
    expect(answers(out)).toMatchObject([{ id: 7, right: false }, { error: 'answer is missing' }]);
    const same = (await clapboard(['ear', 'same', '--batch'], lines({ id: 1, text: '2/4 e (e) q' }))).out;
    expect(answers(same)).toMatchObject([{ id: 1, others: expect.arrayContaining(['2/4 q q']) as unknown }]);
  });
});

describe('sheet', () => {
  const folder = mkdtempSync(join(tmpdir(), 'clapboard-sheet-'));
  afterAll(() => rmSync(folder, { recursive: true }));

  it('lists the kinds, the name first', async () => {
    const kinds = (await clapboard(['sheet', 'list'])).out.split('\n');
    expect(kinds).toHaveLength(18);
    expect(kinds[0]).toMatch(/^counts +write the counts/);
    expect(kinds.at(-1)).toMatch(/^slip +a practice slip per child/);
  });

  it.each([[], ['--json'], ['--out', 'x.pdf']])('names the kinds where there is no such one: %s', async (...where) => {
    const { err, code } = await clapboard(['sheet', 'bongo', ...where]);
    expect([code, err]).toEqual([2, expect.stringMatching(/“bongo” is no kind of sheet: one of counts, .*, slip$/)]);
  });

  it('prints questions whose counts are those of count --plain', async () => {
    const args = ['sheet', 'counts', '--seed', '9', '--elements', 'quarter,half,quarter-rest', '--count', '3'];
    const { out, code } = await clapboard([...args, '--school', 'ta', '--json']);
    const made = JSON.parse(out) as { questions: { text: string; school: string; answer: string }[] };
    expect([code, made]).toMatchObject([0, { kind: 'counts', seed: 9, questions: { length: 3 } }]);
    for (const { text, school, answer } of made.questions) {
      expect(text).toMatch(/^4\/4 [qh() |]+$/);
      expect((await clapboard(['count', '--school', school, '--plain', text])).out).toBe(answer);
    }
    expect((await clapboard([...args, '--school', 'ta', '--json'])).out).toBe(out);
  });

  it('prints another version, and batches', async () => {
    const request = { kind: 'sums', seed: 4, level: 3, count: 2 };
    const { out } = await clapboard(
      ['sheet', '--batch'],
      lines({ id: 1, ...request }, { ...request, version: 'B' }, { kind: 'nothing' }),
    );
    const [a, b, c] = answers(out);
    expect([a, b]).toMatchObject([
      { id: 1, points: 2 },
      { version: 'B', points: 2 },
    ]);
    expect(a!['questions']).not.toEqual(b!['questions']);
    expect(String(c!['error'])).toMatch(/kind/);
  });

  it('writes a PDF, the same each time', async () => {
    const file = (name: string) => join(folder, name);
    const args = ['sheet', 'choose', '--seed', '2', '--level', '2', '--count', '2', '--paper', 'letter', '--large'];
    for (const name of ['a.pdf', 'b.pdf'])
      expect(await clapboard([...args, '--out', file(name)])).toEqual({ out: '', err: '', code: 0 });
    const [a, b] = [readFileSync(file('a.pdf')), readFileSync(file('b.pdf'))];
    expect(a.subarray(0, 5).toString()).toBe('%PDF-');
    expect(a.equals(b)).toBe(true);
    expect(a.toString('latin1')).toContain('/MediaBox [0 0 612 792]');
  });

  it('says when there are fewer questions than were asked for', async () => {
    const args = ['sheet', 'name-sign', '--elements', 'quarter', '--count', '30', '--seed', '1'];
    expect(await clapboard([...args, '--out', join(folder, 'few.pdf')])).toMatchObject({
      code: 0,
      err: expect.stringMatching(/^only \d+ different ones of 30/) as string,
    });
    expect(JSON.parse((await clapboard([...args, '--json'])).out)).toMatchObject({
      note: expect.stringMatching(/^only/) as string,
    });
  });

  it.each([
    [['sheet'], 'which kind of sheet?'],
    [['sheet', 'counts'], '--out FILE.pdf, or --json'],
    [['sheet', 'counts', '--level', '9', '--json'], 'level must be'],
    [['sheet', 'counts', '--seed', 'x', '--json'], 'seed must be'],
    [['sheet', 'counts', '--elements', 'quaver', '--json'], 'elements'],
    [['sheet', 'counts', '--meter', '0/4', '--json'], 'meter “0/4”'],
    [['sheet', 'counts', '--text', '4/4 x', '--json'], 'column'],
    [['sheet', 'counts', '--school', 'feet', '--meter', '6/8', '--json'], 'nothing to ask about'],
    [['sheet', 'counts', '--out', '/nowhere/a.pdf'], 'no such file'],
  ])('%j: %s', async (args, trouble) => {
    const { code, err, out } = await clapboard(args);
    expect([code, out]).toEqual([2, '']);
    expect(err).toContain(trouble);
    expect(err).not.toContain('\n');
  });
});

describe('making', () => {
  it('makes patterns, one a line, as hard as each other', async () => {
    const args = ['make', '--meter', '3/4', '--measures', '4', '--elements', 'eighth-pair,half', '--focus', 'half'];
    const { out, err, code } = await clapboard([...args, '--level', '2', '--count', '5', '--seed', '3']);
    expect({ err, code }).toEqual({ err: '', code: 0 });
    const made = answers(out) as { text: string; elements: string[]; level: number; focusAt: { beat: string }[] }[];
    expect(new Set(made.map(({ text }) => text)).size).toBe(5);
    for (const { text, elements, level, focusAt } of made) {
      expect(level).toBe(2);
      expect(elements).toContain('half');
      expect(['1', '2']).toContain(focusAt[0]!.beat);
      expect(JSON.parse((await clapboard(['check', text])).out)).toMatchObject({ ok: true });
    }
  });
  it('makes patterns for a misreading, and leaves out what the class has', async () => {
    const request = { elements: ['quarter-rest'], misreading: 'rest-skipped', count: 2, seed: 1, level: 1 };
    const first = answers((await clapboard(['make', '--batch'], lines({ id: 1, ...request }))).out)[0]!;
    const patterns = first['patterns'] as { text: string; focusAt: object[] }[];
    expect(patterns[0]!.focusAt.length).toBeGreaterThanOrEqual(2);
    const known = patterns.map(({ text }) => text);
    const [next] = answers((await clapboard(['make', '--batch'], lines({ ...request, known }))).out);
    for (const { text } of next!['patterns'] as { text: string }[]) expect(known).not.toContain(text);
  });
  it('says when there are no more', async () => {
    const { out, err, code } = await clapboard(['make', '--elements', 'quarter', '--measures', '1', '--count', '3']);
    expect(JSON.parse(out)).toEqual({ text: '4/4 q q q q', elements: ['quarter'], level: 1, focusAt: [] });
    expect([err, code]).toEqual(['only 1 pattern of 3: no more are as hard and sound unlike the others', 0]);
  });
  it('knows the elements of a rhythm, and its level', async () => {
    expect(JSON.parse((await clapboard(['elements', '4/4 q e e h | (h) q. e'])).out)).toEqual({
      elements: [
        { element: 'quarter', measures: [1] },
        { element: 'eighth-pair', measures: [1] },
        { element: 'half', measures: [1] },
        { element: 'half-rest', measures: [2] },
        { element: 'dotted-quarter', measures: [2] },
      ],
    });
    expect(JSON.parse((await clapboard(['level', '4/4 q q q q'])).out)).toEqual({
      level: 1,
      why: '1 different cell, always the same; 1 note a beat, none of them off it.',
    });
    const [hard, bad] = answers(
      (await clapboard(['level', '--batch'], lines({ id: 3, text: '2/4 s s e e. s | e q e' }, {}))).out,
    );
    expect(hard).toMatchObject({ id: 3, level: 5 });
    expect(bad!['error']).toContain('text');
  });
  it.each([
    [['make', '--elements', 'cow'], 'elements.0 must be one of'],
    [['make', '--focus', 'half', '--misreading', 'hold-cut'], 'one focus at a time'],
    [['make', '--misreading', 'rest-skipped', '--elements', 'half'], 'can stand nowhere here'],
    [['make', '--misreading', 'rushing'], 'misreading must be one of'],
    [['make', '--meter', '6/16'], 'these elements fill no measure'],
    [['make', '--meter', '4/5'], 'meter “4/5”'],
    [['make', '--measures', '0'], 'measures must be'],
    [['make', '4/4 q'], 'make takes no text'],
    [['level'], 'which rhythm?'],
    [['elements', 'q', 'q'], 'one text at a time'],
    [['elements', '4/4 x'], 'column'],
  ])('%j: %s', async (args, trouble) => {
    const { out, err, code } = await clapboard(args);
    expect([out, code]).toEqual(['', 2]);
    expect(err).toContain(trouble);
    expect(err).not.toContain('\n');
  });
});

describe('a user’s mistake', () => {
  it.each([
    [['check', '4/4 q x'], 'line 1, column 7: expected a note'],
    [['count', '--school', 'feet', '6/8 q. q.'], 'simple meters'],
    [['count', '4/4 q'], 'which school'],
    [['count', '--school', 'numbers'], 'which rhythm'],
    [['say', '--meter', '4/5', 'ta'], 'meter “4/5”'],
    [['sing', 'x'], 'unknown verb'],
    [['ear'], 'what with the ear'],
    [['ear', '--batch'], 'which of choose, write'],
    [['ear', 'choose', '--seed', '1'], 'what is heard?'],
    [['ear', 'choose', '--elements', 'quarter', '--beats', '6'], '6 beats do not fill'],
    [['ear', 'choose', '--elements', 'cow'], 'elements.0 must be one of'],
    [['ear', 'choose', '--seed', 'x', '--text', 'q'], 'seed must be integer'],
    [['ear', 'choose', '--text', '4/4 (M1)'], 'no three patterns'],
    [['ear', 'same', 'q', 'q'], 'one text at a time'],
    [['count', '--loud', 'x'], 'loud'],
    [['score', 'no-such-file.json'], 'no-such-file.json'],
  ])('%j: one line on standard error, exit 2', async (args, sentence) => {
    const { out, err, code } = await clapboard(args);
    expect({ out, code }).toEqual({ out: '', code: 2 });
    expect(err.split('\n')).toHaveLength(1);
    expect(err).toContain(sentence);
  });
});

describe('together', () => {
  const folder = mkdtempSync(join(tmpdir(), 'together-'));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  const write = (name: string, what: string | Uint8Array) => {
    writeFileSync(join(folder, name), what);
    return join(folder, name);
  };
  const children = [0, 0.01, 0.02, 0.03, 0.05].map((late) => [0, 0.75, 2.25, 3].map((time) => time + late));
  const takes = (...lines: readonly (string | object)[]) =>
    write('class.jsonl', lines.map((line) => (typeof line === 'string' ? line : JSON.stringify(line))).join('\n'));
  const words = ['--bpm', '80', '4/4 q q (q) q | w'];

  it('says of single takes how wide each note is, and one sentence', async () => {
    const file = takes(
      children[0]!,
      { onsets: children[1]!.map((time) => time + 3), start: 3 },
      '',
      ...children.slice(2),
    );
    const said = JSON.parse((await clapboard(['together', '--takes', file, ...words])).out) as {
      notes: { index: number; measure: number; beat: string; widthMs: number; aheadMs: number }[];
    };
    expect(said).toMatchObject({
      rests: [{ measure: 1, beat: '3', share: 0 }],
      holds: [{ measure: 2, beat: '2', share: 0 }],
      driftPct: 0,
      tooFew: false,
      sentence: 'As one from beginning to end.',
    });
    expect(said.notes.map(({ measure, beat }) => `${measure}:${beat}`)).toEqual(['1:1', '1:2', '1:4', '2:1']);
    expect(said.notes.map(({ widthMs, aheadMs }) => [widthMs, aheadMs])).toEqual(Array(4).fill([38, -20]));
  });

  it('says of a recording the same, one or many, and of a bad one what is wrong', async () => {
    const strikes = children.flatMap((times, child) => times.map((time) => ({ child, time: time + 1 })));
    const file = write('class.wav', wavFile(synthesiseClass(strikes, { seed: 4, sampleRate: 22_050 }), 22_050));
    const one = JSON.parse((await clapboard(['together', '--wav', file, '--start', '1', ...words])).out) as object;
    expect(one).toMatchObject({ notes: [{}, {}, {}, {}], rests: [{ measure: 1, beat: '3' }] });
    const asked = { wav: file, pattern: words[2], bpm: 80, start: 1 };
    const lines = [
      { id: 7, ...asked },
      { ...asked, wav: join(folder, 'none.wav') },
      { ...asked, free: true },
    ];
    const { out } = await clapboard(['together', '--batch'], lines.map((line) => JSON.stringify(line)).join('\n'));
    const [first, second, third] = out
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as { error?: string });
    expect(first).toEqual({ id: 7, ...one });
    expect(second!.error).toContain('no such file');
    expect(third!.error).toContain('a start or free');
  });

  it.each<[readonly string[], string]>([
    [['--bpm', '80', '4/4 q'], 'what was clapped?'],
    [['--takes', 'a', '--wav', 'b', '--bpm', '80', '4/4 q'], 'what was clapped?'],
    [['--takes', '/nowhere.jsonl', '4/4 q'], 'which tempo'],
    [['--takes', '/nowhere.jsonl', '--bpm', '80', '4/4 q'], 'no such file'],
    [['--takes', '/nowhere.jsonl', '--bpm', 'fast', '4/4 q'], 'bpm must be number'],
  ])('%j is refused', async (more, word) => {
    const { err, code } = await clapboard(['together', ...more]);
    expect([code, err.includes(word)]).toEqual([2, true]);
  });
  it.each([
    ['{ "onsets": [0, "a"] }', 'line 2: onsets.1 must be number'],
    ['no', 'line 2: not JSON'],
  ])('names the line %s', async (line, word) => {
    const { err } = await clapboard(['together', '--takes', takes([0, 1], line), ...words]);
    expect(err).toContain(word);
  });
  it('hears one part', async () => {
    const { err } = await clapboard([
      'together',
      '--takes',
      takes([0, 1]),
      '--bpm',
      '80',
      '{a: 4/4 q q h | b: 4/4 h h}',
    ]);
    expect(err).toMatch(/in one part|expected/);
  });
});

describe('recordings', () => {
  const folder = mkdtempSync(join(tmpdir(), 'recordings-'));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  const write = (name: string, bytes: Uint8Array) => {
    writeFileSync(join(folder, name), bytes);
    return join(folder, name);
  };
  const claps = [1, 1.75, 2.5, 3.25].map((time) => time - 0.02);
  const good = () => write('good.wav', wavFile(synthesiseClaps(claps, { seed: 3 }), 44_100));

  it('gives the onsets of a recording', async () => {
    const { onsets, sampleRate } = JSON.parse((await clapboard(['listen', good()])).out) as {
      onsets: number[];
      sampleRate: number;
    };
    expect(sampleRate).toBe(44_100);
    expect(onsets.map((onset, i) => Math.abs(onset - claps[i]!) < 0.01)).toEqual([true, true, true, true]);
  });
  it('leaves out the clicks of the app, and no clap on one', async () => {
    const { samples, sampleRate, clicks, claps: clapped } = clickedTake({ loudness: 0 }, 5006);
    const file = write('clicks.wav', wavFile(samples, sampleRate));
    const times = clicks.times.map((time) => time.toFixed(4)).join(',');
    const heard = async (...args: string[]) =>
      (JSON.parse((await clapboard(['listen', ...args, file])).out) as { onsets: number[] }).onsets;
    expect(clicks.countIn).toBe(4);
    const found = await heard('--clicks', times);
    expect(found.map((onset, i) => Math.abs(onset - clapped[i]!) < 0.03)).toEqual(clapped.map(() => true));
    expect((await heard()).length).toBeGreaterThan(clapped.length + 4);
    const marked = JSON.parse(
      (await clapboard(['score', '--wav', file, '--bpm', '80', '--start', '2', '--clicks', times, '4/4 q q q q'])).out,
    ) as { notes: unknown[] };
    expect(marked.notes).toHaveLength(4);
    for (const wrong of ['1,x', '1,,2', '2,1', '0,-1', ' '])
      expect((await clapboard(['listen', '--clicks', wrong, file])).err).toMatch('seconds that rise');
  });
  it.each(few(['32f', '8', '24', '32'], 1))('reads WAV of %s bits', async (depth) => {
    const file = new wavefile.WaveFile(wavFile(synthesiseClaps(claps, { seed: 3 }), 44_100));
    file.toBitDepth(depth);
    const { onsets } = JSON.parse((await clapboard(['listen', write(`${depth}.wav`, file.toBuffer())])).out) as {
      onsets: number[];
    };
    expect(onsets.length).toBe(4);
  });
  it('listens to many, a line each, and a bad one does not stop the rest', async () => {
    const { out, code } = await clapboard([
      'listen',
      '--batch',
      good(),
      write('bad.wav', Buffer.from('no sound')),
      join(folder, 'none.wav'),
      good(),
    ]);
    expect(code).toBe(0);
    expect(out.split('\n').map((line) => Object.keys(JSON.parse(line) as object).includes('error'))).toEqual([
      false,
      true,
      true,
      false,
    ]);
  });
  it('judges a recording, with its start or free', async () => {
    const judged = JSON.parse(
      (await clapboard(['score', '--wav', good(), '--bpm', '80', '--start', '1', '4/4 q q q q'])).out,
    ) as { mark: number; tempo: { leadMs: number } };
    expect(judged.mark).toBe(4);
    expect(judged.tempo.leadMs).toBeCloseTo(20, -1);
    expect(
      (
        JSON.parse((await clapboard(['score', '--wav', good(), '--bpm', '100', '--free', '4/4 q q q q'])).out) as {
          tempo: { bpm: number };
        }
      ).tempo.bpm,
    ).toBeCloseTo(80, 0);
  });
  it.each([
    [['listen'], 'one recording at a time'],
    [['listen', '/nowhere.wav'], 'no such file'],
    [['score', '--wav', '/nowhere.wav', '4/4 q'], 'which tempo'],
  ])('%j: %s', async (args, word) => {
    const { code, err } = await clapboard(args);
    expect(code).toBe(2);
    expect(err).toContain(word);
    expect(err.split('\n').length).toBe(1);
  });
});

describe('convert', () => {
  const folder = mkdtempSync(join(tmpdir(), 'clapboard-convert-'));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  const path = (name: string) => join(folder, name);
  const put = (name: string, content: string | Uint8Array) => {
    writeFileSync(path(name), content);
    return path(name);
  };
  const TEXT = '4/4 ^ q | #5 "A" q. e (q) q | 3{e e e} q h | (M2) | h.';

  it.each(['.musicxml', '.xml', '.mxl', '.abc', '.txt'])('goes to %s and back', async (ending) => {
    const from = put('song.txt', `${TEXT}\n`);
    expect(await clapboard(['convert', from, path(`song${ending}`)])).toEqual({ out: '', err: '', code: 0 });
    await clapboard(['convert', path(`song${ending}`), path('back.txt')]);
    expect(readFileSync(path('back.txt'), 'utf8')).toBe(`${TEXT}\n`);
  });
  it.each([
    ['.mid', 'MThd'],
    ['.wav', 'RIFF'],
    ['.svg', '<svg'],
    ['.pdf', '%PDF'],
  ])('writes %s', async (ending, start) => {
    const from = put('song.txt', TEXT);
    expect((await clapboard(['convert', from, path(`out${ending}`), '--bpm', '90'])).code).toBe(0);
    expect(readFileSync(path(`out${ending}`), 'latin1').slice(0, 4)).toBe(start);
  });
  it('writes counts in braille, in the system that is asked for', async () => {
    const from = put('counts.txt', '4/4 q e e h');
    await clapboard(['convert', from, path('counts.brf')]);
    expect(readFileSync(path('counts.brf'), 'utf8')).toContain('#A  #A #B @& #C-#D\r\n');
    await clapboard(['convert', from, path('counts.brf'), '--school', 'ta']);
    expect(readFileSync(path('counts.brf'), 'utf8')).toContain('#A  TA TI TI TA-A\r\n');
    const { err, code } = await clapboard(['convert', from, path('counts.brf'), '--school', 'tides']);
    expect([code, err]).toEqual([2, expect.stringContaining('school')]);
  });
  it('draws seven measures of rest as one sign, or each', async () => {
    const from = put('rests.txt', '4/4 (M7) | q q q q');
    const size = async (...more: string[]) => {
      await clapboard(['convert', from, path('rests.svg'), ...more]);
      return Number(/height="(\d+)/.exec(readFileSync(path('rests.svg'), 'utf8'))![1]);
    };
    expect(await size('--each-rest')).toBeGreaterThan(1.5 * (await size()));
  });
  it('takes a part, a voice, measures and letters, and says in one line what it leaves out', async () => {
    const from = put('two.abc', 'X:1\nM:4/4\nL:1/4\nK:G\nV:1\nFGAB|c4|d2d2|\nV:2\n~G4|G2G2|G4|\n');
    const first = await clapboard(['convert', from, path('one.txt'), '--voice', '1', '--measures', '2-3', '--letters']);
    expect(readFileSync(path('one.txt'), 'utf8')).toBe("4/4 #2 w'C' | h'D' h'D'\n");
    expect(first).toEqual({ out: '', err: 'left out: one other voice', code: 0 });
    const second = await clapboard(['convert', from, path('one.txt'), '--voice', '2', '--part', '1']);
    expect(second.err).toBe('left out: one other voice, the pitches of 4 notes, one ornament');
    expect(readFileSync(path('one.txt'), 'utf8')).toBe('4/4 w | h h | w\n');
  });
  it('takes all parts that have the same measures, or one where that is asked for', async () => {
    const text = '4/4 [clap] ^ q | q. e (q) q |: w :| h. [stamp]* h h';
    const from = put('parts.txt', `${text.replace(' h.', ' w')}\n`);
    for (const ending of ['.musicxml', '.mxl', '.abc', '.mid']) {
      expect(await clapboard(['convert', from, path(`parts${ending}`), '--bpm', '80'])).toMatchObject({ code: 0 });
      await clapboard(['convert', path(`parts${ending}`), path('back.txt')]);
      const whole = '4/4 [clap] ^ q | q. e (q) q |: w :| w [stamp]* h h\n';
      const heard = '4/4 [clap] ^ q | q. e (q) q |: w :| w [stamp] (q) | h h | h h | h h\n';
      expect(readFileSync(path('back.txt'), 'utf8')).toBe(ending === '.mid' ? heard : whole);
    }
    const xml = path('parts.musicxml');
    expect((await clapboard(['convert', xml, path('one.txt'), '--part', 'stamp'])).err).toContain('one other part');
    expect(readFileSync(path('one.txt'), 'utf8')).toBe('4/4 ^ (q) | h h |: h h :| h h\n');
    await clapboard(['convert', xml, path('cut.txt'), '--part', 'all', '--measures', '1-2']);
    expect(readFileSync(path('cut.txt'), 'utf8')).toBe('4/4 [clap] q. e (q) q |: w :| [stamp] h h | h h\n');
    expect((await clapboard(['convert', xml, path('one.brf')])).err).toContain('one other part');
  });
  it.each([
    ['song.txt', '4/4 q q h', 'x.mid', 'not all parts together: it has 1 parts that sound; two to 4 make a score'],
    ['parts.txt', '4/4 [a] w [b] w', 'x.brf', 'holds one part: choose it with --part'],
    ['tunes.txt', '4/4 w\n\n4/4 w', 'x.mid', 'it has 2 tunes: choose one with --part'],
  ])('of %s with “%s” does not put all parts into %s', async (name, content, out, trouble) => {
    const { code, err } = await clapboard(['convert', put(name, content), path(out), '--part', 'all']);
    expect([code, err]).toEqual([2, expect.stringContaining(trouble)]);
  });
  it('keeps every tune where there is room, else asks which', async () => {
    const from = put('tunes.abc', 'X:1\nT:Crab\nL:1/4\nK:C\nABcd|\n\nX:2\nT:Gull\nL:1/4\nK:C\nA2B2|\n');
    const all = await clapboard(['convert', from, path('all.txt')]);
    expect(readFileSync(path('all.txt'), 'utf8')).toBe('% Crab\n4/4 q q q q\n\n% Gull\n4/4 h h\n');
    expect(all.err).toBe('left out: the pitches of 4 notes of “Crab”, the pitches of 2 notes of “Gull”');
    expect(await clapboard(['convert', from, path('all.mid')])).toMatchObject({
      code: 2,
      err: expect.stringContaining('choose one with --part') as unknown,
    });
    expect((await clapboard(['convert', from, path('gull.mid'), '--part', 'Gull'])).code).toBe(0);
  });
  it.each<[string, string | Uint8Array, string, string]>([
    ['a.txt', '4/4 q x', 'b.mid', 'clapboard: a.txt: line 1, column 7: expected'],
    ['a.xml', '<score-partwise><part>', 'b.txt', 'a.xml: the XML is broken at line 1'],
    ['a.mxl', mxlOf('<x/>'), 'b.txt', 'no MusicXML score: it begins with <x>'],
    ['a.mid', 'hello', 'b.txt', 'it does not begin with “MThd”'],
    ['a.txt', '4/4 w', 'b.doc', 'Its ending can be .txt .musicxml .xml .mxl .mid .midi .abc .brf .wav .svg .pdf'],
    ['a.txt', '', 'b.mid', 'the file is empty'],
  ])('says why %s with %j cannot be converted', async (name, content, out, trouble) => {
    const { code, err } = await clapboard(['convert', put(name, content), path(out)]);
    expect(code).toBe(2);
    expect(err).toContain(trouble);
    expect(err.split('\n').length).toBe(1);
  });
  it.each([
    [['convert', 'a.txt'], 'which file into which?'],
    [['convert', '/nowhere.txt', '/tmp/b.mid'], 'no such file'],
    [['convert', 'a.txt', 'b.mid', '--measures', 'five'], 'measures must'],
  ])('%j: %s', async (args, word) => {
    const { code, err } = await clapboard(args);
    expect(code).toBe(2);
    expect(err).toContain(word);
  });
  it('answers batches line by line', async () => {
    const from = put('song.txt', TEXT);
    const { out } = await clapboard(
      ['convert', '--batch'],
      lines({ id: 7, in: from, out: path('x.abc') }, { in: path('none.txt'), out: path('x.abc') }, { in: from }),
    );
    const [done, missing, half] = answers(out);
    expect(done).toMatchObject({ id: 7, patterns: 1, leftOut: [], troubles: [] });
    expect(missing!['error']).toContain('no such file');
    expect(half!['error']).toContain('out');
  });
});

describe('a pattern in parts', () => {
  const text = '4/4 [clap] q q h | q e e h [stamp]* h h';

  it('is counted a line a part', async () => {
    const plain = await clapboard(['count', '--school', 'numbers', '--plain', text]);
    expect(plain.out).toBe('clap: 1 2 3-4 | 1 2 & 3-4\nstamp: 1-2 3-4 | 1-2 3-4');
    const { out } = await clapboard(['count', '--batch'], lines({ id: 7, text, school: 'numbers' }));
    expect(answers(out)[0]).toMatchObject({
      id: 7,
      plain: plain.out,
      parts: { stamp: { plain: '1-2 3-4 | 1-2 3-4' } },
    });
  });

  it('is checked a part, and where the parts are not as long as each other both are named', async () => {
    const right = JSON.parse((await clapboard(['check', text])).out) as object;
    expect(right).toMatchObject({ ok: true, parts: { clap: { ok: true }, stamp: { ok: true } }, disagree: [] });
    const wrong = JSON.parse((await clapboard(['check', '4/4 [clap] q q h | w [stamp] h h | h.'])).out) as object;
    expect(wrong).toMatchObject({
      ok: false,
      parts: { clap: { ok: true }, stamp: { ok: false } },
      disagree: [
        {
          measure: 2,
          parts: ['clap', 'stamp'],
          lengths: ['4', '3'],
          sentence: 'measure 2 of [stamp] has 3 beats, measure 2 of [clap] has 4 beats',
        },
      ],
    });
    // Both adding up by themselves: one ends short for the pickup, the other does not.
    const complement = JSON.parse((await clapboard(['check', '4/4 [a] ^ q | h. [b] ^ q | w'])).out) as object;
    expect(complement).toMatchObject({ ok: false, parts: { a: { ok: true }, b: { ok: true } } });
  });

  it('has its elements and its level, of all and of each', async () => {
    const elements = JSON.parse((await clapboard(['elements', text])).out) as Record<string, object>;
    expect(elements).toMatchObject({
      elements: [
        { element: 'quarter', measures: [1, 2] },
        { element: 'eighth-pair', measures: [2] },
        { element: 'half', measures: [1, 2] },
      ],
      parts: { stamp: { elements: [{ element: 'half', measures: [1, 2] }] } },
    });
    const level = JSON.parse((await clapboard(['level', text])).out) as object;
    expect(level).toMatchObject({
      independence: 0.43,
      why: '4 of 10 attacks are in one part alone; the hardest part is of level 2.',
      parts: { clap: { level: 2 }, stamp: { level: 1 } },
    });
  });

  it('is judged a stream a part, and how far they are apart', async () => {
    const streams = { clap: [0, 1, 2, 4, 5, 5.5, 6], stamp: [0.04, 2.04, 4.04, 6.1] };
    const { out } = await clapboard(['score'], JSON.stringify({ pattern: text, bpm: 60, streams }));
    expect(JSON.parse(out)).toMatchObject({
      parts: { clap: { mark: 4, accuracy: 1 }, stamp: { mark: 4 } },
      together: {
        apartMs: 55,
        shared: 4,
        worst: { measure: 2, beat: '3', apartMs: 100 },
        leads: { part: 'clap', byMs: 55 },
      },
    });
    const one = await clapboard(
      ['score'],
      JSON.stringify({ pattern: text, bpm: 60, part: 'Stamp', onsets: [0, 2, 4, 6] }),
    );
    expect(JSON.parse(one.out)).toMatchObject({ mark: 4, heard: '4/4 h h | h h' });
  });

  it('enters the records as the part it was', async () => {
    const take = {
      child: 'a',
      takenAt: '2026-11-02T09:30:00Z',
      pattern: text,
      bpm: 60,
      part: 'stamp',
      onsets: [0, 2, 4, 6],
    };
    const { out } = await clapboard(['records', '--batch'], lines(take, { ...take, part: undefined }));
    const [wrong, standing] = answers(out);
    expect(wrong).toEqual({ line: 2, error: 'which part? the pattern has “clap”, “stamp”' });
    expect((standing!['elements'] as { element: string }[]).map(({ element }) => element)).toEqual(['half']);
  });

  it.each([
    [{ onsets: [0] }, 'which part? the pattern has “clap”, “stamp”'],
    [{ part: 'snap', onsets: [0] }, 'there is no part “snap”: the pattern has “clap”, “stamp”'],
    [{ part: 'clap' }, 'what was clapped? "onsets": seconds, or "streams": seconds by part'],
    [{ part: 'clap', streams: { clap: [0] } }, 'either "streams", by part, or "onsets" of one part: not both'],
    [{ onsets: [0], streams: { clap: [0] } }, 'either "streams", by part, or "onsets" of one part: not both'],
    [{ streams: { clap: [0], Clap: [0] } }, 'two of the "streams" are of the same part'],
    [{ streams: { pat: [0] } }, 'there is no part “pat”: the pattern has “clap”, “stamp”'],
    [{ streams: {} }, 'streams must NOT have fewer than 1 properties'],
  ])('is refused with %j', async (request, said) => {
    const { err, code } = await clapboard(['score'], JSON.stringify({ pattern: text, bpm: 60, ...request }));
    expect([code, err]).toEqual([2, expect.stringContaining(said)]);
  });

  it('is taken only where parts can be meant, and one part has no name', async () => {
    expect((await clapboard(['ear', 'same', text])).err).toBe(
      'clapboard: one part at a time: this has [clap], [stamp]',
    );
    const named = JSON.stringify({ ...TAKE, part: 'clap' });
    expect((await clapboard(['score'], named)).err).toContain(
      'there is no part “clap”: the pattern has one without a name',
    );
  });
});

describe('parts', () => {
  const made = async (...words: string[]) => {
    const { out, err } = await clapboard(['parts', ...words]);
    return err === '' ? (JSON.parse(out) as { text: string }).text : err.replace('clapboard: ', '');
  };

  it.each([
    [['measures', '4/4 q q h | q. e h'], '4/4 [A] q q h | (M1) [B] (M1) | q. e h'],
    [['in-turn', '--names', 'left, right', '4/4 q q h'], '4/4 [left] q (q) h [right] (q) q (h)'],
    [['beat', '--names', 'clap,stamp', '4/4 q. e h'], '4/4 [clap] q. e h [stamp] q q q q'],
    [['missing', '4/4 q (q) e e q'], '4/4 [A] q (q) e e q [B] (q) q (h)'],
    [
      ['canon', '--beats', '2', '--count', '3', '4/4 q q h'],
      '4/4 [A] q q h | (M1) [B] (h) q q | h (h) [C] (M1) | q q h',
    ],
    [
      ['join', '--text', '4/4 h h', '4/4 [clap] q q h [pat] w', '--names', 'x,stamp'],
      '4/4 [clap] q q h [pat] w [stamp] h h',
    ],
    [['ostinato', '--text', '4/4 h h', '4/4 q q h | w'], '4/4 [A] q q h | w [B]* h h'],
    [['pass-on', '4/4 [a] w [b] h h'], '4/4 [a] h h [b] w'],
    [['ostinato', '--text', '4/4 h h | w', '4/4 q q h'], '2 measures do not go into 1 measure: make them as many'],
    [
      ['join', '--text', '3/4 h.', '4/4 w'],
      'measure 1 has another meter or repeat than the other part: make both alike',
    ],
    [['join', '--text', '4/4 ^ q | h.', '4/4 w | h.'], 'the pickups are not alike: both need the same one, or none'],
    [['beat', '--names', 'x,b', '4/4 [a] w [B] w'], 'there is a part “b” already: give this one another name'],
    [['beat', '4/4 [a] w [b] w [c] w [d] w'], 'a pattern has at most 4 parts: take one away first'],
    [['join', '4/4 w'], 'join takes a second rhythm: --text "4/4 h h"'],
    [['canon', '--beats', '2', '4/4 q 3{q q q} q'], /^so many beats later, bar lines would cut/],
    [['beat'], /^which way, and which rhythm\?/],
    [['halves', '4/4 w'], /^way must be one of: measures, /],
    [['measures', '4/4 [a] w [b] w'], /^one part at a time/],
  ] as const)('%j', async (words, text) => {
    const said = await made(...words);
    if (typeof text === 'string') expect(said).toBe(text);
    else expect(said).toMatch(text);
  });

  it('answers line by line', async () => {
    const { out } = await clapboard(
      ['parts', '--batch'],
      lines({ id: 1, way: 'beat', text: '4/4 w' }, { id: 2, way: 'beat' }),
    );
    const [first, second] = answers(out);
    expect(first).toEqual({ id: 1, text: '4/4 [A] w [B] q q q q' });
    expect(second).toEqual({ id: 2, error: expect.any(String) as unknown });
  });
});
