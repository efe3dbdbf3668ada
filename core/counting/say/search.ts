import type { Edge, Place, Speaker, SpokenEvent } from './edges.ts';

/** One way to understand the tokens: the events with the bars between them. */
export interface Reading {
  readonly measures: readonly (readonly SpokenEvent[])[];
  readonly pickup: boolean;
  readonly cost: number;
  /** Notes that last longer than was said, by measure and event: how many ticks were said. */
  readonly said: readonly { measure: number; event: number; ticks: number }[];
}

export type SearchResult = { readonly ok: true; readonly readings: Iterable<Reading> } | { readonly ok: false; readonly token: number };

export const BAR = '|';

interface Node {
  readonly layer: number;
  readonly place: Place;
  readonly sounds: boolean;
  /** Best cost from here to the end; Infinity when no way leads there. */
  toEnd: number;
  steps: Step[];
}

interface Step {
  readonly edge: Edge | undefined;
  readonly node: Node;
}

/** A last measure that is not full yet: the teacher is still typing. */
const UNFINISHED_COST = 5;
const PICKUP_COST = 0.5;
/** Readings so much less likely than the best are not worth showing. */
const UNLIKELY = 1.5;

interface Frame {
  readonly tokens: readonly string[];
  readonly full: number;
  readonly bars: boolean;
  readonly loose: boolean;
}

/**
 * All ways to understand the tokens, most likely first, each worked out when it is asked for.
 * @param full   length of a measure in ticks
 * @param loose  let tokens leave the holds out ("1 3" for two half notes)
 * @returns the readings, or which token nothing could be made of
 */
export function readTokens(speaker: Speaker, tokens: readonly string[], full: number, loose: boolean): SearchResult {
  const frame: Frame = { tokens, full, bars: tokens.includes(BAR), loose };
  const straight = explore(speaker, frame, [speaker.place(0)]);
  // Where every measure is full there is no pickup to be looked for, however far-fetched the words.
  const found = straight.complete ? straight : frame.bars ? better(straight, explore(speaker, frame, pickupStarts(full).map((at) => speaker.place(at)))) : straight;
  if (found.root.toEnd === Infinity) return { ok: false, token: found.furthest };
  return { ok: true, readings: best(found.root, full) };
}

function better(a: ReturnType<typeof explore>, b: ReturnType<typeof explore>): ReturnType<typeof explore> {
  return b.root.toEnd + PICKUP_COST < a.root.toEnd ? b : a;
}

/** Every thirty-second, and every third of an eighth, of a measure but its beginning. */
function pickupStarts(full: number): number[] {
  return Array.from({ length: full - 1 }, (_, i) => i + 1).filter((at) => at % 12 === 0 || at % 16 === 0);
}

/** Builds the graph of all readings forwards, token by token, then the cost to the end backwards. */
function explore(speaker: Speaker, frame: Frame, starts: readonly Place[]): { root: Node; furthest: number; complete: boolean } {
  const { tokens } = frame;
  const layers: Node[][] = Array.from({ length: tokens.length + 1 }, () => []);
  const nodeAt = (layer: number, place: Place, sounds: boolean): Node => {
    const here = layers[layer]!;
    for (const node of here) if (node.place === place && node.sounds === sounds) return node;
    const node: Node = { layer, place, sounds, toEnd: Infinity, steps: [] };
    here.push(node);
    return node;
  };
  const root: Node = { layer: 0, place: speaker.place(0), sounds: false, toEnd: Infinity, steps: [] };
  root.steps = starts.map((place) => ({ edge: undefined, node: nodeAt(0, place, false) }));
  let furthest = 0;
  for (let layer = 0; layer < tokens.length; layer++) {
    for (const node of layers[layer]!) {
      furthest = Math.max(furthest, layer);
      const edges = tokens[layer] === BAR ? undefined : speaker.edgesFrom(node.place.at === frame.full ? speaker.place(0) : node.place);
      // A token that is understood here but leads nowhere: it is the next one that does not fit.
      if (edges?.exact.has(tokens[layer]!) && layer + 1 < tokens.length) furthest = Math.max(furthest, layer + 1);
      node.steps = stepsFrom(speaker, frame, node, nodeAt);
    }
  }
  for (const node of layers[tokens.length]!) node.toEnd = node.place.at === frame.full || node.place.at === 0 ? 0 : node.place.tuplet ? Infinity : UNFINISHED_COST;
  for (let layer = tokens.length - 1; layer >= 0; layer--) for (const node of layers[layer]!) node.toEnd = cheapest(node);
  root.toEnd = cheapest(root);
  return { root, furthest, complete: layers[tokens.length]!.some(({ toEnd }) => toEnd === 0) };
}

function cheapest({ steps }: Node): number {
  let least = Infinity;
  for (const { edge, node } of steps) least = Math.min(least, (edge?.cost ?? 0) + node.toEnd);
  return least;
}

