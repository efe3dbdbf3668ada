import { type Random, randomFrom } from '../../random.ts';
import { ELEMENT_IDS, type ElementId } from '../../rhythm/elements.ts';
import { type Fraction, toNumber } from '../../rhythm/fraction.ts';
import type { Item, Measure, Pattern } from '../../rhythm/pattern.ts';
import {
  type SoundedBeat,
  beatOfTime,
  insideBeat,
  sameTimes,
  soundKey,
  soundedBeats,
  soundings,
} from '../../rhythm/soundings.ts';
import { printRhythm } from '../../rhythm/text.ts';
import { shuffled } from '../options.ts';
import type { Option, Question, RuledOut, Step } from '../question.ts';
import { type RhythmWanted, rhythmFrom } from '../rhythms/cells.ts';
import { type ChangeId, changesOf, isMisreading } from '../rhythms/changes.ts';
import { type Vocabulary, fits, joined, metBefore, vocabularyIn, vocabularyOf } from '../rhythms/vocabulary.ts';

/** What is heard, and what its look-alikes may be made of. */
export type ChooseWanted =
  | RhythmWanted
  | {
      /** This pattern is heard. */
      readonly pattern: Pattern;
      /** What the class has met beyond what is in it. */
      readonly met?: readonly ElementId[];
    };

/** A pattern that may stand beside the answer; most are never looked at, so each is worked out when it is. */
class Candidate {
  private known: { readonly sound: string; readonly beats: bigint } | undefined;

  constructor(
    readonly id: ChangeId,
    readonly pattern: Pattern,
    private readonly heard: Heard,
  ) {}

  private get facts() {
    return (this.known ??= { sound: soundKey(this.pattern), beats: this.heard.differing(soundings(this.pattern)) });
  }

  get sound(): string {
    return this.facts.sound;
  }

  /** Bit by bit: the beats in which it is not the answer; none where it sounds the same. */
  get beats(): bigint {
    return this.facts.beats;
  }

  private readonly fitting = new Map<Vocabulary, boolean>();

  fits(vocabulary: Vocabulary): boolean {
    const known = this.fitting.get(vocabulary);
    if (known !== undefined) return known;
    const fitting = fits(this.pattern, vocabulary) && this.beats !== 0n;
    this.fitting.set(vocabulary, fitting);
    return fitting;
  }
}

/** Three wrong ones are picked out of no more than these: more would only take time. */
const MOST_CANDIDATES = 40;

/** An answer with everything known about it. */
class Heard {
  readonly sound: string;
  readonly beats: readonly SoundedBeat[];
  readonly onsets: readonly Fraction[];
  readonly own: Vocabulary;
  private readonly once: readonly Candidate[];
  private twice: readonly Candidate[] | undefined;

  constructor(
    readonly pattern: Pattern,
    readonly met: readonly ElementId[],
  ) {
    this.sound = soundKey(pattern);
    this.beats = soundedBeats(pattern);
    this.onsets = soundings(pattern);
    this.own = vocabularyIn(pattern);
    this.once = this.candidates(pattern);
  }

  private candidates(from: Pattern): Candidate[] {
    return changesOf(from).map(({ id, pattern }) => new Candidate(id, pattern, this));
  }

  /** Patterns that are the answer changed in one way, or, where few are, in two. */
  changes(times: 1 | 2): readonly Candidate[] {
    if (times === 1) return this.once;
    return (this.twice ??= [...this.once, ...this.once.flatMap(({ pattern }) => this.candidates(pattern))]);
  }

  private known: readonly Look[] | undefined;

  /** Where to look for wrong candidates: what the class knows, then what is usually met before, then anything. */
  get looks(): readonly Look[] {
    return (this.known ??= looksFor(this));
  }

  differing(others: readonly Fraction[]): bigint {
    if (others.length === 0) return 0n;
    return this.beats.reduce(
      (bits, beat, i) =>
        sameTimes(insideBeat(this.onsets, beat), insideBeat(others, beat)) ? bits : bits | (1n << BigInt(i)),
      0n,
    );
  }

