import { Problem } from '../problem.ts';

/** One try to come in. */
export interface Try {
  /** From a browser in which the teacher has been before: it goes first, by a way of its own. */
  readonly known: boolean;
  /** Where it comes from; every place has its turn, those that were served least first. */
  readonly place: string;
  /** What is guessed at from there: tries at the same are looked at one after the other. */
  readonly key: string;
}

export interface DoorQueueSettings {
  /** Strangers that are looked at together; a known browser has one more. */
  readonly slots: number;
  /** Beyond so many of one place, or of all, a stranger is sent away. */
  readonly mostOfPlace: number;
  readonly mostOfAll: number;
  /** So long a try waits at most, milliseconds. */
  readonly patienceMs: number;
  readonly now?: () => number;
  readonly later?: (action: () => void, ms: number) => void;
}

interface Waiting extends Try {
  readonly since: number;
  readonly start: (slot: Slot) => void;
  readonly refuse: (problem: Error) => void;
}

/** What a try holds while it is looked at. */
export interface Slot {
  /** The next one is let on; the key rests until then, milliseconds since 1970. */
  readonly release: (restUntil?: number) => void;
}

/** What a place was served counts half after so long. */
const HALF_LIFE_MS = 60_000;
const MOST_PLACES = 20_000;

/** Too many at the door. @param seconds  when it is worth trying again */
export function doorBusy(seconds: number): Problem {
  return new Problem(
    503,
    'door-busy',
    `Too many try to sign in from here just now. Try again in ${seconds} seconds, or in a browser you have used before.`,
    { retryAfter: seconds },
  );
}

/** Nobody waits for the answer any more. */
function goneAway(): Problem {
  return new Problem(400, 'broken-off', 'The request broke off before its end. Send it again.');
}

/**
 * Who is looked at next at the door. Looking costs a third of a second of a processor, so that it is shared out: known
 * browsers first, then the places that were served least, so that neither many names nor many guesses from some places
 * keep out somebody else. Whoever has left is dropped, whoever waits too long is told when to come again.
 */
export class DoorQueue {
  private readonly waiting: Waiting[] = [];
  private readonly rests = new Map<string, number>();
  private readonly served = new Map<string, { count: number; at: number }>();
  private strangers = 0;
  private guests = 0;
  private alarm = 0;
  private readonly now: () => number;
  private readonly later: (action: () => void, ms: number) => void;

  constructor(private readonly settings: DoorQueueSettings) {
    this.now = settings.now ?? Date.now;
    this.later = settings.later ?? ((action, ms) => void setTimeout(action, ms).unref());
  }

  /** Waits for the turn of a try. Throws a Problem that says when to come again. */
  enter(one: Try, signal?: AbortSignal): Promise<Slot> {
    const { patienceMs } = this.settings;
    return new Promise((resolve, reject) => {
      if (signal?.aborted) return reject(goneAway());
      if (!one.known && !this.makeRoom(one)) return reject(this.busy());
      const entry: Waiting = { ...one, since: this.now(), start: resolve, refuse: reject };
      this.waiting.push(entry);
      signal?.addEventListener('abort', () => this.drop(entry, goneAway()), { once: true });
      this.later(() => this.drop(entry, this.busy()), patienceMs);
      this.next();
    });
  }

  /** Whether a stranger of a place finds room: what is refused so costs next to nothing. */
  hasRoom(place: string): boolean {
    const { mostOfPlace, mostOfAll } = this.settings;
    const [all, own] = this.strangersWaiting(place);
    return all < mostOfAll && own < mostOfPlace;
  }

  /** Of a place that is full the key that most wait for gives way: many guesses at one keep out nobody else. */
  private makeRoom({ place, key }: Try): boolean {
    if (this.hasRoom(place)) return true;
    const counts = new Map<string, number>();
    for (const one of this.waiting)
      if (!one.known && one.place === place) counts.set(one.key, (counts.get(one.key) ?? 0) + 1);
    const [most] = [...counts].sort((a, b) => b[1] - a[1]);
    if (!most || most[0] === key || most[1] < 2) return false;
    const last = this.waiting.findLast((one) => one.place === place && one.key === most[0]);
    this.drop(last!, this.busy());
    return true;
  }

  private strangersWaiting(place: string): readonly [all: number, own: number] {
    let [all, own] = [0, 0];
    for (const one of this.waiting) {
      if (one.known) continue;
      all++;
      if (one.place === place) own++;
    }
    return [all, own];
  }

  private busy(): Problem {
    return doorBusy(Math.ceil(this.settings.patienceMs / 1000));
  }

  /** A key is not looked at before. @param until  milliseconds since 1970 */
  rest(key: string, until: number): void {
    if (until > (this.rests.get(key) ?? 0)) this.rests.set(key, until);
  }

  private drop(entry: Waiting, why: Error): void {
    const at = this.waiting.indexOf(entry);
    if (at < 0) return;
    this.waiting.splice(at, 1);
    entry.refuse(why);
  }

  private next(): void {
    for (let entry = this.choose(); entry; entry = this.choose()) {
      this.waiting.splice(this.waiting.indexOf(entry), 1);
      this.begin(entry);
    }
  }

  private choose(): Waiting | undefined {
    const now = this.now();
    const ready = this.waiting.filter(({ key }) => (this.rests.get(key) ?? 0) <= now);
    const known = ready.find((one) => one.known);
    if (known && this.guests + this.strangers <= this.settings.slots) return known;
    this.wakeForRests(now);
    if (this.strangers >= this.settings.slots) return undefined;
    let [best, least]: [Waiting | undefined, number] = [undefined, Infinity];
    for (const one of ready) {
      if (one.known) continue;
      const served = this.servedOf(one.place, now);
      if (served < least) [best, least] = [one, served];
    }
    return best;
  }

  /** One alarm for all keys that rest: when the first of them may be looked at. */
  private wakeForRests(now: number): void {
    let first = Infinity;
    for (const { key } of this.waiting) {
      const until = this.rests.get(key) ?? 0;
      if (until > now && until < first) first = until;
    }
    if (first === Infinity || (this.alarm > now && this.alarm <= first)) return;
    this.alarm = first;
    this.later(() => this.next(), first - now);
  }

  private begin({ known, place, key, start }: Waiting): void {
    const now = this.now();
    if (known) this.guests++;
    else {
      this.strangers++;
      if (this.served.size > MOST_PLACES) this.served.clear();
      this.served.set(place, { count: this.servedOf(place, now) + 1, at: now });
    }
    let isHeld = true;
    start({
      release: (restUntil) => {
        if (restUntil !== undefined) this.rest(key, restUntil);
        if (!isHeld) return;
        isHeld = false;
        if (known) this.guests--;
        else this.strangers--;
        this.tidy();
        this.next();
      },
    });
  }

  private servedOf(place: string, now: number): number {
    const one = this.served.get(place);
    return one ? one.count * 0.5 ** ((now - one.at) / HALF_LIFE_MS) : 0;
  }

  private tidy(): void {
    if (this.rests.size <= MOST_PLACES) return;
    const now = this.now();
    for (const [key, until] of this.rests) if (until <= now) this.rests.delete(key);
  }
}
