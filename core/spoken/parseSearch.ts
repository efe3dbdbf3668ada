import { isStray } from './ticks.ts';
import { Heap } from './minHeap.ts';
import { type KBest, type Ending, type BarSpan, type SpanParse, UNLIKELY } from './barSpan.ts';
import { BAR } from './automaton.ts';

/** One way to understand all tokens: the spans between the bars. */
export interface SpeechParse {
  readonly spans: readonly SpanParse[];
  readonly cost: number;
}

export type SearchResult =
  | { readonly ok: true; readonly parses: Iterable<SpeechParse> }
  | { readonly ok: false; readonly token: number };

/**
 * How the first span begins, or what leads into another: at the bar line (a note sounds on or not), or at any place of
 * a pickup.
 */
export type Opening = 'sounding' | 'silent' | 'pickup';

/** What can be made of the tokens between two bars; `index` counts the spans. */
export type SpanReader = (tokens: readonly string[], index: number, opening: Opening, last: boolean) => BarSpan;

const PICKUP_COST = 0.5;
/** Sums of costs differ by less than this when they are added up in another order. */
const ROUNDING = 1e-12;

/**
 * All ways to understand the tokens, most likely first, each worked out when it is asked for.
 * @returns the parses, or which token nothing could be made of
 */
export function searchParses(tokens: readonly string[], span: SpanReader): SearchResult {
  const parts: string[][] = [[]];
  for (const token of tokens) {
    if (token === BAR) parts.push([]);
    else parts.at(-1)!.push(token);
  }
  const straight = new Routes(parts, 'silent', span);
  // Where every measure is full there is no pickup to be looked for, however far-fetched the words.
  const pickup = parts.length > 1 && !straight.fills ? new Routes(parts, 'pickup', span) : undefined;
  const found = pickup && pickup.cost + PICKUP_COST < straight.cost ? pickup : straight;
  if (found.cost === Infinity) return { ok: false, token: Math.min(straight.stuck, tokens.length - 1) };
  return { ok: true, parses: found.parses() };
}

/** Every thirty-second, and every third of an eighth, of a measure but its beginning. */
export function pickupStarts(full: number): number[] {
  return Array.from({ length: full - 1 }, (_, i) => i + 1).filter((at) => !isStray(at));
}

/** A bar line, and how it is passed: the place between two spans. */
interface Station {
  readonly opening: Opening;
  /** The spans that lead on; none from the end of all. */
  readonly arcs: Arc[];
  /** The least cost from here to the end. */
  toEnd: number;
}

/** The parses of a span that lead to the same station. */
interface Arc {
  readonly kBest: KBest;
  readonly to: Station;
}

/** So far into the spans; `k` tells which of the best parses was taken. */
interface Route {
  readonly arc: Arc;
  readonly k: number;
  readonly before: Route | undefined;
  readonly parse: SpanParse;
  /** Of the spans before this one. */
  readonly costBefore: number;
  readonly promise: number;
}

const LAST: readonly Ending[] = ['last'];
const INNER: readonly Ending[] = ['sounding', 'silent'];

/** The spans one after the other. They meet at the bars, so each is read once, whatever the others mean. */
class Routes {
  private readonly start: Station;
  private readonly end: Station = { opening: 'silent', arcs: [], toEnd: 0 };
  /** Some parse ends with a full measure. */
  readonly fills: boolean = false;
  /** The token that could not follow. */
  readonly stuck: number = 0;

  constructor(parts: readonly (readonly string[])[], opening: Opening, span: SpanReader) {
    this.start = { opening, arcs: [], toEnd: Infinity };
    const stations = [this.start];
    let here: readonly Station[] = stations;
    let before = 0;
    for (let i = 0; i < parts.length; i++) {
      const tokens = parts[i]!;
      const last = i === parts.length - 1;
      const next: Station[] = last ? [this.end] : [];
      for (const { opening: from, arcs } of here) {
        const read = span(tokens, i, from, last);
        this.stuck = Math.max(this.stuck, before + read.followed);
        this.fills ||= last && read.fills;
        for (const ending of last ? LAST : INNER) {
          const kBest = read.kBest(ending);
          if (!kBest) continue;
          const passed: Opening = ending === 'sounding' ? 'sounding' : 'silent';
          let to = next.find((station) => station.opening === passed);
          if (!to) next.push((to = { opening: passed, arcs: [], toEnd: Infinity }));
          arcs.push({ kBest, to });
        }
      }
      if (!last) stations.push(...next);
      here = next;
      before += tokens.length + 1;
    }
    for (const station of stations.reverse())
      for (const { kBest, to } of station.arcs) station.toEnd = Math.min(station.toEnd, kBest.cost + to.toEnd);
  }

  /** The least a parse costs. */
  get cost(): number {
    return this.start.toEnd;
  }

  private route(arc: Arc, k: number, before: Route | undefined, costBefore: number): Route | undefined {
    const parse = arc.kBest.at(k);
    if (!parse) return undefined;
    const promise = costBefore + parse.cost + arc.to.toEnd;
    return promise > this.cost + UNLIKELY ? undefined : { arc, k, before, parse, costBefore, promise };
  }

  /** From the cheapest on. */
  *parses(): Generator<SpeechParse> {
    const waiting = new Heap<Route>();
    const goOn = (from: Station, before: Route | undefined, costBefore: number) => {
      for (const arc of from.arcs) {
        const route = this.route(arc, 0, before, costBefore);
        if (route) waiting.push(route);
      }
    };
    goOn(this.start, undefined, 0);
    // Routes taken, in order of their promise. The next choice in the place of one costs no less, so it is not worked
    // out before nothing cheaper waits: who asks for one parse gets it without.
    const taken: Route[] = [];
    for (let looked = 0; ;) {
      const route = waiting.least <= (taken[looked]?.promise ?? Infinity) + ROUNDING ? waiting.pop() : undefined;
      if (route) {
        taken.push(route);
        if (route.arc.to === this.end) yield { spans: spansOf(route), cost: route.promise };
        else goOn(route.arc.to, route, route.costBefore + route.parse.cost);
        continue;
      }
      const before = taken[looked++];
      if (!before) return;
      const sibling = this.route(before.arc, before.k + 1, before.before, before.costBefore);
      if (sibling) waiting.push(sibling);
    }
  }
}

function spansOf(end: Route): SpanParse[] {
  const spans: SpanParse[] = [];
  for (let route: Route | undefined = end; route; route = route.before) spans.push(route.parse);
  return spans.reverse();
}