  /** Where a candidate is first told apart. */
  ruledOut(candidate: Pattern, option: number): RuledOut {
    const others = soundings(candidate);
    const beat = this.beats.find((one) => !sameTimes(insideBeat(this.onsets, one), insideBeat(others, one)))!;
    const heard = insideBeat(this.onsets, beat);
    const written = insideBeat(others, beat);
    const away = heard.findIndex((time, i) => !sameTimes([time], written.slice(i, i + 1)));
    const { measure, timeThrough } = beat;
    return {
      option,
      measure,
      ...(timeThrough === undefined ? {} : { timeThrough }),
      beat: beat.beat,
      claps: heard.length,
      hasClaps: written.length,
      ...(heard.length === written.length
        ? { heardAt: beatOfTime(heard[away]!, beat), writtenAt: beatOfTime(written[away]!, beat) }
        : {}),
    };
  }
}

/** Known misreadings first, each kind in an order from the seed. */
function inOrder(candidates: readonly Candidate[], random: Random): Candidate[] {
  const mixed = shuffled(candidates, random);
  return [...mixed.filter(({ id }) => isMisreading(id)), ...mixed.filter(({ id }) => !isMisreading(id))];
}

interface Look {
  readonly vocabulary: Vocabulary;
  readonly times: 1 | 2;
  /** Some beat may rule out all three. */
  readonly oneBeat: boolean;
  /** The same four must not have been shown before, not even with another one heard. */
  readonly newFour?: boolean;
}

/** Three wrong candidates that no single beat rules out together, in a set that was not asked yet. */
function threeWrong(heard: Heard, look: Look, asked: ReadonlySet<string>, random: Random): Candidate[] | undefined {
  const chosen: Candidate[] = [];
  for (const c of inOrder(heard.changes(look.times), random)) {
    if (!c.fits(look.vocabulary)) continue;
    if (chosen.some(({ sound }) => sound === c.sound)) continue;
    for (const [i, a] of chosen.entries()) {
      for (const b of chosen.slice(0, i)) {
        if (!look.oneBeat && (a.beats & b.beats & c.beats) !== 0n) continue;
        if (!asked.has(keyOf(heard, [a, b, c])) && !(look.newFour && asked.has(fourOf(heard, [a, b, c]))))
          return [a, b, c];
      }
    }
    chosen.push(c);
    if (chosen.length === MOST_CANDIDATES) return undefined;
  }
  return undefined;
}

const fourOf = (heard: Heard, wrong: readonly Candidate[]) =>
  [heard, ...wrong]
    .map(({ sound }) => sound)
    .sort()
    .join('|');

function keyOf(heard: Heard, wrong: readonly Candidate[]): string {
  return [heard.sound, ...wrong.map(({ sound }) => sound).sort()].join('|');
}

function looksFor(heard: Heard): Look[] {
  const { meter } = heard.pattern.measures[0]!;
  const known = joined(heard.own, vocabularyOf(heard.met, meter));
  const wider = [0, 3, ELEMENT_IDS.length].map((more) =>
    joined(known, { ...vocabularyOf(metBefore(known.elements, more), meter), crossing: more > 0 }),
  );
  const looks = [known, ...wider].flatMap((vocabulary) =>
    ([1, 2] as const).map((times): Look => ({ vocabulary, times, oneBeat: heard.beats.length === 1 })),
  );
  const last = looks.at(-1)!;
  return heard.beats.length === 2 ? [...looks, { ...last, oneBeat: true }] : looks;
}

function unlabelled<Event extends Item>(event: Event): Event {
  if (event.kind !== 'note') return event;
  const { label: _label, ...note } = event;
  return note as Event;
}

/** Labels would give the answer away. */
function bare(pattern: Pattern): Pattern {
  const measures = pattern.measures.map((measure): Measure => ({
    ...measure,
    items: measure.items.map((item) =>
      item.kind === 'tuplet' ? { ...item, events: item.events.map(unlabelled) } : unlabelled(item),
    ),
  }));
  return { ...pattern, measures };
}

