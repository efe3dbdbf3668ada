import { ClickRemover, type PlayedClicks } from '../listening/playedClicks.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { scheduleOf } from '../timing/schedule.ts';
import type { Bpm, Seconds } from '../timing/units.ts';
import { type ClassHeard, classOf } from './classHeard.ts';
import { type GroupPower, densityOf } from './density.ts';
import { decayOf, struckIn } from './echo.ts';
import { placedClass } from './follow.ts';
import { GroupLevels } from './groupLevels.ts';
import { roughNotes, weighed } from './noteShape.ts';
import { handsOf } from './hands.ts';
import { spotsOf } from './spots.ts';
import { type Strikes, between } from './strikes.ts';

/** So much before the first note and after the last is listened to. */
const BEFORE = 0.45;
const AFTER = 0.8;
/** What surrounds the class is learned from so much before that. */
const QUIET = 1.5;
/** A room as most are: good enough to see where the notes are. */
const USUAL_ECHO = { seconds: 0.5, db: 0 };
const ROUGH_ROUNDS = 6;
/**
 * Narrow notes seem wider in an echo, and wide ones narrower: of 89 simulated classes that fell apart 96 in 100 were
 * found with this, 87 within a note, and 3 in 100 of 90 that did not.
 */
const APART_IN_ROOM = 1.4;
/** Logarithm of how far the notes of a class stand out at least. */
const LEAST_CLEAR = Math.log(1.2);

/** Hears a class, as sound comes in; the app's own clicks are taken out first. */
export class ClassListener {
  private readonly levels: GroupLevels;
  private readonly remover: ClickRemover | undefined;

  /** @param clicks  seconds from the first sample; the first of them a count-in, in which nobody claps */
  constructor(
    readonly sampleRate: number,
    clicks?: PlayedClicks,
  ) {
    this.levels = new GroupLevels(sampleRate);
    this.remover = clicks && clicks.times.length > 0 ? new ClickRemover(sampleRate, clicks) : undefined;
  }

  push(samples: Float32Array): void {
    this.levels.push(this.remover ? this.remover.push(samples) : samples);
  }

  /** The sound is over. */
  finish(): void {
    if (this.remover) this.levels.push(this.remover.finish());
  }

  /** Seconds that were taken in so far. */
  get heard(): Seconds {
    return this.levels.frames * this.levels.hop;
  }

  private frameAt(moment: Seconds): number {
    const { levels } = this;
    return Math.max(0, Math.min(levels.frames, Math.round((moment - levels.middle) / levels.hop)));
  }

  /**
   * How the class clapped a pattern, as far as it was heard by now.
   * @param start  when beat 1 of measure 1 was due, from the first sample; undefined where nobody clicked
   */
  hear(pattern: Pattern, bpm: Bpm, start?: Seconds): ClassHeard {
    const { levels } = this;
    const schedule = scheduleOf(pattern, bpm);
    const zero = start ?? 0;
    const free = start === undefined;
    const first = free ? 0 : this.frameAt(zero + (schedule.notes[0]?.time ?? 0) - BEFORE);
    const last = free ? levels.frames : this.frameAt(zero + schedule.end + AFTER);
    const groups = levels.powers(first, last, this.frameAt(first * levels.hop - QUIET));
    const times = Float64Array.from(
      { length: last - first },
      (_, i) => (first + i) * levels.hop + levels.middle - zero,
    );
    const rough = roughly(groups, levels.hop, schedule.notes.length);
    const struck = placedClass({ times, shares: rough }, spotsOf(schedule), free);
    const noted = struck.filter(({ spot }) => spot.kind === 'note');
    const density = densityOf(groups, levels.hop, noted);
    // Where nothing stands out of what is between the notes, nobody was heard.
    const hands = density.clarity < LEAST_CLEAR ? 0 : handsOf(density.struck[0]!, levels.hop, noted);
    const strikes: Strikes = { times, shares: density.struck[0]! };
    const lies = roughNotes(density, levels.hop, noted).map(weighed);
    return classOf(
      strikes,
      struck.map((one) => ({ ...one, ...between(strikes, one.since, one.until) })),
      lies.map(({ width, middle }) => ({ width, middle: middle + (times[0] ?? 0) })),
      { free, apartTimes: APART_IN_ROOM, hands },
    );
  }
}

/** What was struck, in a room as most are; a clap of all about 1. */
function roughly(groups: readonly GroupPower[], hop: number, notes: number): Float64Array {
  const decay = decayOf(hop, USUAL_ECHO.seconds, USUAL_ECHO.db);
  const sums = groups.map(({ power, floor }) => struckIn(power, decay, floor, ROUGH_ROUNDS).struck);
  const sum = Float64Array.from(sums[0] ?? [], (_, t) => sums.reduce((all, one) => all + one[t]!, 0));
  const ofNote = sum.reduce((all, one) => all + one, 0) / Math.max(1, notes);
  return sum.map((one) => one / (ofNote + 1e-12));
}

/** How a class clapped, from a whole recording. @param start  as `ClassListener.hear` */
export function hearClass(
  samples: Float32Array,
  sampleRate: number,
  { pattern, bpm, start, clicks }: { pattern: Pattern; bpm: Bpm; start?: Seconds; clicks?: PlayedClicks },
): ClassHeard {
  const listener = new ClassListener(sampleRate, clicks);
  listener.push(samples);
  listener.finish();
  return listener.hear(pattern, bpm, start);
}
