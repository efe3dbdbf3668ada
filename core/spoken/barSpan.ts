import { Heap } from './minHeap.ts';
import type { SpokenEvent } from './places.ts';
import { BAR, type Move, type Node, type State, type SpeechAutomaton } from './automaton.ts';

/** One way to understand a span. */
export interface SpanParse {
  readonly measures: readonly (readonly SpokenEvent[])[];
  /** Some note is tied on to; some measure is a whole rest. */
  readonly ties: boolean;
  readonly restsMeasures: boolean;
  /** Where its first measure begins, in ticks: later than 0 for a pickup. */
  readonly from: number;
  readonly cost: number;
  /** Notes that last longer than was said, by measure and event: how many ticks were said. */
  readonly said: readonly { measure: number; event: number; ticks: number }[];
}

/**
 * How a span may end: a bar follows, and a note sounds on or not; or the text ends here, perhaps in a measure that is
 * not full yet.
 */
export type Ending = 'sounding' | 'silent' | 'last';

/** A last measure that is not full yet: the teacher is still typing. */
const UNFINISHED_COST = 5;
/** Parses so much less likely than the best are not worth showing. */
export const UNLIKELY = 1.5;
/** When so many parses in a row are no use, no more are looked for. */
const PATIENCE = 60;

/** A path through the tokens as far as it was chosen; from there it goes on along the cheapest steps. */
interface Branch {
  /**
   * It goes along this path (the node it starts from, then its steps) for so many layers, and then by a step of its
   * own.
   */
  readonly along: readonly number[];
  readonly layer: number;
  readonly step: number;
  /** The node reached, and what it cost to get there. */
  readonly node: number;
  readonly cost: number;
  /** What the whole costs. */
  readonly promise: number;
}

/** The tokens between two bars, or all of them where no bars are said: which nodes each may lead to. */
export class BarSpan {
  /** The state before each token, and after the last. */
  private readonly states: State[];
  private readonly moves: Move[] = [];
  private readonly endings: Partial<Record<Ending, KBest | null>> = {};
  /** How many tokens could be followed; and whether that is all. */
  readonly followed: number;
  readonly complete: boolean;

  /**
   * @param last     no bar follows
   * @param accepts  a last look at a parse: whether it would be spoken as it was typed
   */
  constructor(
    private readonly automaton: SpeechAutomaton,
    tokens: readonly string[],
    start: State,
    last: boolean,
    private readonly accepts: (parse: SpanParse) => boolean,
  ) {
    this.states = [start];
    for (let i = 0; i < tokens.length; i++) {
      const move = automaton.move(
        this.states[i]!,
        tokens[i]!,
        i + 1 < tokens.length ? tokens[i + 1] : last ? undefined : BAR,
      );
      if (move.state.nodes.length === 0) break;
      this.moves.push(move);
      this.states.push(move.state);
    }
    const { length } = this.moves;
    this.complete = length === tokens.length;
    // Where a token is understood but leads nowhere, it is the next one that does not fit.
    const understood =
      !this.complete && automaton.move(this.states[length]!, tokens[length]!, undefined).state.nodes.length > 0;
    this.followed = understood ? length + 1 : length;
  }

  /** Some parse fills its measure. */
  get fills(): boolean {
    return (
      this.complete &&
      this.states.at(-1)!.nodes.some(({ place, toSay }) => place.at === this.automaton.full && toSay.length === 0)
    );
  }

  /** The parses with such an end; undefined when there is none. */
  kBest(ending: Ending): KBest | undefined {
    if (!this.complete) return undefined;
    let kBest = this.endings[ending];
    if (kBest === undefined) {
      const can = this.states.at(-1)!.nodes.some((node) => endCost(node, ending, this.automaton.full) < Infinity);
      this.endings[ending] = kBest = can
        ? new KBest(this.automaton.full, ending, this.states, this.moves, this.accepts)
        : null;
    }
    return kBest ?? undefined;
  }
}

function endCost({ place, sounds, toSay }: Node, ending: Ending, full: number): number {
  if (toSay.length > 0) return Infinity;
  if (place.at === full) return ending === 'last' || sounds === (ending === 'sounding') ? 0 : Infinity;
  return ending === 'last' && !place.tuplet ? UNFINISHED_COST : Infinity;
}

/** The parses of a span with one end, most likely first, each worked out when it is first asked for. */
export class KBest {
  /** The least that one may cost. */
  readonly cost: number;
  private readonly found: SpanParse[] = [];
  private more: Iterator<SpanParse> | undefined;
  /** By node: the least cost from it to the end, Infinity when no path leads there. */
  private readonly toEnd: Float64Array;
  /** Where each layer begins in `toEnd`. */
  private readonly offsets: Int32Array;

  constructor(
    private readonly full: number,
    ending: Ending,
    private readonly states: readonly State[],
    private readonly moves: readonly Move[],
    private readonly accepts: (parse: SpanParse) => boolean,
  ) {
    const offsets = new Int32Array(states.length + 1);
    for (let layer = 0; layer < states.length; layer++)
      offsets[layer + 1] = offsets[layer]! + states[layer]!.nodes.length;
    const toEnd = new Float64Array(offsets[states.length]!);
    const { nodes } = states[states.length - 1]!;
    for (let i = 0; i < nodes.length; i++) toEnd[offsets[moves.length]! + i] = endCost(nodes[i]!, ending, full);
    for (let layer = moves.length - 1; layer >= 0; layer--)
      costBackwards(moves[layer]!, toEnd, offsets[layer]!, offsets[layer + 1]!);
    this.cost = Math.min(...toEnd.subarray(0, offsets[1]));
    this.toEnd = toEnd;
    this.offsets = offsets;
  }

