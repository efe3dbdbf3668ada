import { perLanguage, t } from '../words/say.ts';
import { type Fraction, ONE, ZERO, add, compare, div, equal, frac, mul, sub, sum } from '../rhythm/fraction.ts';
import { type Beat, type Meter, beatOf } from '../rhythm/meter.ts';
import type { Item, Note, Rest } from '../rhythm/pattern.ts';
import { spell } from '../rhythm/spell.ts';
import { LARGEST_TUPLET } from '../rhythm/text.ts';
import { type NoteValue, lengthOf, valueOfLength } from '../rhythm/value.ts';
import type { Ratio, RawEvent } from './piece.ts';

/** The items of a measure; or why rhythm text cannot write it. */
export type MadeItems =
  | { readonly ok: true; readonly items: readonly Item[] }
  | { readonly ok: false; readonly trouble: string };

class Unwritable extends Error {}

const FINEST = perLanguage(() => t`nothing finer than thirty-seconds can be written`);
const WHOLE: NoteValue = { base: 'w', dots: 0 };
const LONGEST_SPELLED = frac(7, 4);
/** No measure can be longer (a meter of 32/1), and nothing in it. */
const LONGEST = frac(32);
const ONE_TO_ONE: Ratio = { n: 1, m: 1 };

/**
 * Puts the events of a measure into values and groups. Where the file names signs they are kept; where it gives only
 * lengths, they are written as a musician would, cut at the beats.
 * @param onset  of the first event from the bar line, part of a whole note
 */
export function measureItems(events: readonly RawEvent[], meter: Meter, onset: Fraction): MadeItems {
  try {
    return { ok: true, items: new Spelling(events, meter, onset).items() };
  } catch (error) {
    if (error instanceof Unwritable) return { ok: false, trouble: error.message };
    throw error;
  }
}

class Spelling {
  private readonly made: Item[] = [];
  private at: Fraction;
  private i = 0;

  constructor(
    private readonly events: readonly RawEvent[],
    private readonly meter: Meter,
    onset: Fraction,
  ) {
    this.at = onset;
  }

  items(): readonly Item[] {
    while (this.i < this.events.length) {
      const event = this.events[this.i]!;
      const ratio = ratioOf(event);
      if (ratio) this.group(ratio, this.groupEnd(ratio));
      else if (!isDyadic(event.length)) {
        const end = this.wholeAgain();
        this.group(ratioOfLengths(this.events.slice(this.i, end)), end);
      } else {
        this.made.push(...this.written(event, this.at, ONE_TO_ONE));
        this.i++;
        this.at = add(this.at, event.length);
      }
    }
    return this.made;
  }

  /** Where a group ends: at its sign; else where it is complete; else where its ratio ends. */
  private groupEnd(ratio: Ratio): number {
    const { events, i } = this;
    let written = ZERO;
    let shortest = frac(1);
    const marked = events[i]!.groupStart === true;
    for (let k = i; k < events.length; k++) {
      const event = events[k]!;
      if (k > i && (event.groupStart === true || !sameRatio(ratioOf(event), ratio))) return k;
      if (event.groupEnd) return k + 1;
      written = add(written, mul(event.length, frac(ratio.n, ratio.m)));
      const base = event.value
        ? lengthOf({ base: event.value.base, dots: 0 })
        : mul(event.length, frac(ratio.n, ratio.m));
      if (compare(base, shortest) < 0) shortest = base;
      const full = mul(shortest, frac(ratio.n));
      const ends = !marked || !events.slice(k + 1).some((later) => later.groupEnd);
      if (ends && compare(written, ZERO) > 0 && div(written, full).d === 1) return k + 1;
    }
    return events.length;
  }

  /** After which event lengths that do not halve add up to one that does. */
  private wholeAgain(): number {
    let total = ZERO;
    for (let k = this.i; k < this.events.length; k++) {
      total = add(total, this.events[k]!.length);
      if (isDyadic(total)) return k + 1;
    }
    return this.events.length;
  }

  private group({ n, m }: Ratio, end: number): void {
    if (n > LARGEST_TUPLET || m > LARGEST_TUPLET)
      throw new Unwritable(
        t`it has a group of ${n} in the time of ${m}; groups of up to ${LARGEST_TUPLET}
          can be written`,
      );
    const from = this.at;
    const events: (Note | Rest)[] = [];
    for (; this.i < end; this.i++) {
      const event = this.events[this.i]!;
      events.push(...this.written(event, mul(sub(this.at, from), frac(n, m)), { n, m }));
      this.at = add(this.at, event.length);
    }
    if (events.length > 0) this.made.push({ kind: 'tuplet', n, m, events });
  }

  /** One event in the signs of its group, tied where one sign is not enough. */
  private written(event: RawEvent, at: Fraction, { n, m }: Ratio): (Note | Rest)[] {
    const length = mul(event.length, frac(n, m));
    const values = event.value ? [event.value] : this.values(event, at, length);
    return values.map((value, k): Note | Rest => {
      if (event.kind === 'rest') return { kind: 'rest', value };
      const tied = k + 1 < values.length || event.tied === true;
      const label = k === 0 ? event.label : undefined;
      return {
        kind: 'note',
        value,
        ...(tied ? { tied: true as const } : {}),
        ...(label === undefined ? {} : { label }),
      };
    });
  }

  private values(event: RawEvent, at: Fraction, length: Fraction): NoteValue[] {
    if (compare(length, LONGEST) > 0)
      throw new Unwritable(
        t`it has a ${event.kind} of more than ${LONGEST.n} whole notes; that is no rhythm to be read`,
      );
    const one = valueOfLength(length);
    const beat = beatOf(this.meter);
    const values = one && event.kind === 'note' ? [one] : spelled(at, length, beat, event.kind);
    if (!equal(sum(values.map(lengthOf)), length)) {
      const { n, d } = event.length;
      throw new Unwritable(t`it has a ${event.kind} of ${n}/${d} of a whole note; ${FINEST()}`);
    }
    return values;
  }
}

/** As the file has it; in lowest terms where it is too large to be written. */
function ratioOf({ ratio }: RawEvent): Ratio | undefined {
  if (!ratio || Math.max(ratio.n, ratio.m) <= LARGEST_TUPLET) return ratio;
  const { n, d } = frac(ratio.n, ratio.m);
  return { n, m: d };
}

function sameRatio(a: Ratio | undefined, b: Ratio): boolean {
  return a?.n === b.n && a.m === b.m;
}

/** What is longer than two wholes begins with wholes. */
function spelled(at: Fraction, length: Fraction, beat: Beat, kind: 'note' | 'rest'): NoteValue[] {
  if (compare(length, LONGEST_SPELLED) <= 0) return spell(at, length, beat, kind);
  return [WHOLE, ...spelled(add(at, ONE), sub(length, ONE), beat, kind)];
}

function isDyadic({ d }: Fraction): boolean {
  return (d & (d - 1)) === 0;
}

/** For lengths alone: as many as the odd part of their denominators, in the time of the next smaller power of two. */
function ratioOfLengths(events: readonly RawEvent[]): Ratio {
  let odd = 1;
  for (const { length } of events) {
    let d = length.d;
    while (d % 2 === 0) d /= 2;
    odd = Math.max(odd, d);
  }
  return { n: odd, m: 2 ** Math.floor(Math.log2(odd)) };
}
