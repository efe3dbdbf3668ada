import { EPSILON } from '../timing/tolerance.ts';
import type { Diagnosis } from './diagnosis.ts';
import type { Hypothesis } from './misreadings/hypothesis.ts';
import { type TempoCurve, heardTime, paceAt, writtenTime } from '../timing/tempoCurve.ts';

/** A bend of tempo is believed when it is so many times its own uncertainty; below that it is unsteadiness. */
const CERTAIN = 2.1;

/** The child as it was followed: from places on paper to the moments they were due in this take, and back. */
export class Follower {
  /** Seconds behind the click; negative is ahead. In a free take where it began. */
  readonly lag: number;
  private readonly curve: TempoCurve;
  private readonly shifts: readonly { readonly from: number; readonly by: number; readonly whole: boolean }[];
  private readonly paced: readonly NonNullable<Hypothesis['paced']>[];
  private readonly gone: readonly { readonly from: number; readonly to: number }[];
  private readonly speed: number;
  private readonly zero: number;
  private readonly certain: boolean;

  constructor(
    private readonly diagnosis: Diagnosis,
    private readonly free: boolean,
  ) {
    const { hypotheses, fit, claps } = diagnosis;
    this.lag = fit.curve.lag;
    this.curve = fit.curve;
    this.certain = fit.bendCertainty >= CERTAIN;
    this.speed = hypotheses.find(({ speed }) => speed !== undefined)?.speed ?? 1;
    this.shifts = hypotheses
      .flatMap(({ shift, wholeTake }) =>
        shift ? [{ from: wholeTake ? -Infinity : shift.from, by: shift.seconds, whole: wholeTake === true }] : [],
      )
      .sort((a, b) => a.from - b.from);
    this.paced = hypotheses.flatMap(({ paced }) => paced ?? []);
    this.gone = hypotheses.flatMap(({ leavesOut }) => leavesOut ?? []);
    // At another speed all times are stretched about one moment: the one that the hypothesis leaves where it is.
    const some = claps.find(({ note }) => note >= 0);
    this.zero = some && this.speed !== 1 ? (some.time - some.written / this.speed) / (1 - 1 / this.speed) : 0;
  }

  /** In a measure that was left out. */
  leftOut(time: number): boolean {
    return this.gone.some(({ from, to }) => time >= from - EPSILON && time < to - EPSILON);
  }

  /** The moment in the take at which a written time was due. */
  heard(time: number): number {
    return heardTime(this.curve, this.unshifted(time));
  }

  /** The moment in the take at which a beat was due: its own tempo followed, but not what it misread. */
  beat(time: number): number {
    return heardTime(this.curve, this.zero + (time - this.zero) / this.speed);
  }

  /** A written time with all shifts and the speed, before lead and tempo. */
  unshifted(time: number): number {
    const scaled = this.zero + (time - this.zero) / this.speed;
    const inStretch = this.paced.find(({ from, to }) => time > from && time < to - EPSILON);
    const stretched = inStretch ? (time - inStretch.from) * inStretch.slower : 0;
    return this.shifts.reduce((at, { from, by }) => (time >= from - EPSILON ? at + by : at), scaled + stretched);
  }

  /** The place on paper of a moment in the take. */
  written(moment: number): number {
    let time = writtenTime(this.curve, moment);
    let sum = 0;
    let passed = 0;
    for (const { from, by } of this.shifts) {
      if (time - sum - by >= from - EPSILON || from === -Infinity) {
        sum += by;
        passed++;
      }
    }
    const next = this.shifts[passed];
    time -= sum;
    const stretch = this.paced.find(({ from, to, slower }) => time > from && time < from + (to - from) * (1 + slower));
    if (stretch) return stretch.from + (time - stretch.from) / (1 + stretch.slower);
    // Time that was given to a rest or note too long stands still at its end.
    if (next && time > next.from) time = next.from - EPSILON;
    return this.zero + (time - this.zero) * this.speed;
  }

  /** A moment by the written clock: lead, tempo, speed and a wrong entry taken off, but no shift inside the take. */
  straight(moment: number): number {
    const entry = this.shifts.reduce((sum, { by, whole }) => (whole ? sum + by : sum), 0);
    return this.zero + (writtenTime(this.curve, moment) - entry - this.zero) * this.speed;
  }

  /**
   * Change of tempo from the first to the last clap, as a part; faster is positive. 0 when it may be mere unsteadiness.
   */
  get drift(): number {
    const { from, length } = this.curve;
    return this.certain ? paceAt(this.curve, from) / paceAt(this.curve, from + length) - 1 : 0;
  }

  /** The same with another tempo that was kept from a place to the end; of one measure alone it is a slip in it. */
  private get changed(): number {
    const stepped = this.diagnosis.hypotheses.find(({ paced, count = 0 }) => paced && count > 1);
    return (1 + this.drift) / (1 + (stepped?.paced?.slower ?? 0)) - 1;
  }

  /** @param bpm  the set tempo */
  tempo(bpm: number): { bpm: number; driftPct: number; spreadMs: number; leadMs: number } {
    const { from, length, tempo, bend } = this.curve;
    // Where the tempo was kept, the lead is what it was on the whole.
    const lag = this.certain ? this.lag : this.lag + tempo / 2 + bend / 3;
    const middle =
      this.certain || this.free
        ? paceAt(this.curve, from + length / 2)
        : paceAt({ ...this.curve, tempo: tempo + bend, bend: 0 }, from);
    const round = (value: number) => Math.round(value * 10) / 10 || 0;
    return {
      bpm: round((bpm * this.speed) / middle),
      driftPct: round(this.changed * 100),
      spreadMs: round(this.diagnosis.fit.spread * 1000),
      leadMs: this.free ? 0 : round(-lag * 1000),
    };
  }
}
