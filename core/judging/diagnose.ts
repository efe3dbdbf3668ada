import { EPSILON } from '../timing/tolerance.ts';
import { Aligner, type Fit } from './alignment.ts';
import { couldBe, nearest, suggestions } from './candidates.ts';
import {
  type Diagnosis,
  type Strange,
  baseClaps,
  isClean,
  isMostlyRight,
  isPartOrMore,
  isUnexplained,
  strange,
  strangeIn,
  unsaid,
} from './diagnosis.ts';
import { lostIn, mayBeLost } from './lost.ts';
import {
  type CodedHypothesis,
  MISREADINGS,
  SUBTLE_CODES,
  hypothesesOf,
  subtleHypotheses,
} from './misreadings/table.ts';
import { atClick, begunFit, pacesOf } from './paces.ts';
import { lostStretches, proposals } from './proposals.ts';
import type { Score } from './scoreEvents.ts';

/** More is never shown (rules §8), and a take with more than three misreadings is not read but lost. */
const MOST_HYPOTHESES = 3;
/** How many diagnoses are carried on at each step; long pieces have so many places that one must do. */
const WIDTH = [5, 3] as const;
const LONG_PIECE = 90;
/** A diagnosis so little less likely is named too. */
const AS_LIKELY = 0.9;
/** One that comes to the very same claps is named unless it is much less usual. */
const SAME_CLAPS = 2.5;
/**
 * A hypothesis that does not make the take likelier by this much is not tried further. One of two that undo each other
 * may make it less likely on its own, so where much is strange the first is given some credit.
 */
const LEAST_GAIN = 0.1;
const CREDIT = 4;
const MUCH_STRANGE = 4;
/** A take with fewer claps, as a part of the notes, has stopped before anything can be told. */
const FEW_CLAPS = 0.1;
/** So many claps are laid at most to see which hypotheses are worth a closer look: an hour of sixteenths takes long. */
const WORK = 120_000;
/** The same misreading again is one habit: each further place of it costs this. */
const AGAIN = 2;
/** How many hypotheses of each diagnosis are looked at closely. */
const CLOSE_LOOKS = 16;
/** What seems so much worse than the best at a glance is not looked at closely. */
const LOOK_SLACK = 5;
/** A glance sees the cost up to about this. */
const GLANCE_SLACK = 12;

/** A measure left out for its neighbour that came twice: claps that are neither fit as well, and nobody reads so. */
function inPlaceOfNeighbour(a: CodedHypothesis, b: CodedHypothesis): boolean {
  if (!a.shift || !b.shift || !(a.leavesOut ?? b.leavesOut) || Math.abs(a.shift.seconds + b.shift.seconds) > EPSILON)
    return false;
  const codes = [a.code, b.code];
  return (
    codes.includes('measure-repeated') && Math.abs(a.shift.from - b.shift.from) < Math.abs(a.shift.seconds) + EPSILON
  );
}

function goesWith(hypothesis: CodedHypothesis, others: readonly CodedHypothesis[]): boolean {
  const parts = hypothesis.parts ?? [hypothesis];
  return others.every((other) => {
    if (hypothesis.alone || other.alone || inPlaceOfNeighbour(hypothesis, other)) return false;
    if (other.code === hypothesis.code && parts.some(({ event }) => other.event === event)) return false;
    // What got another time than its own was not clapped as well: the claps in it are what cut it short.
    const contrary = (other.adds && hypothesis.got !== undefined) || (hypothesis.adds && other.got !== undefined);
    if (contrary && other.event === hypothesis.event) return false;
    return !(
      hypothesis.wholeTake &&
      other.wholeTake &&
      (hypothesis.speed !== undefined ||
        other.speed !== undefined ||
        (hypothesis.shift !== undefined && other.shift !== undefined))
    );
  });
}

/** A habit as its places. */
function places(hypothesis: CodedHypothesis): CodedHypothesis[] {
  const { parts = [hypothesis], code, cost } = hypothesis;
  return parts.map((part) => ({ ...part, code, cost: cost / parts.length }));
}

/** Both come to the same claps. */
function clapsAlike({ claps: a }: Diagnosis, { claps: b }: Diagnosis): boolean {
  return a.length === b.length && a.every(({ time }, i) => Math.abs(time - b[i]!.time) < EPSILON);
}

/** Two hypotheses in the other order are the same diagnosis. */
function distinct(diagnoses: readonly Diagnosis[]): Diagnosis[] {
  const seen = new Set<string>();
  return diagnoses.filter(({ hypotheses, cost }) => {
    const key = `${hypotheses
      .map(({ code, event }) => `${code} ${event}`)
      .sort()
      .join(', ')} ${cost.toFixed(3)}`;
    return seen.size < seen.add(key).size;
  });
}

