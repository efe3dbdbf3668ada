import { recordingIn } from './spokenWords.ts';
import { type Language, SOURCE, currentLanguage, inLanguage } from '../words/say.ts';
import type { CountOptions } from '../counting/count.ts';
import { ZERO, sub, toNumber } from '../rhythm/fraction.ts';
import { meterLength } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type Score, scoreOfPattern } from '../rhythm/score.ts';
import { partSound } from '../sound/partSounds.ts';
import type { Accent } from '../timing/pulses.ts';
import { scheduleOf } from '../timing/schedule.ts';
import { EPSILON } from '../timing/tolerance.ts';
import type { Bpm, Seconds } from '../timing/units.ts';
import { backwards } from './backwards.ts';
import { type Chunk, chunkPattern, chunksOf } from './chunks.ts';
import { countIn } from './countIn.ts';
import type { Cue, CueKind } from './cue.ts';
import { type Fade, fadeAt, hasCounts } from './fading.ts';
import { type Material, materialOf, unitBpm } from './material.ts';
import {
  type Activity,
  LONGEST_RUN,
  type Plan,
  type PlanTrouble,
  type PlannedPass,
  planTrouble,
  tempoOf,
} from './plan.ts';

/** Who is at work in a section: all, the app alone for others to hear, the class alone, the app to check by. */
export type Role = 'together' | 'listen' | 'answer' | 'check';

/** Once through the measures of a chunk, with what leads in. Times from the beginning of the run. */
export interface Section {
  readonly from: Seconds;
  /** Beat 1 of its measure 1: where the time of its pattern is zero. */
  readonly start: Seconds;
  readonly end: Seconds;
  /** Counts from 1. */
  readonly pass: number;
  readonly activity: Activity;
  readonly role: Role;
  readonly chunk: Chunk;
  readonly bpm: Bpm;
  /** What is clapped here, written out; of several parts the first one's. */
  readonly pattern: Pattern;
  /** All parts, written out, and the indices of those that go; the others wait. */
  readonly parts: readonly Pattern[];
  readonly going: readonly number[];
  /** Written signs stay hidden: the ear works alone. */
  readonly hidden: boolean;
  /** So many measures from the first are covered. */
  readonly covered: number;
  /** What of the counts is left. */
  readonly fade: Fade;
  /** Until then the line is looked at in silence; undefined where there is no study. */
  readonly studyUntil?: Seconds;
}

export interface Timetable {
  readonly sections: readonly Section[];
  /** By time, rising. */
  readonly cues: readonly Cue[];
  readonly passes: number;
  readonly seconds: Seconds;
}

export type TimetableResult =
  | { readonly ok: true; readonly timetable: Timetable }
  | { readonly ok: false; readonly trouble: PlanTrouble };

interface Step {
  readonly chunk: Chunk;
  readonly pass: PlannedPass;
  readonly bpm: Bpm;
  readonly going: readonly number[];
}

/** The passes in order, each with its measures and tempo. */
function stepsOf({ parts }: Score, plan: Plan): Step[] {
  const chunks = chunksOf(parts[0]!.pattern, plan.chunks);
  const all = parts.map((_, i) => i);
  const alone = parts.length > 1 && plan.parts !== 'together' ? all : [];
  const rungs = plan.ladder.flatMap((rung) => Array.from({ length: rung.passes }, () => tempoOf(rung)));
  return chunks.flatMap((chunk, i) => {
    const climbs = i === chunks.length - 1;
    const count = climbs ? Math.max(plan.passes.length, rungs.length) : plan.passes.length;
    const before = alone.flatMap((part) =>
      plan.passes.map((pass): Step => ({ chunk, pass, bpm: rungs[0]!, going: [part] })),
    );
    const together = Array.from({ length: count }, (_, k): Step => ({
      chunk,
      pass: plan.passes[k % plan.passes.length]!,
      bpm: climbs ? rungs[Math.min(k, rungs.length - 1)]! : rungs[0]!,
      going: all,
    }));
    return [...before, ...together];
  });
}

/** Once through, or model and answer. */
function rolesOf({ activity, who }: PlannedPass): readonly Role[] {
  if (activity === 'echo') return ['listen', 'answer', 'check'];
  return who === 'i-go' ? ['listen', 'answer'] : who === 'you-go' ? ['answer', 'check'] : ['together'];
}

/** What sounds in an activity besides the clicks, when the app takes part. */
const SOUNDING: Readonly<Record<Activity, readonly CueKind[]>> = {
  say: ['syllable'],
  'say-clap': ['syllable', 'clap'],
  clap: ['clap'],
  play: ['tone'],
  backwards: ['syllable', 'clap'],
  covered: ['clap'],
  echo: ['clap'],
};
const ALWAYS: ReadonlySet<CueKind> = new Set<CueKind>(['click', 'count-in']);

