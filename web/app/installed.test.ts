import { afterEach, describe, expect, it, vi } from 'vitest';
import { install } from './installed.ts';

type Listeners = Record<string, (() => void)[]>;

function emitter() {
  const listeners: Listeners = {};
  return {
    listeners,
    addEventListener: (kind: string, listener: () => void) => (listeners[kind] ??= []).push(listener),
    emit: (kind: string) => (listeners[kind] ?? []).forEach((listener) => listener()),
  };
}

/** A device; a new version arrives when it is told. */
function device({ controlled = true, waiting = false, openedMs = 100, touched = false } = {}) {
  const posted: unknown[] = [];
  const worker = { ...emitter(), postMessage: (message: unknown) => posted.push(message) };
  const registration = { ...emitter(), waiting: waiting ? worker : null, installing: null as typeof worker | null };
  const container = { ...emitter(), controller: controlled ? {} : null, register: () => Promise.resolve(registration) };
  const reload = vi.fn();
  vi.stubGlobal('navigator', { serviceWorker: container, userActivation: { hasBeenActive: touched } });
  vi.stubGlobal('location', { reload });
  vi.stubGlobal('document', { head: { append: vi.fn() }, createElement: () => ({}) });
  vi.spyOn(performance, 'now').mockReturnValue(openedMs);
  const arrives = () => {
    registration.installing = worker;
    registration.emit('updatefound');
    registration.waiting = worker;
    worker.emit('statechange');
  };
  return { posted, reload, arrives, takesOver: () => container.emit('controllerchange') };
}

afterEach(() => {
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

describe('a new version', () => {
  it('that waits when the page is opened takes over at once', async () => {
    const { posted, reload, takesOver } = device({ waiting: true });
    const onNewer = vi.fn();
    await install(onNewer);
    expect(posted).toEqual([{ type: 'SKIP_WAITING' }]);
    expect(reload).not.toHaveBeenCalled();
    takesOver();
    expect(reload).toHaveBeenCalledOnce();
    expect(onNewer).not.toHaveBeenCalled();
  });
  it('that comes while something may be running waits until the teacher says so', async () => {
    const { posted, reload, arrives, takesOver } = device();
    const onNewer = vi.fn<(load: () => void) => void>();
    await install(onNewer);
    arrives();
    expect([posted.length, onNewer.mock.calls.length]).toEqual([0, 1]);
    onNewer.mock.calls[0]![0]();
    expect(posted).toEqual([{ type: 'SKIP_WAITING' }]);
    takesOver();
    expect(reload).toHaveBeenCalledOnce();
  });
  it.each([
    ['has been open for a while', { openedMs: 60_000 }],
    ['was opened just now, and something was begun in it', { touched: true }],
  ])('waits too where the page %s', async (_what, more) => {
    const { posted } = device({ waiting: true, ...more });
    const onNewer = vi.fn();
    await install(onNewer);
    expect([posted.length, onNewer.mock.calls.length]).toEqual([0, 1]);
  });
  it('is none where it is the first', async () => {
    const { posted, arrives } = device({ controlled: false, openedMs: 60_000 });
    const onNewer = vi.fn();
    await install(onNewer);
    arrives();
    expect([posted.length, onNewer.mock.calls.length]).toEqual([0, 0]);
  });
});
