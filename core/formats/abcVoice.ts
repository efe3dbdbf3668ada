import { t } from '../words/say.ts';
import { type Fraction, ONE, compare, frac, mul, sum } from '../rhythm/fraction.ts';
import { COMMON_TIME, type Meter, meterKind, meterLength } from '../rhythm/meter.ts';
import { valueOfLength } from '../rhythm/value.ts';
import { freeMeter } from './freeMeter.ts';
import { type Budget, Leavings, type Ratio, type RawEvent, type RawMeasure, type RawVoice } from './piece.ts';

/** A note, chord or rest while its measure is read: broken rhythm and ties may still change it. */
export interface AbcEvent {
  kind: 'note' | 'rest';
  /** As written, before its group. */
  written: Fraction;
  ratio?: Ratio;
  groupStart?: boolean;
  groupEnd?: boolean;
  /** Pitches of the chord; those that are tied. */
  pitches: readonly string[];
  tied: Set<string>;
  label?: string;
  letter?: string;
}

interface Group {
  readonly ratio: Ratio;
  left: number;
  opened: boolean;
}

/** What a bar line says. */
export interface BarFacts {
  readonly repeatEnd?: number;
  readonly repeatStart?: boolean;
  /** A double bar, or a sign of repeat: a part of the piece ends here. */
  readonly section: boolean;
  readonly endingStops: boolean;
}

/** How many measures of rest a sign may stand for. */
const MOST_RESTS = 999;

/** One voice of a tune while it is read. */
export class AbcVoice {
  readonly leavings = new Leavings();
  private readonly measures: (RawMeasure & { own: readonly AbcEvent[] })[] = [];
  private events: AbcEvent[] = [];
  private group: Group | undefined;
  /** What broken rhythm does to the next note. */
  private nextFactor: Fraction = ONE;
  private marks: {
    repeatStart?: boolean;
    letter?: string;
    number?: number;
    ending?: readonly number[];
    pickup?: boolean;
  } = {};
  private afterSection = false;
  private meterHere: Meter | undefined;
  private trouble: string | undefined;
  private ostinato: number | undefined;

  /** @param meter  undefined where none is written: each measure is as long as what is in it */
  constructor(
    readonly id: string,
    public unit: Fraction,
    private meter: Meter | undefined,
    private readonly literal: boolean,
    private readonly budget: Budget,
  ) {
    budget.use('voices');
  }

  setMeter(meter: Meter | undefined): void {
    this.meter = meter;
  }

  mark(marks: typeof this.marks): void {
    // A mark inside a measure belongs to the next, but for an ending's number, which follows its bar.
    Object.assign(this.marks, marks);
  }

  /** So many of its measures are written; the others are they again. */
  comesAgain(measures: number): void {
    if (Number.isInteger(measures) && measures > 0) this.ostinato = measures;
  }

  /** What is wrong in the measure that is being read. */
  fault(trouble: string): void {
    this.trouble ??= trouble;
  }

  openGroup(ratio: Ratio, count: number): void {
    if (this.group?.opened) this.fault(t`a group begins inside another one`);
    this.group = { ratio, left: count, opened: false };
  }

  /** What `(3` means: so many in the time of 2, or of 3 in meters in three (ABC 2.1, 4.13). */
  usualTime(n: number): number {
    const many = this.meter && meterKind(this.meter) === 'compound' ? 3 : 2;
    return { 2: 3, 3: 2, 4: 3, 6: 2, 8: 3 }[n] ?? many;
  }

  add(event: AbcEvent): void {
    this.budget.use('notes');
    // A meter in the middle of a measure holds from the next.
    if (this.events.length === 0) this.meterHere = this.meter;
    event.written = mul(event.written, this.nextFactor);
    this.nextFactor = ONE;
    const { group } = this;
    if (group) {
      event.ratio = group.ratio;
      if (!group.opened) event.groupStart = true;
      group.opened = true;
      if (--group.left <= 0) {
        event.groupEnd = true;
        this.group = undefined;
      }
    }
    this.events.push(event);
  }