function questionOf(heard: Heard, wrong: readonly Candidate[], random: Random): Question {
  const option = ({ pattern, id }: Candidate): Option => ({
    answer: { is: 'rhythm', text: printRhythm(pattern) },
    change: id,
  });
  const right: Option = { answer: { is: 'rhythm', text: printRhythm(heard.pattern) } };
  const order = shuffled(wrong, random);
  const answer = random.below(4);
  const steps = order
    .map((candidate, i): Step => ({ step: 'ruled-out', ...heard.ruledOut(candidate.pattern, i < answer ? i : i + 1) }))
    .sort((a, b) => placeOf(heard, a) - placeOf(heard, b));
  return {
    asked: { kind: 'choose-rhythm' },
    shows: printRhythm(heard.pattern),
    options: order.map(option).toSpliced(answer, 0, right),
    answer,
    steps,
  };
}

/** The one that falls first comes first. */
function placeOf({ beats }: Heard, step: Step): number {
  if (step.step !== 'ruled-out') return 0;
  const at = beats.find(
    ({ measure, beat, timeThrough }) =>
      measure === step.measure && beat === step.beat && timeThrough === step.timeThrough,
  );
  return at ? toNumber(at.at) : 0;
}

/** How many answers are tried with what the class knows, before look-alikes may be made of more. */
const ANSWERS_TRIED = 24;

/** Where answers come from. */
interface Source {
  /** Another one each time, or always the same. */
  readonly answer: () => Heard | undefined;
  readonly tries: number;
}

function sourceOf(wanted: ChooseWanted, random: Random): Source {
  if ('pattern' in wanted) {
    const heard = new Heard(bare(wanted.pattern), wanted.met ?? []);
    return { answer: () => heard, tries: 1 };
  }
  // Of few elements the same answers come again and again.
  const known = new Map<string, Heard>();
  const answer = () => {
    const pattern = rhythmFrom(wanted, random);
    if (!pattern) return undefined;
    const text = printRhythm(pattern);
    const heard = known.get(text) ?? new Heard(pattern, wanted.elements);
    known.set(text, heard);
    return heard;
  };
  return { answer, tries: ANSWERS_TRIED };
}

function oneQuestion({ answer, tries }: Source, asked: ReadonlySet<string>, random: Random) {
  let first: Heard | undefined;
  const failed = new Set<Heard>();
  for (let tried = 0; tried < tries; tried++) {
    const heard = answer();
    if (!heard) return undefined;
    first ??= heard;
    if (failed.has(heard) || (tried < tries / 2 && asked.has(heard.sound))) continue;
    const newFour = tried < tries / 2;
    const wrong = threeWrong(heard, { ...heard.looks[0]!, newFour }, asked, random);
    if (wrong) return { heard, wrong };
    if (!newFour) failed.add(heard);
  }
  for (const look of first!.looks) {
    const wrong = threeWrong(first!, look, asked, random);
    if (wrong) return { heard: first!, wrong };
  }
  return undefined;
}

/**
 * Which of four was heard (rules §7). Every wrong candidate is the answer changed in a way that can be named; no two
 * sound alike, no single beat rules out all three (where there are three beats or more), and each is told apart by
 * claps, beat by beat: the steps say where, the first to fall first.
 * @returns as many questions as were asked for, no two the same; fewer where there are no more
 */
export function chooseQuestions(wanted: ChooseWanted, seed: number, count: number): Question[] {
  const random = randomFrom(seed);
  const source = sourceOf(wanted, random);
  const asked = new Set<string>();
  const questions: Question[] = [];
  while (questions.length < count) {
    const made = oneQuestion(source, asked, random);
    if (!made) return questions;
    asked.add(keyOf(made.heard, made.wrong)).add(fourOf(made.heard, made.wrong));
    asked.add(made.heard.sound);
    questions.push(questionOf(made.heard, made.wrong, random));
  }
  return questions;
}
