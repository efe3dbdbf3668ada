import { toNumber } from '../rhythm/fraction.ts';
import { scheduleOf } from '../timing/schedule.ts';
import { EPSILON } from '../timing/tolerance.ts';
import type { Seconds } from '../timing/units.ts';
import type { Cue, CueKind } from './cue.ts';
import type { HandMove } from './hands.ts';
import type { Section, Timetable } from './timetable.ts';

/** A measure of a section, ready to be gone to. */
export interface MeasureStart {
  /** From the beginning of the run; of the first measure of a pass that is counted in, where the count-in begins. */
  readonly time: Seconds;
  readonly section: number;
  /** Index among the measures of the section. */
  readonly measure: number;
}

/** Where every measure of a run begins, by time. */
export function measureStarts({ sections }: Timetable): MeasureStart[] {
  return sections.flatMap(({ start, from, pattern, bpm }, section) => {
    const { measures, whole } = scheduleOf(pattern, bpm);
    return measures.map(({ at }, measure) => ({
      time: measure === 0 ? from : start + toNumber(at) * whole,
      section,
      measure,
    }));
  });
}

/** Index of the last of some things, sorted by time, that is not after a moment; -1 before the first. */
export function lastAt(sorted: readonly { readonly time: Seconds }[], time: Seconds): number {
  let low = 0;
  let high = sorted.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle]!.time <= time) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/** Index of the section a moment lies in. */
export function sectionAt(sections: readonly Section[], time: Seconds): number {
  let index = 0;
  while (index + 1 < sections.length && sections[index + 1]!.from <= time + EPSILON) index++;
  return index;
}

/** What a group does that has one of several parts. */
export interface PartMoment {
  /** Its word, of a part that waits or rests nothing. */
  readonly mouth: string;
  /** It strikes now, holds, or rests; undefined before its first note, and of a part that waits. */
  readonly hands: HandMove | undefined;
  /** It goes in this section. */
  readonly goes: boolean;
}

/** What is to be done at a moment of a run. */
export interface Moment {
  /** Index of the section. */
  readonly section: number;
  /** Index of the measure in it, -1 during the count-in. */
  readonly measure: number;
  /** The word of the count-in; undefined once it is over. */
  readonly leadIn: string | undefined;
  readonly mouth: string;
  readonly hands: HandMove | undefined;
  /** R or L. */
  readonly foot: string;
  /** Of several parts what each does; the ones that wait do nothing. */
  readonly parts?: readonly PartMoment[];
  /** Whole seconds that are left to look at the line in silence; undefined where it is not looked at. */
  readonly study?: number;
}

const STUDYING = { measure: -1, leadIn: undefined, mouth: '', hands: undefined, foot: '' } as const;
const HAND_MOVES: Partial<Record<CueKind, HandMove>> = { clap: 'clap', push: 'push', open: 'open' };
/** A word stays to be read at least so long. */
const SHORTEST_WORD: Seconds = 0.2;

/** Looks moments of one run up; the cues of each part of the body are sorted out beforehand. */
export class MomentFinder {
  private readonly mouth: readonly Cue[];
  private readonly hands: readonly Cue[];
  private readonly feet: readonly Cue[];
  private readonly starts: readonly MeasureStart[];
  /** Mouth and hands of each part, where there are several. */
  private readonly parts: readonly { readonly mouth: readonly Cue[]; readonly hands: readonly Cue[] }[];

  constructor(private readonly table: Timetable) {
    const of = (...kinds: CueKind[]) => table.cues.filter(({ kind }) => kinds.includes(kind));
    this.mouth = of('syllable', 'count-in');
    this.hands = of('clap', 'push', 'open');
    const count = table.sections[0]!.parts.length;
    this.parts = Array.from({ length: count > 1 ? count : 0 }, (_, i) => ({
      mouth: this.mouth.filter(({ part }) => part === i),
      hands: this.hands.filter(({ part }) => part === i),
    }));
    this.feet = of('foot');
    this.starts = measureStarts(table);
  }

  at(time: Seconds): Moment {
    const section = sectionAt(this.table.sections, time);
    const { studyUntil } = this.table.sections[section]!;
    if (studyUntil !== undefined && time < studyUntil - EPSILON)
      return { ...STUDYING, section, study: Math.ceil(studyUntil - time - EPSILON) };
    const counting = time < firstNote(this.table.sections[section]!) - EPSILON;
    const word = this.word(time, section);
    if (counting) {
      const leadIn = word?.kind === 'count-in' ? word.text : '';
      const idle = { section, measure: -1, leadIn, mouth: syllable(word), hands: undefined, foot: '' };
      return { ...idle, ...this.partsAt(time, section) };
    }
    const start = this.starts[lastAt(this.starts, time + EPSILON)];
    const hands = lastCue(this.hands, time, section);
    return {
      section,
      measure: start?.section === section ? start.measure : 0,
      leadIn: undefined,
      mouth: syllable(word),
      hands: hands && HAND_MOVES[hands.kind],
      foot: lastCue(this.feet, time, section)?.text ?? '',
      ...this.partsAt(time, section),
    };
  }

  private partsAt(time: Seconds, section: number): Pick<Moment, 'parts'> {
    if (this.parts.length === 0) return {};
    const { going } = this.table.sections[section]!;
    const parts = this.parts.map(({ mouth, hands }, i): PartMoment => {
      const struck = lastCue(hands, time, section);
      const said = syllable(this.word(time, section, mouth));
      return { mouth: said, hands: struck && HAND_MOVES[struck.kind], goes: going.includes(i) };
    });
    return { parts };
  }

  /** What is being said just now. */
  private word(time: Seconds, section: number, mouth = this.mouth): Cue | undefined {
    const cue = lastCue(mouth, time, section);
    return cue && time < cue.time + Math.max(SHORTEST_WORD, cue.seconds) ? cue : undefined;
  }
}

function lastCue(cues: readonly Cue[], time: Seconds, section: number): Cue | undefined {
  const cue = cues[lastAt(cues, time + EPSILON)];
  return cue?.section === section ? cue : undefined;
}

/** When the first thing written in a section begins. */
function firstNote({ pattern, bpm, start }: Section): Seconds {
  const { measures, whole } = scheduleOf(pattern, bpm);
  return start + toNumber(measures[0]!.at) * whole;
}

function syllable(word: Cue | undefined): string {
  if (word?.kind !== 'syllable') return '';
  return word.whispered ? `(${word.text})` : word.text;
}
