import { isAboutTake } from '../judging/misreadings/table.ts';
import type { TakeResult } from '../judging/takeResult.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import type { PlayedPlace } from '../timing/schedule.ts';
import { misreadingSentence } from './misreadingSentences.ts';
import { placeHeading } from './places.ts';
import { counted } from './plurals.ts';
import { anyRestKept } from './saidCounts.ts';
import type { Voice } from './voice.ts';

export interface Advice {
  /** What went well, first of all. */
  readonly well: string;
  /** At most three sentences; the first is the one thing to fix. Empty when there is nothing. */
  readonly fix: readonly string[];
}

const MOST = 3;

interface Finding {
  readonly place: PlayedPlace;
  readonly what: string;
  /** Points it cost. */
  readonly cost: number;
}

/** What to do about a hit where none is written, by where it fell. */
const EXTRA_WORDS: Readonly<Record<Exclude<TakeResult['extras'][number]['kind'], 'rest'>, string>> = {
  before: 'you clapped before the start. Wait for your first note with open hands',
  hold: 'you clapped inside a long note. Keep your hands together and push them forward on the beat',
  tie: 'you clapped the tied-on note. It only goes on: keep your hands together',
  bounce: 'one clap was heard as two. Clap once, with relaxed hands',
  after: 'you went on after the end. Stop with your hands open',
  other: 'there was a clap too many. Clap only where a note is written',
};

const NOTE_WORDS = {
  missed: { what: 'no clap was heard here. Clap every note', cost: 1 },
  early: { what: 'too early. Wait for the beat', cost: 0.5 },
  late: { what: 'too late. Think ahead to the next note', cost: 0.5 },
} as const;

/** Single slips that no misreading explains, the costliest kind first, each kind once. */
function slips({ notes, extras }: TakeResult, { naming, counts }: Voice): string[] {
  const findings = new Map<string, Finding>();
  const find = (kind: string, place: PlayedPlace, what: string, cost: number) => {
    const before = findings.get(kind);
    findings.set(kind, before ? { ...before, cost: before.cost + cost } : { place, what, cost });
  };
  for (const extra of extras) {
    const { kind } = extra;
    const inRest = `you clapped in the rest. Open your hands and ${anyRestKept(counts)}`;
    find(kind, extra, kind === 'rest' ? inRest : EXTRA_WORDS[kind], 0.5);
  }
  for (const note of notes) {
    if (note.verdict === 'on-time') continue;
    const { what, cost } = NOTE_WORDS[note.verdict];
    find(note.verdict, note, what, cost);
  }
  return [...findings.values()]
    .sort((a, b) => b.cost - a.cost)
    .map(({ place, what }) => `${placeHeading(place, naming)}: ${what}.`);
}

/** What was right, in words for a child. */
function wellDone({ notes, mark, misreadings, accuracy, tempo }: TakeResult): string {
  const right = notes.filter(({ verdict }) => verdict === 'on-time').length;
  if (notes.length === 0) return 'You kept every rest.';
  if (mark === 4 && misreadings.length === 0) return 'Well done: it was right.';
  // What was another rhythm has no right notes but by chance.
  if (misreadings.some(({ code }) => code === 'another-rhythm')) return '';
  const slipped = misreadings.some((one) => !isAboutTake(one));
  if (right === notes.length)
    return slipped ? 'After the slip you went on right in rhythm.' : 'Every note was right in rhythm.';
  const steady = accuracy >= 0.6 && Math.abs(tempo.driftPct) <= 4 ? ' You kept a steady beat.' : '';
  return `${right} of ${counted(notes.length, 'note')} ${right === 1 ? 'was' : 'were'} right on time.${steady}`;
}

/**
 * Plain sentences about a take: what went well, and what was misread; where nothing was misread, the costliest slips.
 * @param pattern  as written
 */
export function adviceOn(result: TakeResult, pattern: Pattern, voice: Voice): Advice {
  const { notes, extras, misreadings } = result;
  if (notes.length > 0 && notes.every(({ verdict }) => verdict === 'missed') && extras.length === 0) {
    return { well: '', fix: ['Nothing was heard. Clap or tap on every note, and try again.'] };
  }
  const named = misreadings.map((misreading) => misreadingSentence(pattern, misreading, result, voice));
  const fix = named.length > 0 ? named : slips(result, voice);
  return { well: wellDone(result), fix: fix.slice(0, MOST) };
}

/** What a child reads: one thing that went well, one thing to do. */
export interface ChildAdvice {
  readonly well: string;
  /** Nothing where there is nothing to do but go on. */
  readonly task: string;
}

/** From so large a part of the notes on, most of a take was right. */
const MOST_OF_IT = 0.7;

/** For the child itself: without numbers it did not ask for, and without what was wrong. */
export function adviceForChild(result: TakeResult, pattern: Pattern, voice: Voice): ChildAdvice {
  const { notes, misreadings, tempo } = result;
  const { fix } = adviceOn(result, pattern, voice);
  const right = notes.filter(({ verdict }) => verdict === 'on-time').length;
  const task = fix[0] === undefined ? '' : whatToDo(fix[0]);
  if (fix.length === 0) return { well: 'You clapped it right!', task };
  if (misreadings.some(({ code }) => code === 'another-rhythm') || right === 0) return { well: 'You tried it.', task };
  if (right === notes.length) return { well: 'You found every note.', task };
  if (right >= MOST_OF_IT * notes.length) return { well: 'Most of it was right.', task };
  return { well: Math.abs(tempo.driftPct) <= 4 ? 'You kept a steady beat.' : 'You kept going.', task };
}

/** Every sentence says where, what was heard, and then what to do. */
function whatToDo(sentence: string): string {
  const said = sentence.replace(/^(Or: )?[^:]*: /, '');
  return said.slice(said.indexOf('. ') + 2);
}