  /** `A>B`: the one longer, the other shorter; each further sign halves again (ABC 2.1, 4.4). */
  broken(sign: string): void {
    const last = this.events.at(-1);
    if (!last || sign.length > 3) return;
    const part = 2 ** sign.length;
    const [long, short] = [frac(2 * part - 1, part), frac(1, part)];
    last.written = mul(last.written, sign.startsWith('>') ? long : short);
    this.nextFactor = sign.startsWith('>') ? short : long;
  }

  tie(): void {
    const last = this.events.at(-1) ?? this.measures.at(-1)?.own.at(-1);
    if (last?.kind === 'note') last.tied = new Set(last.pitches);
  }

  restMeasures(count: number): void {
    this.finish();
    const rests = Math.min(Math.max(1, count), MOST_RESTS);
    const meter = this.meter ?? COMMON_TIME;
    for (let i = 0; i < rests; i++) {
      const rest: RawEvent = { kind: 'rest', length: meterLength(meter), wholeMeasure: true };
      this.push({ meter, events: [rest], own: [], ...(i === 0 && rests > 1 ? { restRun: rests } : {}) });
    }
  }

  bar({ repeatEnd, repeatStart, section, endingStops }: BarFacts): void {
    this.finish();
    const last = this.measures.at(-1);
    if (last && repeatEnd !== undefined && !this.afterSection) Object.assign(last, { repeatEnd });
    if (last && endingStops) Object.assign(last, { endingStops });
    if (repeatStart) this.marks.repeatStart = true;
    if (section) this.afterSection = true;
  }

  /** @returns nothing where nothing was written in this voice */
  finished(): RawVoice | undefined {
    this.finish();
    if (this.measures.length === 0) return undefined;
    const flat = this.measures.flatMap(({ own }) => own);
    const joins = new Map<AbcEvent, boolean>();
    flat.forEach((event, i) => joins.set(event, tiedOver(event, flat[i + 1])));
    return {
      id: this.id,
      leftOut: this.leavings.counts,
      literal: this.literal,
      ...(this.ostinato === undefined ? {} : { ostinato: this.ostinato }),
      measures: this.measures.map(({ own, ...measure }) =>
        own.length === 0
          ? measure
          : { ...measure, events: own.map((event) => rawOf(event, joins.get(event) === true)) },
      ),
    };
  }

  private finish(): void {
    if (this.events.length === 0) return;
    const own = this.events;
    this.events = [];
    const length = sum(own.map(lengthOfEvent));
    const meter = this.meterHere ?? freeMeter(length);
    this.push({ meter, events: own.map((event) => rawOf(event, false)), own });
  }

  private push(measure: RawMeasure & { own: readonly AbcEvent[] }): void {
    this.budget.use('measures');
    const short = compare(sum(measure.events.map(({ length }) => length)), meterLength(measure.meter)) < 0;
    const half = this.afterSection && this.measures.length > 0 && short && !this.literal;
    const { trouble } = this;
    this.measures.push({
      ...measure,
      ...this.marks,
      ...(half ? { uncounted: true } : {}),
      ...(trouble === undefined ? {} : { trouble }),
    });
    this.marks = {};
    this.trouble = undefined;
    this.afterSection = false;
  }
}

function lengthOfEvent({ written, ratio }: AbcEvent): Fraction {
  return ratio ? mul(written, frac(ratio.m, ratio.n)) : written;
}

/** Every pitch of the next chord must be tied from this one: else it is struck. */
function tiedOver(event: AbcEvent, next: AbcEvent | undefined): boolean {
  if (event.tied.size === 0) return false;
  return next === undefined || (next.kind === 'note' && next.pitches.every((pitch) => event.tied.has(pitch)));
}

function rawOf(event: AbcEvent, tied: boolean): RawEvent {
  const value = valueOfLength(event.written);
  return {
    kind: event.kind,
    length: lengthOfEvent(event),
    ...(value ? { value } : {}),
    ...(event.ratio ? { ratio: event.ratio } : {}),
    ...(event.groupStart ? { groupStart: true } : {}),
    ...(event.groupEnd ? { groupEnd: true } : {}),
    ...(tied ? { tied } : {}),
    ...(event.label === undefined ? {} : { label: event.label }),
    ...(event.letter === undefined ? {} : { letter: event.letter }),
  };
}