function stepsFrom(speaker: Speaker, frame: Frame, node: Node, nodeAt: (layer: number, place: Place, sounds: boolean) => Node): Step[] {
  const { tokens, full, bars } = frame;
  const { layer, sounds } = node;
  const start = speaker.place(0);
  const token = tokens[layer]!;
  const ended = node.place.at === full;
  if (token === BAR) return ended ? [{ edge: undefined, node: nodeAt(layer + 1, start, sounds) }] : [];
  if (ended && bars) return [];
  const steps: Step[] = [];
  for (const edge of waysOn(speaker, frame, ended ? start : node.place, token, tokens[layer + 1])) {
    const kind = edge.events[0]!.kind;
    if (kind === 'tied' && !sounds) continue;
    if (edge.more.some((word, i) => tokens[layer + 1 + i] !== word)) continue;
    steps.push({ edge, node: nodeAt(layer + 1 + edge.more.length, edge.to, kind === 'note' || kind === 'tied') });
  }
  return steps;
}

/**
 * The edges from a place with a token after which the next token can follow. The same few are asked for again and
 * again, so they are kept with the place.
 */
function waysOn(speaker: Speaker, { full, bars, loose }: Frame, place: Place, token: string, next: string | undefined): readonly Edge[] {
  const edges = speaker.edgesFrom(place);
  const kept = edges.ways[(bars ? 1 : 0) + (loose ? 2 : 0)]!;
  let ofToken = kept.get(token);
  if (!ofToken) kept.set(token, (ofToken = new Map<string | undefined, readonly Edge[]>()));
  const known = ofToken.get(next);
  if (known) return known;
  const all = [...(edges.exact.get(token) ?? []), ...((loose && edges.loose.get(token)) || [])];
  const goesOn = (to: Place): boolean => {
    if (next === undefined) return true;
    if (next === BAR) return to.at === full;
    if (to.at === full && bars) return false;
    const after = speaker.edgesFrom(to.at === full ? speaker.place(0) : to);
    return after.exact.has(next) || (loose && after.loose.has(next));
  };
  const found = all.filter(({ more, to }) => more.length > 0 || goesOn(to));
  ofToken.set(next, found);
  return found;
}

interface Path {
  readonly step: Step;
  readonly before: Path | undefined;
  readonly cost: number;
}

/** The cheapest ways from the root to an end, by always going on with the one that promises least. */
function* best(root: Node, full: number): Generator<Reading> {
  const heap: { promise: number; path: Path }[] = [];
  const push = (step: Step, before: Path | undefined) => {
    const cost = (before?.cost ?? 0) + (step.edge?.cost ?? 0);
    const promise = cost + step.node.toEnd;
    if (promise === Infinity) return;
    let i = heap.length;
    heap.push({ promise, path: { step, before, cost } });
    for (let up = (i - 1) >> 1; i > 0 && heap[up]!.promise > heap[i]!.promise; i = up, up = (i - 1) >> 1) [heap[up], heap[i]] = [heap[i]!, heap[up]!];
  };
  const pop = () => {
    const top = heap[0]!;
    const last = heap.pop()!;
    if (heap.length > 0) {
      heap[0] = last;
      for (let i = 0; ; ) {
        let least = i;
        for (const child of [2 * i + 1, 2 * i + 2]) if (child < heap.length && heap[child]!.promise < heap[least]!.promise) least = child;
        if (least === i) break;
        [heap[least], heap[i]] = [heap[i]!, heap[least]!];
        i = least;
      }
    }
    return top;
  };
  root.steps.forEach((step) => push(step, undefined));
  while (heap.length > 0) {
    const { promise, path } = pop();
    if (promise > root.toEnd + UNLIKELY) return;
    const { node } = path.step;
    if (node.steps.length === 0) yield readingOf(path, promise, full);
    else node.steps.forEach((step) => push(step, path));
  }
}

function readingOf(path: Path, cost: number, full: number): Reading {
  const steps: Step[] = [];
  for (let at: Path | undefined = path; at; at = at.before) steps.push(at.step);
  steps.reverse();
  const measures: SpokenEvent[][] = [];
  const said: { measure: number; event: number; ticks: number }[] = [];
  let opens = true;
  for (const { edge, node } of steps.slice(1)) {
    if (edge) {
      if (opens) measures.push([]);
      const events = measures.at(-1)!;
      if (edge.said !== undefined) said.push({ measure: measures.length - 1, event: events.length, ticks: edge.said });
      events.push(...edge.events);
    }
    // After a bar, or without bars where the measure is full, the next event opens a measure.
    opens = !edge || node.place.at === full;
  }
  return { measures, pickup: steps[0]!.node.place.at > 0, cost, said };
}