/** What several misreadings together make of a take, the likeliest first. */
function together(asWritten: Diagnosis, sets: readonly (readonly CodedHypothesis[])[], aligner: Aligner): Diagnosis[] {
  return sets
    .filter((set) => !set.some((one, i) => set.slice(i + 1).some((other) => inPlaceOfNeighbour(one, other))))
    .map((hypotheses): Diagnosis => {
      const claps = hypotheses.reduce((all, { apply }) => apply(all), [...asWritten.claps]);
      const fit = aligner.fit(claps);
      const seen = new Set<string>();
      const edits = hypotheses.reduce(
        (sum, { code, cost }) =>
          sum + (seen.size < seen.add(code).size || MISREADINGS[code].noHabit ? cost : Math.min(cost, AGAIN)),
        0,
      );
      const cost = fit.cost + edits;
      return { hypotheses, claps, fit, cost, gains: hypotheses.map(() => (asWritten.cost - cost) / hypotheses.length) };
    })
    .sort((a, b) => a.cost - b.cost);
}

/** A diagnosis with one more misreading: all that make the take likelier. */
function oneMore(
  before: Diagnosis,
  all: readonly CodedHypothesis[],
  aligner: Aligner,
  leastGain: number,
  looks: number,
  most: number,
): Diagnosis[] {
  const editCost = before.hypotheses.reduce((sum, { cost }) => sum + cost, 0);
  const promising = all
    .filter((hypothesis) => goesWith(hypothesis, before.hypotheses))
    .flatMap((hypothesis) => {
      const claps = hypothesis.apply(before.claps);
      // Who claps nothing at all misread nothing.
      if (claps.length === 0) return [];
      // At another speed nothing of the curve found so far holds.
      const far = hypothesis.speed !== undefined;
      const cost = far ? -Infinity : aligner.glance(claps).cost + editCost + hypothesis.cost;
      return [{ hypothesis, claps, cost }];
    })
    .filter(({ cost }) => cost < Math.min(before.cost, most) + GLANCE_SLACK)
    .sort((a, b) => a.cost - b.cost)
    .slice(0, looks);
  let least = Infinity;
  return promising.flatMap(({ hypothesis, claps, cost: glanced }): Diagnosis[] => {
    // Nothing comes out so much better than at a glance.
    if (glanced > least + LOOK_SLACK) return [];
    const fit = aligner.fit(claps, before.fit.curve);
    const cost = fit.cost + editCost + hypothesis.cost;
    const added = places(hypothesis);
    least = Math.min(least, cost);
    return cost < before.cost - leastGain
      ? [
          {
            hypotheses: [...before.hypotheses, ...added],
            claps,
            fit,
            cost,
            gains: [...before.gains, ...added.map(() => before.cost - cost)],
          },
        ]
      : [];
  });
}

/** A search for the likeliest diagnosis of one take. */
class Search {
  private readonly aligner: Aligner;
  private readonly asWritten: Diagnosis;
  /** Every note has its clap: only what moves claps a little can be there. */
  private readonly clean: boolean;
  private readonly long: boolean;
  private readonly all: readonly CodedHypothesis[];
  /** As it began: at the tempo of the click, or without one at that of an undisturbed beginning. */
  private readonly begun: Fit | undefined;
  /** Seconds heard for each written one, as far as they can be told before anything is explained. */
  private readonly paces: readonly number[];

  constructor(
    private readonly written: Score,
    private readonly onsets: Float64Array,
    private readonly free: boolean,
  ) {
    this.aligner = new Aligner(onsets, free, this.begins);
    const claps = baseClaps(written);
    const fit = this.aligner.fit(claps);
    this.asWritten = { hypotheses: [], claps, fit, cost: fit.cost, gains: [] };
    this.clean = isClean(fit, free);
    this.long = claps.length > LONG_PIECE;
    this.all = this.isTooLittle ? [] : this.clean ? subtleHypotheses(written) : hypothesesOf(written, free);
    const unsure = !this.clean && !this.isTooLittle;
    this.begun = unsure ? this.asBegun(fit) : undefined;
    this.paces = unsure && free ? pacesOf(fit, this.begun, claps, onsets) : [1];
  }

  private asBegun({ claps, curve }: Fit): Fit | undefined {
    return this.free ? begunFit(claps, this.onsets) : this.aligner.along(claps, atClick(curve));
  }

