import { type Browser, type BrowserContext, type Page, chromium } from 'playwright-core';
import { TEACHER } from '../demo/school.ts';
import { v4 as uuid } from 'uuid';
import { inject } from 'vitest';
import { launchOptions } from '../scripts/test/browser.ts';
import { PAGES } from '../scripts/build/buildPages.ts';
import { watchPage } from '../scripts/test/coverage.ts';
import type * as Tested from '../scripts/test/testedServer.ts';
import { PATIENT, demoDatabase } from '../server/testDatabase.test-helper.ts';

/** The server as it was built for these tests: as one file it is there at once. */
const tested = async () => (await import(/* @vite-ignore */ inject('testedServer'))) as typeof Tested;

/** A page of a test is soon gone: what it does not run need not be compiled, and nothing tidies up beside it. */
const SHORT_LIVED = '--js-flags=--max-lazy --single-threaded-gc';

/** Browsers of this process, by their switches: files of tests come one after the other, and use one. */
const browsers = new Map<string, Promise<Browser>>();

function browserWith(args: readonly string[]): Promise<Browser> {
  const key = args.join(' ');
  const known = browsers.get(key) ?? chromium.launch(launchOptions(args));
  browsers.set(key, known);
  return known;
}

interface Opening {
  /** Further switches of the browser. */
  readonly args?: readonly string[];
  /** For claps that must come within milliseconds: a sound clock that never slips, and pages not watched. */
  readonly inTime?: boolean;
  /** Where sound is listened to as it comes. */
  readonly heard?: boolean;
  /** Where the pages are. */
  readonly pages?: string;
}

/** The app as it ships on a demo school of its own, and a browser in front of it. */
export class School {
  private away = false;

  private constructor(
    private server: Tested.RunningServer,
    private readonly databaseUrl: string,
    private readonly browser: Browser,
    private readonly inTime: boolean,
    private readonly pages: string,
  ) {}

  static async open({ args = [], inTime = false, heard = false, pages = PAGES }: Opening = {}): Promise<School> {
    const databaseUrl = await demoDatabase();
    const [server, browser] = await Promise.all([
      School.serve(databaseUrl, 0, pages),
      browserWith(heard ? args : [...args, SHORT_LIVED]),
    ]);
    return new School(server, databaseUrl, browser, inTime, pages);
  }

  private static async serve(databaseUrl: string, port: number, pages: string): Promise<Tested.RunningServer> {
    return (await tested()).startServer({
      databaseUrl,
      host: '127.0.0.1',
      port,
      demoTeacher: TEACHER.name,
      pages,
      proxies: 0,
      logLevel: 'silent',
      metrics: { token: undefined, from: [] },
      warmUp: false,
      limits: PATIENT,
    });
  }

  get url(): string {
    return this.server.url;
  }

  /** Another teacher of this school. @returns with a code to choose a new password, where `forgotten` */
  async addTeacher(name: string, password: string, forgotten = false): Promise<string> {
    const { addTeacher, allowReset, hashPassword, openDatabase } = await tested();
    const { db, pool } = openDatabase(this.databaseUrl, { connections: 1 });
    const id = uuid();
    await addTeacher(db, { id, name, passwordHash: await hashPassword(password) });
    const code = forgotten ? await allowReset(db, id) : '';
    await pool.end();
    return code;
  }

  async stopServer(): Promise<void> {
    this.away = true;
    await this.server.stop();
  }

  /** Starts the server again where it was, on the same database. */
  async startServer(): Promise<void> {
    this.server = await School.serve(this.databaseUrl, Number(new URL(this.url).port), this.pages);
    this.away = false;
  }

  /** After each test: no page is left open that still has something to send, and the server answers. */
  async tidy(): Promise<void> {
    await this.closeAll();
    if (this.away) await this.startServer();
  }

  private async closeAll(): Promise<void> {
    await Promise.all(this.browser.contexts().map((context) => context.close()));
  }

  /** The browser stays for the next file of tests; it ends with this process. */
  async close(): Promise<void> {
    await this.closeAll();
    await this.server.stop();
  }

  /**
   * A browser of its own, with nothing kept; its page fails the test when the page throws.
   * @param watched  whether what its page runs is noted
   */
  async visitor(
    options: Parameters<Browser['newContext']>[0] = {},
    watched = !this.inTime,
  ): Promise<{ page: Page; context: BrowserContext }> {
    const visitor = await this.newcomer(options, watched);
    await visitor.page.goto(this.url);
    return visitor;
  }