  /** The parse that comes k-th; undefined when there are no more. */
  at(k: number): SpanParse | undefined {
    // Nearly always the likeliest is all that is asked for: it is found without looking at any other.
    if (k === 0 && !this.more) {
      const first = this.found[0] ?? this.likeliest();
      if (first) return (this.found[0] = first);
    }
    while (this.found.length <= k) {
      const next = (this.more ??= this.parses()).next();
      if (next.done) return undefined;
      // A word for several notes and a word for each may write the same.
      if (!this.found.some((parse) => writesSame(parse, next.value))) this.found.push(next.value);
    }
    return this.found[k];
  }

  private likeliest(): SpanParse | undefined {
    const node = this.toEnd.indexOf(this.cost);
    const parse = this.parseOf(this.cheapestFrom([node], 0, node), this.cost);
    return this.accepts(parse) ? parse : undefined;
  }

  /**
   * From the cheapest on. A path goes on along the cheapest steps; where it could have left them, branches wait until
   * they are the cheapest. They are looked for only when the next parse is asked for.
   */
  private *parses(): Generator<SpanParse> {
    const { moves, toEnd, offsets } = this;
    const limit = this.cost + UNLIKELY;
    const waiting = new Heap<Branch>();
    for (let node = 0; node < this.states[0]!.nodes.length; node++) {
      if (toEnd[node]! <= limit)
        waiting.push({ along: [], layer: 0, step: node, node, cost: 0, promise: toEnd[node]! });
    }
    let useless = 0;
    for (let branch = waiting.pop(); branch && useless < PATIENCE; branch = waiting.pop()) {
      const path = this.cheapestFrom([...branch.along.slice(0, branch.layer), branch.step], branch.layer, branch.node);
      const parse = this.parseOf(path, branch.promise);
      const accepted = this.accepts(parse);
      useless = accepted ? 0 : useless + 1;
      if (accepted) yield parse;
      let { node, cost } = branch;
      for (let layer = branch.layer; layer < moves.length; layer++) {
        const { first, to, cost: costs } = moves[layer]!;
        const taken = path[layer + 1]!;
        for (let i = first[node]!; i < first[node + 1]!; i++) {
          if (i === taken) continue;
          const further = cost + costs[i]!;
          const promise = further + toEnd[offsets[layer + 1]! + to[i]!]!;
          if (promise <= limit)
            waiting.push({ along: path, layer: layer + 1, step: i, node: to[i]!, cost: further, promise });
        }
        node = to[taken]!;
        cost += costs[taken]!;
      }
    }
  }

  /** Goes on with steps that have come to a node of a layer, to the end. */
  private cheapestFrom(steps: number[], layer: number, node: number): number[] {
    const { moves, toEnd, offsets } = this;
    for (let at = layer; at < moves.length; at++) {
      const { first, to, cost } = moves[at]!;
      const there = offsets[at + 1]!;
      let best = first[node]!;
      for (let i = best + 1; i < first[node + 1]!; i++)
        if (cost[i]! + toEnd[there + to[i]!]! < cost[best]! + toEnd[there + to[best]!]!) best = i;
      steps.push(best);
      node = to[best]!;
    }
    return steps;
  }

  private parseOf(path: readonly number[], cost: number): SpanParse {
    const measures: SpokenEvent[][] = [];
    let ties = false;
    let restsMeasures = false;
    const said: { measure: number; event: number; ticks: number }[] = [];
    let opens = true;
    for (let layer = 0; layer < this.moves.length; layer++) {
      const transition = this.moves[layer]!.transitions[path[layer + 1]!];
      if (!transition) continue;
      if (opens) measures.push([]);
      const events = measures.at(-1)!;
      if (transition.said !== undefined)
        said.push({ measure: measures.length - 1, event: events.length, ticks: transition.said });
      for (const event of transition.events) {
        events.push(event);
        if (event.kind === 'tied') ties = true;
        else if (event.kind === 'measure-rest') restsMeasures = true;
      }
      // Without bars the next event opens a measure where this one is full.
      opens = transition.to.at === this.full;
    }
    return { measures, ties, restsMeasures, from: this.states[0]!.nodes[path[0]!]!.place.at, cost, said };
  }
}

function writesSame(a: SpanParse, b: SpanParse): boolean {
  return (
    a.measures.length === b.measures.length &&
    a.measures.every((events, m) => {
      const others = b.measures[m]!;
      return events.length === others.length && events.every((event, i) => isSameEvent(event, others[i]!));
    })
  );
}

function isSameEvent(a: SpokenEvent, b: SpokenEvent): boolean {
  return (
    a.kind === b.kind &&
    a.value.base === b.value.base &&
    a.value.dots === b.value.dots &&
    a.tuplet === b.tuplet &&
    a.tupletAt === b.tupletAt
  );
}

/** The costs of the nodes before a move, which stand from `here` on, by those after it. */
function costBackwards({ first, to, cost }: Move, toEnd: Float64Array, here: number, there: number): void {
  for (let node = 0; node + 1 < first.length; node++) {
    let least = Infinity;
    for (let i = first[node]!; i < first[node + 1]!; i++) {
      const promise = cost[i]! + toEnd[there + to[i]!]!;
      if (promise < least) least = promise;
    }
    toEnd[here + node] = least;
  }
}
