import { type Edge, type Place, type Speaker, placeKey } from './edges.ts';

/** The token between measures. */
export const BAR = '|';

/** Where the tokens said so far may have led. A `Ways` has each node once. */
export interface Node {
  readonly id: number;
  readonly place: Place;
  /** A note sounds on to this place: a tie can follow. */
  readonly sounds: boolean;
  /** In the middle of a word for several notes: the syllables still to be said. */
  readonly toSay: readonly string[];
}

/** All nodes the same tokens may have led to, of those from which it can go on. */
export interface State {
  readonly nodes: readonly Node[];
  /** By token and the token after it. */
  readonly moves: Map<string, Map<string | undefined, Move>>;
}

/** What a token makes of a state: steps from its nodes to those of the state it leads to. */
export interface Move {
  readonly state: State;
  /** The steps from node i are those from `first[i]` up to `first[i + 1]`. */
  readonly first: Int32Array;
  /** By step: the index of the node it leads to, its cost, and what the token means (nothing, inside a word for several notes). */
  readonly to: Int32Array;
  readonly cost: Float64Array;
  readonly edges: readonly (Edge | undefined)[];
}

const WORD_SAID: readonly string[] = [];
/** As many states as are kept; the texts of a school seldom need a tenth of them. */
const MOST_STATES = 3000;

/**
 * The ways through a measure, worked out as far as some text has gone and kept for the next: measures begin alike, so
 * most tokens find their move known.
 */
export class Ways {
  private readonly nodes = new Map<string, Node>();
  private readonly states = new Map<string, State>();

  /**
   * @param full   length of a measure in ticks
   * @param bars   bars are said: nothing follows a full measure
   * @param loose  tokens may leave the holds out ("1 3" for two half notes)
   */
  constructor(
    private readonly speaker: Speaker,
    readonly full: number,
    private readonly bars: boolean,
    private readonly loose: boolean,
  ) {}

  /** Nothing said yet, at one of these places (in ticks). */
  start(places: readonly number[], sounds: boolean): State {
    if (this.states.size > MOST_STATES) {
      this.nodes.clear();
      this.states.clear();
    }
    return this.state(places.map((at) => this.node(this.speaker.place(at), sounds, WORD_SAID)));
  }

  /**
   * The move with a token, as far as the next token can follow it (a bar, or nothing, where it is the last). Its state has
   * no nodes when there is none.
   */
  move(from: State, token: string, next: string | undefined): Move {
    let ofToken = from.moves.get(token);
    if (!ofToken) from.moves.set(token, (ofToken = new Map<string | undefined, Move>()));
    let move = ofToken.get(next);
    if (!move) ofToken.set(next, (move = this.moveWith(from, token, next)));
    return move;
  }

  private moveWith(from: State, token: string, next: string | undefined): Move {
    const reached: Node[] = [];
    const indices = new Map<Node, number>();
    const first = new Int32Array(from.nodes.length + 1);
    const to: number[] = [];
    const edges: (Edge | undefined)[] = [];
    const step = (edge: Edge | undefined, place: Place, sounds: boolean, toSay: readonly string[]) => {
      if (!this.canFollow(place, toSay, next)) return;
      const node = this.node(place, sounds, toSay);
      let index = indices.get(node);
      if (index === undefined) indices.set(node, (index = reached.push(node) - 1));
      to.push(index);
      edges.push(edge);
    };
    from.nodes.forEach((node, i) => {
      this.stepsFrom(node, token, step);
      first[i + 1] = to.length;
    });
    return { state: this.state(reached), first, to: Int32Array.from(to), cost: Float64Array.from(edges, (edge) => edge?.cost ?? 0), edges };
  }

  private canFollow(place: Place, toSay: readonly string[], token: string | undefined): boolean {
    if (token === undefined) return true;
    if (toSay.length > 0) return toSay[0] === token;
    const ended = place.at === this.full;
    if (token === BAR) return ended;
    if (ended && this.bars) return false;
    const from = this.goesOnAt(place);
    return this.speaker.exactFrom(from).has(token) || (this.loose && this.speaker.looseFrom(from).has(token));
  }

  /** A full measure goes on at the beginning of the next. */
  private goesOnAt(place: Place): Place {
    return place.at === this.full ? this.speaker.place(0) : place;
  }

  private stepsFrom({ place, sounds, toSay }: Node, token: string, step: (edge: Edge | undefined, place: Place, sounds: boolean, toSay: readonly string[]) => void): void {
    if (toSay.length > 0) {
      if (toSay[0] === token) step(undefined, place, true, toSay.slice(1));
      return;
    }
    if (place.at === this.full && this.bars) return;
    const from = this.goesOnAt(place);
    const go = (edge: Edge) => {
      const { kind } = edge.events[0]!;
      if (kind !== 'tied' || sounds) step(edge, edge.to, kind === 'note' || kind === 'tied', edge.more);
    };
    this.speaker.exactFrom(from).get(token)?.forEach(go);
    if (this.loose) this.speaker.looseFrom(from).get(token)?.forEach(go);
  }

  private node(place: Place, sounds: boolean, toSay: readonly string[]): Node {
    const key = `${placeKey(place)} ${sounds ? 1 : 0} ${toSay.join(' ')}`;
    let node = this.nodes.get(key);
    if (!node) this.nodes.set(key, (node = { id: this.nodes.size, place, sounds, toSay }));
    return node;
  }

  private state(nodes: readonly Node[]): State {
    const key = nodes.map(({ id }) => id).join(' ');
    let state = this.states.get(key);
    if (!state) this.states.set(key, (state = { nodes, moves: new Map() }));
    return state;
  }
}