  private get begins(): number {
    return this.written.events[0]?.time ?? 0;
  }

  /** Of so few claps nothing can be told. */
  private get isTooLittle(): boolean {
    const { claps } = this.asWritten;
    return claps.length === 0 || this.onsets.length < FEW_CLAPS * claps.length;
  }

  found(): Diagnosis {
    if (this.isTooLittle) return this.asWritten;
    const { asWritten, onsets, written, free, paces } = this;
    const { best, found } = this.explanations();
    const lost = mayBeLost(best)
      ? lostIn(asWritten, best, onsets, free, lostStretches(written, onsets, free, paces))
      : undefined;
    if (isUnexplained(lost ?? best, onsets)) {
      if (isPartOrMore(asWritten, onsets)) return asWritten;
      return isMostlyRight(asWritten, onsets) ? unsaid(best) : { ...asWritten, unexplained: true };
    }
    if (lost) return lost;
    const others = found.filter(
      (other) =>
        other !== best &&
        other.hypotheses.length <= Math.max(1, best.hypotheses.length) &&
        other.cost < best.cost + (clapsAlike(other, best) ? SAME_CLAPS : AS_LIKELY),
    );
    return { ...best, others };
  }

  /** The ways through the take that its claps suggest, and from them and from what is written one misreading more. */
  private explanations(): { readonly best: Diagnosis; readonly found: readonly Diagnosis[] } {
    const { asWritten, onsets, written, free, all, long, paces } = this;
    const proposed = this.clean ? [] : together(asWritten, proposals(written, onsets, all, free, paces), this.aligner);
    let best = [asWritten, ...proposed].reduce((a, b) => (b.cost < a.cost ? b : a));
    // What explains all of it needs nothing more; only what is as likely is still asked for.
    const explained = isClean(best.fit, free);
    let frontier = [asWritten];
    const found: Diagnosis[] = [asWritten, ...proposed];
    for (let depth = 0; depth < MOST_HYPOTHESES; depth++) {
      const most = explained ? best.cost + SAME_CLAPS : Infinity;
      const next = distinct(
        frontier
          .filter(({ hypotheses }) => new Set(hypotheses.map(({ code }) => code)).size < MOST_HYPOTHESES)
          .flatMap((before) => this.oneMore(before, depth, most))
          .sort((a, b) => a.cost - b.cost),
      );
      // What was proposed joins once no single misreading explains the take.
      const joined = depth === 0 ? [...next, ...proposed].sort((a, b) => a.cost - b.cost) : next;
      frontier = joined.slice(0, long ? 1 : (WIDTH[depth] ?? 1));
      if (frontier.length === 0) break;
      found.push(...next.slice(0, CLOSE_LOOKS));
      if (frontier[0]!.cost < best.cost) best = frontier[0]!;
      if (explained || isClean(best.fit, free)) break;
    }
    return { best, found };
  }

  private oneMore(before: Diagnosis, depth: number, most: number): Diagnosis[] {
    const { asWritten, onsets, written, all, long } = this;
    const things = strangeIn(before, onsets, this.begins);
    const work = Math.ceil(WORK / asWritten.claps.length);
    const possible = nearest(
      all.filter((one) => couldBe(one, written, before, things, onsets)),
      written,
      things,
      work,
    );
    const leastGain = depth === 0 && strange(asWritten.fit) >= MUCH_STRANGE ? -CREDIT : LEAST_GAIN;
    const some = [...possible, ...this.suggested(before, things).slice(0, work)];
    return oneMore(before, some, this.aligner, leastGain, long ? CLOSE_LOOKS / 4 : CLOSE_LOOKS, most);
  }

  /** What the take itself suggests. */
  private suggested(before: Diagnosis, things: Strange): CodedHypothesis[] {
    const { asWritten, onsets, written, free, clean, begun } = this;
    const some = suggestions(written, before, things, onsets, free, clean ? SUBTLE_CODES : undefined);
    if (!begun || before !== asWritten) return some;
    // What comes after a stop bends the whole; what came before it still shows the tempo.
    const there = { ...before, fit: begun };
    return [...some, ...suggestions(written, there, strangeIn(there, onsets, this.begins), onsets, free)];
  }
}

/**
 * The likeliest diagnosis of a take: as written, or with up to three misreadings, together with the tempo it took.
 * @param onsets  seconds, rising, bounces merged
 * @param free    no click: start and tempo are unknown
 */
export function diagnose(written: Score, onsets: Float64Array, free: boolean): Diagnosis {
  return new Search(written, onsets, free).found();
}
