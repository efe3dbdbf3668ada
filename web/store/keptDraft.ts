import { settled } from './settled.ts';
import { readStored, writeStored } from './stored.ts';

type Parts = Readonly<Record<string, unknown>>;

export type KeptState = 'saved' | 'saving' | 'on-device' | 'clash';

/** What the page shows of it. */
export interface KeptMoment<T> {
  readonly value: T;
  readonly state: KeptState;
  readonly problem: Error | undefined;
}

/** What a draft needs of its surroundings; in tests all of it is made up. */
export interface KeptDevices<T> {
  /** Sends it, with what it was made from; gives what is there then, for others may have changed other parts of it. */
  readonly save: (value: T, was: T | undefined) => Promise<T>;
  /** @returns what takes it back */
  readonly later: (action: () => void, ms: number) => () => void;
  /** Whether what this device kept is a whole one. */
  readonly fits: (kept: unknown) => boolean;
}

const SAVE_AFTER_MS = 700;
const AGAIN_MS = 4_000;

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** Somebody else changed the same parts: what the server has now. */
function theirsIn(problem: Error | undefined): object | undefined {
  return (problem as { clash?: { theirs: object } } | undefined)?.clash?.theirs;
}

/** Sent again it would be refused again. */
function isRefused(problem: Error): boolean {
  return (problem as { worthRetrying?: boolean }).worthRetrying === false;
}

/**
 * Something that is changed bit by bit and kept whole. Each change is on this device at once, and on the server when
 * the hand rests; what the server does not have yet stays here, through a reload too.
 */
export class KeptDraft<T extends object> {
  private shown: KeptMoment<T>;
  /** What the value was made from; undefined where the server has none. */
  private was: T | undefined;
  private readonly listeners = new Set<() => void>();
  private cancel: () => void = () => undefined;
  private sending: Promise<void> | undefined;

  /** @param first  what is shown where the server has nothing */
  constructor(
    private readonly key: string,
    saved: T | undefined,
    first: T,
    private readonly devices: KeptDevices<T>,
  ) {
    const draft = this.stored();
    this.was = draft ? draft.was : saved;
    this.shown = { value: draft?.value ?? saved ?? first, state: draft ? 'saving' : 'saved', problem: undefined };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly moment = (): KeptMoment<T> => this.shown;

  readonly change = (value: T): void => {
    this.write(value);
    this.show({ value, state: this.shown.state === 'clash' ? 'clash' : 'saving', problem: this.shown.problem });
    this.plan(SAVE_AFTER_MS);
  };

  /** What the server has by now: shown where nothing of one’s own is waiting. */
  readonly arrived = (saved: T): void => {
    if (this.shown.state !== 'saved' || this.sending || same(saved, this.was)) return;
    this.was = saved;
    this.show({ value: saved, state: 'saved', problem: undefined });
  };

  /** Of what both changed theirs stays in some parts; all else that either changed stays. */
  readonly choose = (theirsStays: ReadonlySet<string>): void => {
    const theirs = theirsIn(this.shown.problem) as T | undefined;
    if (!theirs) return;
    this.cancel();
    const value = settled(this.was as Parts | undefined, theirs as Parts, this.shown.value as Parts, theirsStays) as T;
    this.was = theirs;
    if (same(value, theirs)) {
      this.forget();
      this.show({ value: theirs, state: 'saved', problem: undefined });
      return;
    }
    this.write(value);
    this.show({ value, state: 'saving', problem: undefined });
    this.plan(0);
  };

  readonly open = (): void => this.plan(SAVE_AFTER_MS);

  /** At the end of a visit what waits is sent at once. */
  readonly close = (): void => {
    this.cancel();
    if (this.waits()) void this.send();
  };

  /** Something else is about to change what is on the server: what waits goes first. */
  readonly settle = async (): Promise<void> => {
    this.cancel();
    await this.sending;
    if (this.waits()) await this.send();
  };

  private waits(): boolean {
    return this.shown.state === 'saving' || this.shown.state === 'on-device';
  }

  private plan(ms: number): void {
    this.cancel();
    if (this.waits()) this.cancel = this.devices.later(() => void this.send(), ms);
  }

  /** One at a time: the next is made from what the first came to. */
  private async send(): Promise<void> {
    if (this.sending) return;
    this.sending = this.sent();
    await this.sending;
    this.sending = undefined;
    if (this.shown.state === 'saving') this.plan(SAVE_AFTER_MS);
  }

  private async sent(): Promise<void> {
    const sent = this.shown.value;
    try {
      const now = await this.devices.save(sent, this.was);
      const unchanged = same(this.shown.value, sent);
      this.was = unchanged ? now : sent;
      if (unchanged) this.forget();
      else this.write(this.shown.value);
      this.show(unchanged ? { value: now, state: 'saved', problem: undefined } : { ...this.shown, problem: undefined });
    } catch (error) {
      const problem = error as Error;
      this.show({ ...this.shown, state: theirsIn(problem) ? 'clash' : 'on-device', problem });
      if (!theirsIn(problem) && !isRefused(problem)) this.plan(AGAIN_MS);
    }
  }

  private write(value: T): void {
    writeStored(this.key, JSON.stringify({ value, was: this.was }));
  }

  private forget(): void {
    writeStored(this.key, undefined);
  }

  private stored(): { readonly value: T; readonly was: T | undefined } | undefined {
    try {
      const kept = JSON.parse(readStored(this.key) ?? 'null') as { value?: unknown; was?: unknown } | null;
      if (!kept || !this.devices.fits(kept.value)) return undefined;
      return { value: kept.value as T, was: this.devices.fits(kept.was) ? (kept.was as T) : undefined };
    } catch {
      return undefined;
    }
  }

  private show(moment: KeptMoment<T>): void {
    this.shown = moment;
    for (const listener of this.listeners) listener();
  }
}
