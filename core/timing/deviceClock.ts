/** Milliseconds on some clock. */
export type Milliseconds = number;

/** One question of a device and the answer to it. */
export interface Exchange {
  /** When it was asked and when the answer came, on the device's own clock. */
  readonly sent: Milliseconds;
  readonly back: Milliseconds;
  /** What the room's clock showed in between. */
  readonly there: Milliseconds;
}

/** How a device's clock stands to the room's. */
export interface ClockOffset {
  /** The room's time is the device's and this, at the device's time `at`. */
  readonly offset: Milliseconds;
  readonly at: Milliseconds;
  /** By so much the offset grows in a millisecond. */
  readonly drift: number;
  /** The offset is known to be within so much on either side, whatever the network did. */
  readonly within: Milliseconds;
}

/** So many are asked for before a device begins; more are better (handbook §16 asks for twelve at least). */
export const FEWEST_EXCHANGES = 12;

/** Crystals of telephones and laptops are off by less, also while a time service pulls at them. */
const LARGEST_DRIFT = 300e-6;

/** What is older tells more of how a clock drifted than of where it stands. */
const KEPT_FOR: Milliseconds = 10 * 60_000;
const MOST_KEPT = 200;

/** A clock that was set, or stood still while a device slept, is off by more than this. */
const JUMP: Milliseconds = 15;

/** How far apart the two bounds of the offset stay when the clock drifts like that; and the middle between them. */
function corridor(exchanges: readonly Exchange[], at: Milliseconds, drift: number) {
  let [low, high] = [-Infinity, Infinity];
  for (const { sent, back, there } of exchanges) {
    // The question took some time, so the offset is less; so did the answer, so it is more.
    high = Math.min(high, there - sent - drift * (sent - at));
    low = Math.max(low, there - back - drift * (back - at));
  }
  return { width: high - low, middle: (high + low) / 2 };
}

/** The drift that leaves the widest corridor: its width is concave in the drift, so halving finds it. */
function driftOf(exchanges: readonly Exchange[], at: Milliseconds): number {
  let [low, high] = [-LARGEST_DRIFT, LARGEST_DRIFT];
  for (let step = 0; step < 40; step++) {
    const third = (high - low) / 3;
    const [a, b] = [low + third, high - third];
    if (corridor(exchanges, at, a).width < corridor(exchanges, at, b).width) low = a;
    else high = b;
  }
  return (low + high) / 2;
}

/**
 * How a device's clock stands to the room's, from exchanges of both. Each leaves the offset between two bounds: the
 * question cannot have arrived before it was asked, nor the answer before it was given. The shortest question and the
 * shortest answer bound it best, whichever exchanges they were in; the middle between the two is right where the
 * shortest ways there and back are alike.
 * @param at  the device's time for which the offset is wanted
 * @returns undefined without an exchange
 * @example clockOffset([{ sent: 100, there: 1130, back: 140 }], 140) // offset 1010, within 20
 */
export function clockOffset(exchanges: readonly Exchange[], at: Milliseconds): ClockOffset | undefined {
  if (exchanges.length === 0) return undefined;
  const drift = exchanges.length < FEWEST_EXCHANGES ? 0 : driftOf(exchanges, at);
  const { width, middle } = corridor(exchanges, at, drift);
  return { offset: middle, at, drift, within: Math.max(0, width / 2) };
}

/** Follows the room's clock while exchanges come in. */
export class DeviceClock {
  private exchanges: readonly Exchange[] = [];
  private strange: readonly Exchange[] = [];
  private known: ClockOffset | undefined;

  /** How many exchanges it knows the clock by. */
  get count(): number {
    return this.exchanges.length;
  }

  add(exchange: Exchange): void {
    if (!(exchange.back >= exchange.sent)) return;
    if (this.fits(exchange)) {
      this.strange = [];
      const from = exchange.back - KEPT_FOR;
      const kept = [...this.exchanges.filter(({ back }) => back >= from), exchange];
      this.exchanges = kept.length > MOST_KEPT ? thinned(kept) : kept;
    } else {
      // One may be a mistake; two in a row that agree are another clock.
      this.strange = [...this.strange.filter((one) => corridor([one, exchange], one.back, 0).width > -JUMP), exchange];
      if (this.strange.length < 2) return;
      this.exchanges = this.strange;
      this.strange = [];
    }
    this.known = clockOffset(this.exchanges, exchange.back);
  }

  /** Of this moment; undefined before the first exchange. */
  offset(now: Milliseconds): ClockOffset | undefined {
    const { known } = this;
    return known && { ...known, at: now, offset: known.offset + known.drift * (now - known.at) };
  }

  /** The room's time at a time of the device. */
  room(here: Milliseconds): Milliseconds | undefined {
    const known = this.offset(here);
    return known && here + known.offset;
  }

  /** The device's time at a time of the room. */
  here(room: Milliseconds): Milliseconds | undefined {
    const { known } = this;
    if (!known) return undefined;
    const { offset, at, drift } = known;
    return (room - offset + drift * at) / (1 + drift);
  }

  private fits({ sent, back, there }: Exchange): boolean {
    const known = this.offset(back);
    if (!known) return true;
    const slack = JUMP + known.within;
    return known.offset <= there - sent + slack && known.offset >= there - back - slack;
  }
}

/** Those with the shortest way there or back stay, and they stay spread over the time. */
function thinned(exchanges: readonly Exchange[]): Exchange[] {
  const [first, last] = [exchanges[0]!.sent, exchanges.at(-1)!.back];
  const slots = MOST_KEPT / 4;
  const best = new Set<Exchange>();
  for (let slot = 0; slot < slots; slot++) {
    const within = exchanges.filter(
      ({ sent }) => Math.min(slots - 1, Math.floor(((sent - first) / (last - first)) * slots)) === slot,
    );
    const least = (by: (one: Exchange) => number) => within.reduce((a, b) => (by(b) < by(a) ? b : a), within[0]!);
    if (within.length === 0) continue;
    best.add(least(({ sent, there }) => there - sent));
    best.add(least(({ back, there }) => back - there));
  }
  return exchanges.filter((one) => best.has(one));
}
