import { inLanguage, counted, perLanguage, t } from '../words/say.ts';
import { type MisreadingCode, isAboutTake } from '../judging/misreadings/table.ts';
import type { TakeResult } from '../judging/takeResult.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import type { PlayedPlace } from '../timing/schedule.ts';
import { misreadingSentence } from './misreadingSentences.ts';
import { placeHeading } from './places.ts';
import { abs, compare, frac, sub } from '../rhythm/fraction.ts';
import { beatsText } from './plurals.ts';
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
const EXTRA_WORDS = perLanguage(
  (): Readonly<Record<Exclude<TakeResult['extras'][number]['kind'], 'rest'>, string>> => ({
    before: t`you clapped before the start. Wait for your first note with open hands`,
    hold: t`you clapped inside a long note. Keep your hands together and push them forward on the beat`,
    tie: t`you clapped the tied-on note. It only goes on: keep your hands together`,
    bounce: t`one clap was heard as two. Clap once, with relaxed hands`,
    after: t`you went on after the end. Stop with your hands open`,
    other: t`there was a clap too many. Clap only where a note is written`,
  }),
);

const NOTE_WORDS = perLanguage(
  () =>
    ({
      missed: { what: t`no clap was heard here`, do: t`Clap every note`, cost: 1 },
      early: { what: t`too early`, do: t`Wait for the beat`, cost: 0.5 },
      late: { what: t`too late`, do: t`Think ahead to the next note`, cost: 0.5 },
    }) as const,
);

/** No farther from its note a clap is that of the note all the same. */
const MOVED = frac(1);

/** A note without a clap and a clap without a note beside it are one clap that was moved, by so many beats. */
function movedClaps(notes: TakeResult['notes'], extras: TakeResult['extras']) {
  const free = new Set(extras.filter(({ kind }) => kind !== 'bounce'));
  return notes
    .filter(({ verdict }) => verdict === 'missed')
    .flatMap((note) => {
      const near = [...free]
        .filter(({ played }) => played === note.played)
        .map((extra) => ({ extra, beats: sub(extra.beat, note.beat) }))
        .filter(({ beats }) => compare(abs(beats), MOVED) <= 0)
        .sort((a, b) => compare(abs(a.beats), abs(b.beats)))[0];
      if (!near || near.beats.n === 0) return [];
      free.delete(near.extra);
      return [{ note, ...near }];
    });
}

/** Single slips that no misreading explains, the costliest kind first, each kind once. */
function slips({ notes, extras }: TakeResult, { naming, counts }: Voice): string[] {
  const findings = new Map<string, Finding>();
  const find = (kind: string, place: PlayedPlace, what: string, cost: number) => {
    const before = findings.get(kind);
    findings.set(kind, before ? { ...before, cost: before.cost + cost } : { place, what, cost });
  };
  const moved = movedClaps(notes, extras);
  for (const { note, beats } of moved) {
    const isLate = beats.n > 0;
    const size = beatsText(abs(beats));
    const what = isLate
      ? t`the clap for this note came ${size} too late`
      : t`the clap for this note came ${size} too early`;
    find(isLate ? 'moved later' : 'moved earlier', note, `${what}. ${NOTE_WORDS()[isLate ? 'late' : 'early'].do}`, 1.5);
  }
  for (const extra of extras) {
    if (moved.some((one) => one.extra === extra)) continue;
    const { kind } = extra;
    const inRest = t`you clapped in the rest. A rest is silent: open your hands and ${anyRestKept(counts)}`;
    find(kind, extra, kind === 'rest' ? inRest : EXTRA_WORDS()[kind], 0.5);
  }
  for (const note of notes) {
    if (note.verdict === 'on-time' || moved.some((one) => one.note === note)) continue;
    const { what, do: task, cost } = NOTE_WORDS()[note.verdict];
    find(note.verdict, note, `${what}. ${task}`, cost);
  }
  return [...findings.values()]
    .sort((a, b) => b.cost - a.cost)
    .map(({ place, what }) => `${placeHeading(place, naming)}: ${what}.`);
}