/** Words of several parts at once are a babble: each group says its own, and hears the sounds of all. */
const TOGETHER: readonly CueKind[] = ['clap'];

function isSounding(kind: CueKind, { pass: { activity }, going }: Step, role: Role, { twoLines }: Plan): boolean {
  if (ALWAYS.has(kind)) return true;
  const appPlays = role !== 'answer';
  const sounding = going.length > 1 ? TOGETHER : SOUNDING[activity];
  return kind === 'foot' ? twoLines && appPlays : appPlays && sounding.includes(kind);
}

/** What of a step is played, and how. */
interface Performed {
  readonly step: Step;
  readonly role: Role;
  readonly fade: Fade;
}

/** What all parts have in common. */
const BEAT: ReadonlySet<CueKind> = new Set<CueKind>(['click', 'foot']);

const withoutBeat = (material: Material): Material => ({
  ...material,
  cues: material.cues.filter(({ kind }) => !BEAT.has(kind)),
});

/** How often the same measures were gone through by the same parts. */
class Tally {
  private readonly counts = new Map<Chunk, Map<string, number>>();

  /** @returns so often before */
  next({ chunk, going }: Step): number {
    const own = this.counts.get(chunk) ?? new Map<string, number>();
    this.counts.set(chunk, own);
    const before = own.get(going.join()) ?? 0;
    own.set(going.join(), before + 1);
    return before;
  }
}

/** Puts the steps of a plan one after the other, each thing at its second. */
class TimetableBuilder {
  readonly sections: Section[] = [];
  readonly cues: Cue[] = [];
  now: Seconds = 0;
  private readonly materials = new Map<string, readonly Material[]>();
  private readonly coveredIn = new Tally();
  private readonly passesOf = new Tally();
  private passes = 0;
  private before: Step | undefined;

  constructor(
    private readonly score: Score,
    private readonly plan: Plan,
    private readonly counts: CountOptions,
  ) {}

  add(step: Step): void {
    const { chunk, pass, bpm, going } = step;
    const { plan, before } = this;
    this.passes++;
    const materials = this.materialsFor(step);
    const material = materials[0]!;
    const beat = 60 / bpm;
    const whole = wholeAt(material, bpm);
    const from = this.now;
    if (before?.chunk !== chunk) this.put('chunk', from, beat);
    this.put('pass', from, beat);
    const rest = before ? plan.restBeats : 0;
    for (let i = 0; i < rest; i++) this.put('click', from + i * beat, beat);
    this.now += rest * beat;
    const studies = pass.who === 'you-go' && pass.activity !== 'echo' ? (plan.study ?? 0) : 0;
    this.now += studies;
    const study = studies > 0 ? { studyUntil: this.now } : {};
    const fade = this.fadeFor(step);
    const others = before?.going.join() !== going.join();
    const fresh = !before || before.chunk !== chunk || before.bpm !== bpm || others;
    // Without a count-in the pattern follows at once, its pickup in the last beats before the bar.
    let start = plan.countInEach || fresh ? this.leadIn(material, bpm) : this.now - material.pickup * whole;
    const covered = this.coverFor(step);
    rolesOf(pass).forEach((role, turn) => {
      const last = this.sections.at(-1);
      if (turn > 0) start = nextBar(material, whole, last!);
      this.play(materials, start, whole, { step, role, fade });
      const end = start + material.length * whole;
      const { activity } = pass;
      this.sections.push({
        from: turn === 0 ? from : last!.end,
        start,
        end,
        pass: this.passes,
        activity,
        role,
        chunk,
        bpm,
        pattern: material.pattern,
        parts: materials.map((one) => one.pattern),
        going,
        hidden: activity === 'echo' && role !== 'check',
        covered: Math.min(covered, material.pattern.measures.length),
        fade,
        ...(turn === 0 ? study : {}),
      });
      this.now = end;
    });
    this.before = step;
  }

  /** How many measures are covered in this pass: one more each time. */
  private coverFor(step: Step): number {
    return step.pass.activity === 'covered' ? this.coveredIn.next(step) + 1 : 0;
  }

  /** A step further each time the same measures are gone through. */
  private fadeFor(step: Step): Fade {
    const before = this.passesOf.next(step);
    return this.plan.fades ? fadeAt(before) : 'all';
  }

  /** Of each part. */
  private materialsFor({ chunk, pass }: Step): readonly Material[] {
    const turned = pass.activity === 'backwards';
    const key = `${chunk.first} ${chunk.last} ${chunk.whole} ${turned}`;
    const known = this.materials.get(key);
    if (known) return known;
    const made = this.score.parts.map(({ pattern }) => {
      const own = chunkPattern(pattern, chunk);
      return materialOf(turned ? backwards(own) : own, this.counts, this.plan.divided);
    });
    this.materials.set(key, made);
    return made;
  }

