import { type Fraction, div } from '../rhythm/fraction.ts';
import { type Beat, type Meter, beatOf } from '../rhythm/meter.ts';
import { type NoteValue, type ValueLetter, lengthOf } from '../rhythm/value.ts';
import type { CountedEvent } from '../counting/countingSystem.ts';
import {
  GRID_VALUES,
  type GridValue,
  type TupletKind,
  fromTicks,
  isStray,
  measureTicks,
  ticks,
  tupletKinds,
} from './ticks.ts';

/** A place in a measure: ticks from the bar line, and the tuplet that is open there. A measure has each place once. */
export interface Place {
  /** From 0, in the order in which they were asked for. */
  readonly id: number;
  readonly at: number;
  readonly tuplet?: OpenTuplet | undefined;
}

export interface OpenTuplet {
  readonly kind: TupletKind;
  readonly at: number;
}

/** One written event that a spoken token can mean. */
export interface SpokenEvent {
  readonly kind: 'note' | 'tied' | 'rest' | 'measure-rest';
  readonly value: NoteValue;
  readonly tuplet?: TupletKind | undefined;
  /** Where its tuplet starts, so that neighbours of one group are told from two groups. */
  readonly tupletAt?: number | undefined;
}

/** From a place in the measure, saying these tokens, to another place. */
export interface Transition {
  /** The tokens after the first. */
  readonly more: readonly string[];
  readonly events: readonly SpokenEvent[];
  readonly to: Place;
  readonly cost: number;
  /** The token says less than the note lasts: how many ticks it says. */
  readonly said?: number | undefined;
}

/** One value that fits at a place. */
export interface Fitting {
  readonly length: number;
  readonly tuplet: OpenTuplet | undefined;
  /** A note of this value, and a rest, as the systems see them. */
  readonly note: CountedEvent;
  readonly rest: CountedEvent;
  /** What one token that means it does. */
  readonly asNote: Transition;
  readonly asTied: Transition;
  readonly asRest: Transition;
}

/** As the systems see it, and its notes. */
interface SeenTuplet {
  readonly inBeats: NonNullable<CountedEvent['tuplet']>;
  readonly events: Map<number, CountedEvent>;
}

const KINDS: readonly CountedEvent['kind'][] = ['note', 'tied', 'rest'];
/** In ticks; the whole note with two dots has 672. */
const LONGER_THAN_ALL = 1024;

const VALUE_COST: Readonly<Record<ValueLetter, number>> = { w: 0, h: 0, q: 0, e: 0.05, s: 0.15, t: 0.6 };
const DOT_COST = [0, 0.04, 0.5] as const;
/** A note shorter than the unit of its tuplet: nearly always another grouping is meant. */
const SHORT_IN_TUPLET_COST = 1;
const DOTTED_IN_TUPLET_COST = 0.6;
const OFF_BEAT_COST = 0.15;
const TIED_COST = 0.3;
/** Nothing more has to be said. */
export const WHOLE_TOKEN: readonly string[] = [];

/**
 * The places of a measure and what can be written at each, whatever the system; worked out when first asked, and kept.
 */
export class Places {
  readonly beat: Beat;
  /** Length of the measure and of a beat, in ticks. */
  readonly full: number;
  readonly beatTicks: number;
  private readonly plain = new Map<number, Place>();
  private readonly inTuplets = new Map<string, Place>();
  private readonly fittings = new Map<Place, readonly Fitting[]>();
  /** What the systems see, outside tuplets. */
  private readonly events = new Map<number, CountedEvent>();
  /** By the ticks at which they start: all notes of one share the object. */
  private readonly tuplets = new Map<TupletKind, Map<number, SeenTuplet>>();

  constructor(
    readonly meter: Meter,
    override: ValueLetter | undefined,
  ) {
    this.beat = beatOf(meter, override);
    this.full = measureTicks(meter);
    this.beatTicks = ticks(this.beat.length);
  }

  /** The place itself, the same object each time. */
  place(at: number, tuplet?: OpenTuplet): Place {
    const key = tuplet ? `${at}/${tuplet.kind.n}${tuplet.kind.unit}${tuplet.at}` : '';
    const known = tuplet ? this.inTuplets.get(key) : this.plain.get(at);
    if (known) return known;
    const place: Place = { id: this.plain.size + this.inTuplets.size, at, tuplet };
    if (tuplet) this.inTuplets.set(key, place);
    else this.plain.set(at, place);
    return place;
  }

  /** Every value that fits there, also as the first of a tuplet. */
  fittingAt(place: Place): readonly Fitting[] {
    let fitting = this.fittings.get(place);
    if (!fitting) this.fittings.set(place, (fitting = this.fitting(place)));
    return fitting;
  }

