import { act, cleanup, configure, fireEvent, render, screen } from '@testing-library/react';
import type { ReactElement } from 'react';
import { MemoryRouter, useLocation } from 'react-router';
import { SWRConfig } from 'swr';
import { afterEach, vi } from 'vitest';

// A machine may be busy.
configure({ asyncUtilTimeout: 20_000 });

/** What a page sent to change something. */
export interface Sent {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

type Refusal = { readonly status: number; readonly code: string; readonly message: string } & Record<string, unknown>;

/** A server in memory: answers what it is asked, writes down what it is sent. */
export class FakeServer {
  readonly sent: Sent[] = [];
  /** Answers to what is sent, by "METHOD /path"; nothing else than "done" where there is none. */
  readonly replies = new Map<string, unknown>();
  /** Refuses a request; undefined lets it in. */
  refuses: (sent: Sent) => Refusal | undefined = () => undefined;

  /** @param answers  by path; a response as it is, anything else as JSON */
  constructor(private readonly answers: Record<string, unknown> = {}) {
    // News of a class comes by a stream: there is none.
    vi.stubGlobal('EventSource', Silence);
    vi.stubGlobal('fetch', (url: string, init: RequestInit = {}) => Promise.resolve(this.answer(url, init)));
  }

  private answer(url: string, { method = 'GET', body }: RequestInit): Response {
    const path = url.replace(/^\/api/, '');
    if (method === 'GET') {
      const known = this.answers[path] ?? refusal(404, 'not-found', 'not here');
      return known instanceof Response ? known.clone() : Response.json(known);
    }
    const sent = { method, path, body: typeof body === 'string' ? (JSON.parse(body) as unknown) : undefined };
    this.sent.push(sent);
    const refused = this.refuses(sent);
    if (refused) return Response.json(refusal(refused.status, refused.code, refused.message, refused), refused);
    const reply = this.replies.get(`${method} ${path}`);
    return reply === undefined ? new Response(null, { status: 204 }) : Response.json(reply);
  }

  /** What was sent, shortly. */
  get log(): string[] {
    return this.sent.map(({ method, path }) => `${method} ${path}`);
  }
}

class Silence extends EventTarget {
  close() {
    // Nothing was open.
  }
}

function refusal(_status: number, code: string, message: string, more: object = {}): object {
  return { error: { ...more, code, message } };
}

function Where() {
  const { pathname, search } = useLocation();
  return <span data-testid="where">{pathname + search}</span>;
}

/** Mounts a part of the app, with nothing known yet. @param at  where the app is */
export function mount(part: ReactElement, at = '/') {
  return render(
    <SWRConfig value={{ provider: () => new Map(), dedupingInterval: 0, shouldRetryOnError: false }}>
      <MemoryRouter initialEntries={[at]}>
        {part}
        <Where />
      </MemoryRouter>
    </SWRConfig>,
  );
}

/** Where the app has gone. */
export const where = (): string => screen.getByTestId('where').textContent;

export const click = (name: string | RegExp): boolean => fireEvent.click(screen.getByRole('button', { name }));
export const type = (label: string | RegExp, value: string): boolean =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
export const press = (key: string): boolean => fireEvent.keyDown(document.body, { key });

/** Waits for something by the real clock, whatever timers are made up. */
export async function until(expectation: () => void): Promise<void> {
  for (let tries = 0; ; tries++) {
    try {
      return expectation();
    } catch (error) {
      if (tries === 200) throw error;
      await act(async () => new Promise((later) => setTimeout(later, 10)));
    }
  }
}

/** To be called once in a file of tests. */
export function tidyAfterEach(): void {
  afterEach(() => {
    cleanup();
    localStorage.clear();
    sessionStorage.clear();
    vi.unstubAllGlobals();
    vi.restoreAllMocks();
    vi.useRealTimers();
  });
}