  private put(kind: CueKind, time: Seconds, seconds: Seconds, text = '', accent: Accent = 'beat'): void {
    const section = this.sections.length;
    this.cues.push({ time, seconds, kind, section, text, accent, whispered: false, sounds: ALWAYS.has(kind) });
  }

  /** Counts in from now. @returns beat 1 of measure 1 */
  private leadIn({ pattern }: Material, bpm: Bpm): Seconds {
    const { countIn: kind, countInWords: words } = this.plan;
    const beats = countIn(pattern, bpm, { kind, words });
    const start = this.now - beats[0]!.time;
    for (const { time, word, accent } of beats) {
      this.put('count-in', start + time, 60 / bpm, word);
      this.put('click', start + time, 60 / bpm, '', accent ? 'measure' : 'beat');
    }
    return start;
  }

  /** @param whole  how long a whole note takes */
  private play(materials: readonly Material[], start: Seconds, whole: Seconds, how: Performed): void {
    const { parts } = this.score;
    if (parts.length === 1) return this.playPart(materials[0]!, start, whole, { ...how, own: {} });
    for (const part of how.step.going) {
      const own = { part, struck: partSound(parts[part]!.name, part).struck };
      // The beat is everybody's: it is given once.
      const material = part === how.step.going[0] ? materials[part]! : withoutBeat(materials[part]!);
      this.playPart(material, start, whole, { ...how, own });
    }
  }

  private playPart(
    { cues, pattern }: Material,
    start: Seconds,
    whole: Seconds,
    { step, role, fade, own }: Performed & { own: Pick<Cue, 'part' | 'struck'> },
  ): void {
    const section = this.sections.length;
    const second = toNumber(scheduleOf(pattern, unitBpm(pattern)).measures[pattern.pickup ? 2 : 1]?.at ?? ZERO);
    for (const { time, seconds, kind, text, accent, whispered } of cues) {
      if (kind === 'tone' && (step.pass.activity !== 'play' || step.going.length > 1)) continue;
      // What is no longer read is no longer said before either.
      const said = kind !== 'syllable' || hasCounts(fade, second > 0 && time >= second - EPSILON ? 1 : 0);
      const sounds = said && isSounding(kind, step, role, this.plan);
      const at = start + time * whole;
      const whose = BEAT.has(kind) ? {} : own;
      this.cues.push({ time: at, seconds: seconds * whole, kind, section, text, accent, whispered, sounds, ...whose });
    }
  }
}

/** How long a whole note takes. */
function wholeAt({ pattern }: Material, bpm: Bpm): Seconds {
  return unitBpm(pattern) / bpm;
}

/**
 * Everything that will happen in a run, each thing at its exact second, and how long it all takes.
 * @param counts  how the class counts
 * @example four quarters, "say" once at 60 → count-in at 0 to 3, "1" at 4, end at 8
 */
export function timetable(pattern: Pattern, plan: Plan, counts: CountOptions): TimetableResult {
  return scoreTimetable(scoreOfPattern(pattern), plan, counts);
}

/**
 * The same of several parts: each goes alone through the passes, then all together climb the ladder (rules §15). Each
 * part has the sound of its name; what belongs to one says which.
 */
export function scoreTimetable(score: Score, plan: Plan, counts: CountOptions): TimetableResult {
  const trouble = planTrouble(score.parts[0]!.pattern, plan);
  if (trouble) return { ok: false, trouble };
  const steps = stepsOf(score, plan);
  const builder = new TimetableBuilder(score, plan, counts);
  for (const step of steps) builder.add(step);
  const { sections, now: seconds } = builder;
  const cues = score.parts.length > 1 ? builder.cues.toSorted((a, b) => a.time - b.time) : builder.cues;
  if (seconds > LONGEST_RUN) return { ok: false, trouble: { code: 'too-long', seconds } };
  return { ok: true, timetable: { sections, cues: spoken(cues, counts.language), passes: steps.length, seconds } };
}

/** Who plays the cues need not know the language: which recordings speak them is found here. */
function spoken(cues: readonly Cue[], language: Language | undefined): readonly Cue[] {
  return inLanguage(language, () => {
    if (currentLanguage() === SOURCE) return cues;
    return cues.map((cue) => {
      const recorded = cue.kind === 'syllable' || cue.kind === 'count-in' ? recordingIn(cue.text) : undefined;
      return recorded === undefined ? cue : { ...cue, recorded };
    });
  });
}

/** Beat 1 for the next turn: the first bar line that leaves room for the pickup, so that the beat never stumbles. */
function nextBar({ pattern, pickup, length }: Material, whole: Seconds, last: Section): Seconds {
  const { at, measure } = scheduleOf(pattern, unitBpm(pattern)).measures.at(-1)!;
  const bar = toNumber(sub(at, measure.onset));
  const full = toNumber(meterLength(measure.meter));
  return last.start + (bar + Math.ceil((length - pickup - bar) / full - 1e-9) * full) * whole;
}