  private fitting(place: Place): Fitting[] {
    const found: Fitting[] = [];
    if (place.tuplet) {
      this.fit(found, place, place.tuplet.kind.values, place.tuplet);
      return found;
    }
    this.fit(found, place, GRID_VALUES, undefined);
    for (const kind of tupletKinds(this.meter)) {
      if (place.at + kind.ticks <= this.full && place.at % Math.min(kind.ticks, this.beatTicks) === 0)
        this.fit(found, place, kind.values, { kind, at: place.at });
    }
    return found;
  }

  private fit(found: Fitting[], place: Place, values: readonly GridValue[], tuplet: OpenTuplet | undefined): void {
    const limit = tuplet ? tuplet.at + tuplet.kind.ticks : this.full;
    for (const { value, ticks: length } of values) {
      const end = place.at + length;
      if (end > limit || (!tuplet && isStray(place.at) && isStray(end))) continue;
      const unusual = tuplet ? tupletCost(place, tuplet, value, length) : this.offBeatCost(place.at, length);
      // Among parses that are equally likely the one with longer notes comes first, then the one whose longer notes
      // come earlier.
      const cost =
        VALUE_COST[value.base] +
        DOT_COST[value.dots] +
        unusual -
        length / 1e6 -
        (length * length * (this.full - place.at)) / 1e14;
      const to = this.place(end, tuplet && end < limit ? tuplet : undefined);
      const transition = (kind: SpokenEvent['kind'], more: number): Transition => ({
        more: WHOLE_TOKEN,
        events: [{ kind, value, tuplet: tuplet?.kind, tupletAt: tuplet?.at }],
        to,
        cost: cost + more,
        said: undefined,
      });
      const counted = (kind: CountedEvent['kind']) => this.counted(kind, place.at, length, value, tuplet);
      found.push({
        length,
        tuplet,
        note: counted('note'),
        rest: counted('rest'),
        asNote: transition('note', 0),
        asTied: transition('tied', TIED_COST),
        asRest: transition('rest', 0),
      });
    }
  }

  /**
   * A note or rest at so many ticks from the bar line, of so many ticks, as the systems see it; the same object each
   * time.
   */
  counted(
    kind: CountedEvent['kind'],
    at: number,
    length: number,
    value: NoteValue,
    tuplet: OpenTuplet | undefined,
  ): CountedEvent {
    const seen = tuplet && this.seenTuplet(tuplet);
    const events = seen ? seen.events : this.events;
    const key = (at * LONGER_THAN_ALL + length) * KINDS.length + KINDS.indexOf(kind);
    let event = events.get(key);
    if (!event)
      events.set(key, (event = this.seen(kind, at, length, value, lengthOf(value), seen?.inBeats, undefined)));
    return event;
  }

  /** A measure of rest, in a run the one of this number. */
  measureRest(number: number): CountedEvent {
    return this.seen('rest', 0, this.full, { base: 'w', dots: 0 }, fromTicks(this.full), undefined, number);
  }

  private seen(
    kind: CountedEvent['kind'],
    at: number,
    length: number,
    value: NoteValue,
    written: Fraction,
    tuplet: CountedEvent['tuplet'],
    restNumber: number | undefined,
  ): CountedEvent {
    const [onset, inBeats] = [this.inBeats(at), this.inBeats(length)];
    return {
      kind,
      onset,
      length: inBeats,
      value,
      written,
      at: fromTicks(at),
      meter: this.meter,
      beat: this.beat,
      label: undefined,
      tuplet,
      restNumber,
      sounding: undefined,
    };
  }

  private seenTuplet({ kind, at }: OpenTuplet): SeenTuplet {
    let ofKind = this.tuplets.get(kind);
    if (!ofKind) this.tuplets.set(kind, (ofKind = new Map<number, SeenTuplet>()));
    let seen = ofKind.get(at);
    if (!seen)
      ofKind.set(
        at,
        (seen = {
          inBeats: { n: kind.n, onset: this.inBeats(at), length: this.inBeats(kind.ticks) },
          events: new Map(),
        }),
      );
    return seen;
  }

  private inBeats(count: number): Fraction {
    return div(fromTicks(count), this.beat.length);
  }

  /** Notes that start inside a beat, or off the sixteenth that would carry them, are less usual. */
  private offBeatCost(at: number, length: number): number {
    const { beatTicks } = this;
    const inBeat = at % beatTicks;
    const crosses = inBeat !== 0 && inBeat + length > beatTicks;
    return (crosses ? OFF_BEAT_COST : 0) + (inBeat % Math.min(length, beatTicks) !== 0 && !crosses ? OFF_BEAT_COST : 0);
  }
}

function tupletCost(place: Place, { kind }: OpenTuplet, { dots }: NoteValue, length: number): number {
  return (
    (place.tuplet ? 0 : kind.cost) +
    (length * kind.n < kind.ticks ? SHORT_IN_TUPLET_COST : 0) +
    (dots > 0 ? DOTTED_IN_TUPLET_COST : 0)
  );
}
