import type { Vocabulary } from './vocabulary.ts';
import { type Transition, type Place, type Places, WHOLE_TOKEN } from './places.ts';

/** The token between measures. */
export const BAR = '|';

/** Where the tokens said so far may have led. A `Automata` has each node once. */
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
  readonly moves: Map<string, MovesWith>;
}

/** The moves from a state with one token. */
interface MovesWith {
  readonly steps: Steps;
  /** By the token after it. */
  readonly moves: Map<string | undefined, Move>;
}

/**
 * The steps from the nodes of a state with a token, whatever the token after it: those from node i are from `first[i]`
 * up to `first[i + 1]`.
 */
interface Steps {
  readonly first: readonly number[];
  readonly to: readonly Node[];
  readonly transitions: readonly (Transition | undefined)[];
}

/** What a token makes of a state: steps from its nodes to those of the state it leads to. */
export interface Move {
  readonly state: State;
  /** The steps from node i are those from `first[i]` up to `first[i + 1]`. */
  readonly first: Int32Array;
  /**
   * By step: the index of the node it leads to, its cost, and what the token means (nothing, inside a word for several
   * notes).
   */
  readonly to: Int32Array;
  readonly cost: Float64Array;
  readonly transitions: readonly (Transition | undefined)[];
}

/** As many states as are kept; the texts of a system seldom need a tenth of them. */
const MOST_STATES = 3000;

/**
 * The ways through a measure, worked out as far as some text has gone and kept for the next: measures begin alike, so
 * most tokens find their move known.
 */
export class SpeechAutomaton {
  /** By place, and whether a note sounds on; then those in the middle of a word. */
  private readonly nodes = new Map<number, Node>();
  private readonly inWords = new Map<string, Node>();
  private nodeCount = 0;
  private readonly states = new Map<string, State>();

  /**
   * @param bars   bars are said: nothing follows a full measure
   * @param loose  tokens may leave the holds out ("1 3" for two half notes)
   */
  constructor(
    private readonly vocabulary: Vocabulary,
    private readonly places: Places,
    private readonly bars: boolean,
    private readonly loose: boolean,
  ) {}

  /** Length of a measure in ticks. */
  get full(): number {
    return this.places.full;
  }

  /** Nothing said yet, at one of these places (in ticks). */
  start(places: readonly number[], sounds: boolean): State {
    if (this.states.size > MOST_STATES) {
      this.nodes.clear();
      this.inWords.clear();
      this.states.clear();
    }
    return this.state(places.map((at) => this.node(this.places.place(at), sounds, WHOLE_TOKEN)));
  }

  /**
   * The move with a token, as far as the next token can follow it (a bar, or nothing, where it is the last). Its state
   * has no nodes when there is none.
   */
  move(from: State, token: string, next: string | undefined): Move {
    let withToken = from.moves.get(token);
    if (!withToken)
      from.moves.set(
        token,
        (withToken = { steps: this.stepsWith(from, token), moves: new Map<string | undefined, Move>() }),
      );
    let move = withToken.moves.get(next);
    if (!move) withToken.moves.set(next, (move = this.moveBefore(withToken.steps, next)));
    return move;
  }

  private stepsWith(from: State, token: string): Steps {
    const first = [0];
    const to: Node[] = [];
    const transitions: (Transition | undefined)[] = [];
    for (const node of from.nodes) {
      this.stepsFrom(node, token, to, transitions);
      first.push(to.length);
    }
    return { first, to, transitions };
  }

  /** Those of the steps after which the next token can follow. */
  private moveBefore(steps: Steps, next: string | undefined): Move {
    const reached: Node[] = [];
    const first = new Int32Array(steps.first.length);
    const to: number[] = [];
    const transitions: (Transition | undefined)[] = [];
    for (let from = 0; from + 1 < steps.first.length; from++) {
      for (let i = steps.first[from]!; i < steps.first[from + 1]!; i++) {
        const node = steps.to[i]!;
        if (!this.canFollow(node, next)) continue;
        const known = reached.indexOf(node);
        to.push(known >= 0 ? known : reached.push(node) - 1);
        transitions.push(steps.transitions[i]);
      }
      first[from + 1] = to.length;
    }
    return {
      state: this.state(reached),
      first,
      to: Int32Array.from(to),
      cost: Float64Array.from(transitions, (transition) => transition?.cost ?? 0),
      transitions,
    };
  }

  private canFollow({ place, toSay }: Node, token: string | undefined): boolean {
    if (token === undefined) return true;
    if (toSay.length > 0) return toSay[0] === token;
    const ended = place.at === this.full;
    if (token === BAR) return ended;
    if (ended && this.bars) return false;
    const from = this.goesOnAt(place);
    return this.vocabulary.exactFrom(from).has(token) || (this.loose && this.vocabulary.looseFrom(from).has(token));
  }

  /** A full measure goes on at the beginning of the next. */
  private goesOnAt(place: Place): Place {
    return place.at === this.full ? this.places.place(0) : place;
  }

  private stepsFrom(
    { place, sounds, toSay }: Node,
    token: string,
    to: Node[],
    transitions: (Transition | undefined)[],
  ): void {
    if (toSay.length > 0) {
      if (toSay[0] !== token) return;
      to.push(this.node(place, true, toSay.slice(1)));
      transitions.push(undefined);
      return;
    }
    if (place.at === this.full && this.bars) return;
    const from = this.goesOnAt(place);
    const go = (transition: Transition) => {
      const { kind } = transition.events[0]!;
      if (kind === 'tied' && !sounds) return;
      to.push(this.node(transition.to, kind === 'note' || kind === 'tied', transition.more));
      transitions.push(transition);
    };
    this.vocabulary.exactFrom(from).get(token)?.forEach(go);
    if (this.loose) this.vocabulary.looseFrom(from).get(token)?.forEach(go);
  }

  private node(place: Place, sounds: boolean, toSay: readonly string[]): Node {
    const key = place.id * 2 + (sounds ? 1 : 0);
    const inWord = toSay.length > 0 ? `${key} ${toSay.join(' ')}` : '';
    const known = inWord ? this.inWords.get(inWord) : this.nodes.get(key);
    if (known) return known;
    const node: Node = { id: this.nodeCount++, place, sounds, toSay };
    if (inWord) this.inWords.set(inWord, node);
    else this.nodes.set(key, node);
    return node;
  }

  private state(nodes: readonly Node[]): State {
    const key = nodes.map(({ id }) => id).join(' ');
    let state = this.states.get(key);
    if (!state) this.states.set(key, (state = { nodes, moves: new Map() }));
    return state;
  }
}