/** Not the rhythm at all. */
const INSTEAD: ReadonlySet<MisreadingCode> = new Set(['another-rhythm', 'only-the-beat', 'clapped-the-counts']);
/** The beat went on all through these. */
const BESIDE_THE_BEAT: ReadonlySet<MisreadingCode> = new Set([
  ...(['rest-clapped', 'tie-restruck', 'hold-pulsed', 'upbeat-on-beat', 'eighths-uneven', 'beat-misread'] as const),
  ...(['syncopation-straightened', 'measure-silent', 'joined-late', 'behind-the-click', 'ahead-of-the-click'] as const),
]);

/** The tempo was kept, and nothing broke the beat: no stop, no rest without its time. */
function wasSteady(misreadings: TakeResult['misreadings'], tempo: TakeResult['tempo']): boolean {
  return Math.abs(tempo.driftPct) <= 4 && misreadings.every(({ code }) => BESIDE_THE_BEAT.has(code));
}

/** What was right, in words for a child. */
function wellDone({ notes, misreadings, accuracy, tempo }: TakeResult, nothingToFix: boolean): string {
  const right = notes.filter(({ verdict }) => verdict === 'on-time').length;
  if (notes.length === 0) return t`You kept every rest.`;
  if (nothingToFix) return t`Well done: it was right.`;
  // What was another rhythm has no right notes but by chance.
  if (misreadings.some(({ code }) => INSTEAD.has(code))) return '';
  const slips = misreadings.filter((one) => !one.instead && !isAboutTake(one));
  const once = slips.length === 1 && slips[0]!.again === undefined;
  if (right === notes.length)
    return slips.length === 0
      ? t`Every note was right in rhythm.`
      : once
        ? t`After the slip you went on right in rhythm.`
        : t`Between the slips you were right in rhythm.`;
  const steady = accuracy >= 0.6 && wasSteady(misreadings, tempo) ? t` You kept a steady beat.` : '';
  const said =
    right === 1
      ? t`1 of ${counted(notes.length, 'note')} was right on time.`
      : t`${right} of ${counted(notes.length, 'note')} were right on time.`;
  return `${said}${steady}`;
}

/**
 * Plain sentences about a take: what went well, and what was misread; where nothing was misread, the costliest slips.
 * @param pattern  as written
 */
export function adviceOn(result: TakeResult, pattern: Pattern, voice: Voice): Advice {
  return inLanguage(voice.language, () => adviceSaid(result, pattern, voice));
}

function adviceSaid(result: TakeResult, pattern: Pattern, voice: Voice): Advice {
  const { notes, extras, misreadings } = result;
  if (notes.length > 0 && notes.every(({ verdict }) => verdict === 'missed') && extras.length === 0) {
    return { well: '', fix: [t`Nothing was heard. Clap or tap on every note, and try again.`] };
  }
  const named = misreadings.map((misreading) => misreadingSentence(pattern, misreading, result, voice));
  const fix = named.length > 0 ? named : slips(result, voice);
  return { well: wellDone(result, fix.length === 0), fix: fix.slice(0, MOST) };
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
  return inLanguage(voice.language, () => childAdviceSaid(result, pattern, voice));
}

function childAdviceSaid(result: TakeResult, pattern: Pattern, voice: Voice): ChildAdvice {
  const { notes, misreadings, tempo } = result;
  const { fix } = adviceOn(result, pattern, voice);
  const right = notes.filter(({ verdict }) => verdict === 'on-time').length;
  const task = fix[0] === undefined ? '' : whatToDo(fix[0]);
  if (fix.length === 0) return { well: t`You clapped it right!`, task };
  if (misreadings.some(({ code }) => INSTEAD.has(code)) || right === 0) return { well: t`You tried it.`, task };
  if (right === notes.length) return { well: t`You found every note.`, task };
  if (right >= MOST_OF_IT * notes.length) return { well: t`Most of it was right.`, task };
  return { well: wasSteady(misreadings, tempo) ? t`You kept a steady beat.` : t`You kept going.`, task };
}

/** Every sentence says where, what was heard, and then what to do. */
function whatToDo(sentence: string): string {
  const said = sentence.replace(/^(Or: )?[^:]*: /, '');
  return said.slice(said.indexOf('. ') + 2);
}