  /** A browser of its own, its page still empty. */
  async newcomer(options: Parameters<Browser['newContext']>[0] = {}, watched = !this.inTime) {
    // Every one of them would put the whole app onto its device first.
    const usual = { deviceScaleFactor: 0.5, viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' } as const;
    const context = await this.browser.newContext({ ...usual, ...options });
    if (this.inTime) await context.addInitScript(steadySound);
    const page = await context.newPage();
    if (watched) await watchPage(page, context);
    page.on('pageerror', (error) => {
      throw error;
    });
    page.setDefaultTimeout(60_000);
    return { page, context };
  }

  /** A visitor of the demo who is in already, at the patterns or at another address. */
  async guest(
    options: Parameters<Browser['newContext']>[0] = {},
    path = '/patterns',
  ): Promise<{ page: Page; context: BrowserContext }> {
    const visitor = await this.newcomer(options, !this.inTime);
    await visitor.page.request.post(`${this.url}/api/session/visit`);
    await visitor.page.goto(this.url + path);
    return visitor;
  }

  /** A visitor of the demo who has gone to a part of the menu. */
  async guestIn(part: string): Promise<Page> {
    return (await this.guest({}, PARTS[part])).page;
  }
}

/** Where the parts of the menu are. */
const PARTS: Readonly<Record<string, string>> = {
  Values: '/values',
  Patterns: '/patterns',
  Lead: '/lead',
  Take: '/take',
  Class: '/classes',
};

/** Without a sound device the browser makes its sound clock itself, and on a busy machine late. */
function steadySound(): void {
  const zero = performance.now();
  const now = () => (performance.now() - zero) / 1000;
  Object.defineProperty(AudioContext.prototype, 'currentTime', { get: now });
  AudioContext.prototype.getOutputTimestamp = () => ({ contextTime: now(), performanceTime: performance.now() });
}

export async function lookAround(page: Page): Promise<void> {
  await page.getByRole('button', { name: /Look around/ }).click();
  // A visit begins with the day.
  await page.getByRole('region', { name: 'Next lesson' }).waitFor();
  await page.getByRole('link', { name: 'Patterns', exact: true }).click();
  await page.getByRole('heading', { name: 'Patterns' }).waitFor();
}

/** How many takes of “Long rope” Wren has, as the server has them. */
export async function longRopes(page: Page, url: string): Promise<number> {
  const read = async (path: string) => (await page.request.get(`${url}/api/${path}`)).json() as Promise<unknown>;
  const classes = (await read('classes')) as { id: string; name: string }[];
  const { id } = classes.find(({ name }) => name === 'Lighthouse 4')!;
  const { children } = (await read(`classes/${id}`)) as { children: { id: string; name: string }[] };
  const wren = children.find(({ name }) => name === 'Wren')!;
  const { takes } = (await read(`classes/${id}/children/${wren.id}/takes`)) as { takes: { title: string }[] };
  return takes.filter(({ title }) => title === 'Long rope').length;
}

/** A key that goes down or up, or a touch of the pad, at a beat. */
export interface Move {
  /** 1 is the first beat of the pattern. */
  readonly beat: number;
  /** " " or a letter for that key, "touch" for the pad of the hands. */
  readonly by: string;
  readonly up?: boolean;
}

/**
 * Moves like a child who hears the click. All is made inside the page and by its own clock, and carries the time at
 * which it was due, as a key's event carries the time at which it went down: a busy machine moves none.
 * @param moves  in order
 */
export async function moveInTime(page: Page, bpm: number, moves: readonly Move[]): Promise<void> {
  await page.locator('.pad[data-beat-one]').waitFor();
  await page.evaluate(
    async (timed) => {
      const pad = document.querySelector<HTMLElement>('.pad[data-beat-one]')!;
      for (const { time, by, up } of timed) {
        const due = () => Number(pad.dataset['beatOne']) + time;
        while (performance.now() < due())
          await new Promise((resolve) => setTimeout(resolve, Math.min(40, Math.max(1, due() - performance.now()))));
        const init = { key: by, bubbles: true, cancelable: true };
        const event =
          by === 'touch'
            ? new PointerEvent(up ? 'pointerup' : 'pointerdown', init)
            : new KeyboardEvent(up ? 'keyup' : 'keydown', init);
        Object.defineProperty(event, 'timeStamp', { value: due() });
        (by === 'touch' ? pad : document.body).dispatchEvent(event);
      }
    },
    moves.map(({ beat, by, up = false }) => ({ time: ((beat - 1) * 60_000) / bpm, by, up })),
  );
}

/** Taps at each time in beats, 1 being the first beat of the pattern. */
export async function tapInTime(page: Page, bpm: number, beats: readonly number[], by: string): Promise<void> {
  await moveInTime(
    page,
    bpm,
    beats.map((beat) => ({ beat, by })),
  );
}
