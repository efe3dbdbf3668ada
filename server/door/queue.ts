import { t } from '../../core/words/say.ts';
import { Problem } from '../problem.ts';

/** One try to come in. */
export interface Try {
  /** From a browser in which the teacher has been before: it goes first, by a way of its own. */
  readonly known: boolean;
  /** Where it comes from; those that asked least of late go first. */
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
  /** Gives back the room that it takes up. */
  readonly leave: () => void;
  readonly start: (slot: Slot) => void;
  readonly refuse: (problem: Error) => void;
}

/** What a try holds while it is looked at. */
export interface Slot {
  /** The next one is let on. */
  readonly release: () => void;
}

/** What a place asked counts half after so long. */
const HALF_LIFE_MS = 60_000;
const MOST_PLACES = 20_000;

/** Too many at the door. @param seconds  when it is worth trying again */
export function doorBusy(seconds: number): Problem {
  return new Problem(
    503,
    'door-busy',
    t`Too many try to sign in just now. Try again in ${seconds} seconds, or in a browser
      you have used before.`,
    { retryAfter: seconds },
  );
}

/** Nobody waits for the answer any more. */
function goneAway(): Problem {
  return new Problem(400, 'broken-off', t`The request broke off before its end. Send it again.`);
}

/**
 * Who is looked at next at the door. Looking costs a third of a second of a processor, so that it is shared out: known
 * browsers first, then the places that asked least of late, so that neither many names nor many guesses from a few
 * places keep out somebody else. Whoever has left is dropped, whoever waits too long is told when to come again.
 */
export class DoorQueue {
  private readonly waiting: Waiting[] = [];
  /** Strangers that wait or arrive, of all and of each place. */
  private held = 0;
  private readonly heldBy = new Map<string, number>();
  private readonly rests = new Map<string, number>();
  private readonly asked = new Map<string, { count: number; at: number }>();
  private strangers = 0;
  private guests = 0;
  private alarm = 0;
  private readonly now: () => number;
  private readonly later: (action: () => void, ms: number) => void;

  constructor(private readonly settings: DoorQueueSettings) {
    // A clock that is put right while somebody waits keeps nobody waiting.
    this.now = settings.now ?? (() => performance.now());
    this.later = settings.later ?? ((action, ms) => void setTimeout(action, ms).unref());
  }

  /** Waits for the turn of a try. Throws a Problem that says when to come again. */
  enter(one: Try, signal?: AbortSignal): Promise<Slot> {
    const { patienceMs } = this.settings;
    return new Promise((resolve, reject) => {
      if (signal?.aborted) return reject(goneAway());
      if (!one.known && !this.makeRoom(one)) return reject(this.busy());
      const leave = one.known ? () => {} : this.hold(one.place);
      const entry: Waiting = { ...one, leave, start: resolve, refuse: reject };
      this.waiting.push(entry);
      signal?.addEventListener('abort', () => this.drop(entry, goneAway()), { once: true });
      this.later(() => this.drop(entry, this.busy()), patienceMs);
      this.next();
    });
  }

  /**
   * Keeps room for a stranger of a place until it is known who it is: whoever finds none is sent away for next to
   * nothing. Throws a Problem that says when to come again.
   * @returns what gives the room back
   */
  arrive(place: string): () => void {
    this.ask(place);
    if (this.isFull(place)) throw this.busy();
    return this.hold(place);
  }

  /** Whether a stranger of a place would be sent away: where all is full those that fill it give way to the others. */
  isFull(place: string): boolean {
    const { mostOfPlace, mostOfAll } = this.settings;
    const own = this.heldBy.get(place) ?? 0;
    if (own >= mostOfPlace) return true;
    return this.held >= mostOfAll && own >= mostOfAll / Math.max(1, this.heldBy.size);
  }

  private hold(place: string): () => void {
    this.held++;
    this.heldBy.set(place, (this.heldBy.get(place) ?? 0) + 1);
    let isHeld = true;
    return () => {
      if (!isHeld) return;
      isHeld = false;
      this.held--;
      const left = this.heldBy.get(place)! - 1;
      if (left === 0) this.heldBy.delete(place);
      else this.heldBy.set(place, left);
    };
  }

  /**
   * Of a place that is full the key that most wait for gives way: many guesses at one keep out nobody else. Where all
   * is full it is the place of which most wait.
   */
  private makeRoom({ place, key }: Try): boolean {
    const { mostOfPlace, mostOfAll } = this.settings;
    if ((this.heldBy.get(place) ?? 0) >= mostOfPlace)
      return this.giveWay(
        this.waiting.filter((one) => !one.known && one.place === place),
        (one) => one.key,
        key,
      );
    if (this.held < mostOfAll) return true;
    return this.giveWay(
      this.waiting.filter((one) => !one.known),
      (one) => one.place,
      place,
    );
  }

  /** The last one of the largest group is sent away, unless that is the group of whoever comes. */
  private giveWay(strangers: readonly Waiting[], groupOf: (one: Waiting) => string, own: string): boolean {
    const counts = new Map<string, number>();
    for (const one of strangers) counts.set(groupOf(one), (counts.get(groupOf(one)) ?? 0) + 1);
    const [most] = [...counts].sort((a, b) => b[1] - a[1]);
    if (!most || most[0] === own || most[1] < 2) return false;
    this.drop(
      strangers.findLast((one) => groupOf(one) === most[0])!,
      this.busy(),
    );
    return true;
  }

  private busy(): Problem {
    return doorBusy(Math.ceil(this.settings.patienceMs / 1000));
  }

  /** A key is not looked at for so many milliseconds. */
  rest(key: string, ms: number): void {
    const until = this.now() + ms;
    if (until > (this.rests.get(key) ?? 0)) this.rests.set(key, until);
  }

  private drop(entry: Waiting, why: Error): void {
    const at = this.waiting.indexOf(entry);
    if (at < 0) return;
    this.waiting.splice(at, 1);
    entry.leave();
    entry.refuse(why);
  }

  private next(): void {
    for (let entry = this.choose(); entry; entry = this.choose()) {
      this.waiting.splice(this.waiting.indexOf(entry), 1);
      entry.leave();
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
      const asked = this.askedBy(one.place, now);
      if (asked < least) [best, least] = [one, asked];
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
    this.later(
      () => {
        this.alarm = 0;
        this.next();
      },
      // Not a part of a millisecond too early.
      Math.ceil(first - now),
    );
  }

  private begin({ known, start }: Waiting): void {
    if (known) this.guests++;
    else this.strangers++;
    let isHeld = true;
    start({
      release: () => {
        if (!isHeld) return;
        isHeld = false;
        if (known) this.guests--;
        else this.strangers--;
        this.tidy();
        this.next();
      },
    });
  }

  private ask(place: string): void {
    const now = this.now();
    if (this.asked.size > MOST_PLACES) this.asked.clear();
    this.asked.set(place, { count: this.askedBy(place, now) + 1, at: now });
  }

  private askedBy(place: string, now: number): number {
    const one = this.asked.get(place);
    return one ? one.count * 0.5 ** ((now - one.at) / HALF_LIFE_MS) : 0;
  }

  private tidy(): void {
    if (this.rests.size <= MOST_PLACES) return;
    const now = this.now();
    for (const [key, until] of this.rests) if (until <= now) this.rests.delete(key);
  }
}
