import type { CountOptions } from '../counting/count.ts';
import { ZERO, sub, toNumber } from '../rhythm/fraction.ts';
import { meterLength } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
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
  /** What is clapped here, written out. */
  readonly pattern: Pattern;
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
}

/** The passes in order, each with its measures and tempo. */
function stepsOf(pattern: Pattern, plan: Plan): Step[] {
  const chunks = chunksOf(pattern, plan.chunks);
  const rungs = plan.ladder.flatMap((rung) => Array.from({ length: rung.passes }, () => tempoOf(rung)));
  return chunks.flatMap((chunk, i) => {
    const climbs = i === chunks.length - 1;
    const count = climbs ? Math.max(plan.passes.length, rungs.length) : plan.passes.length;
    return Array.from({ length: count }, (_, k): Step => ({
      chunk,
      pass: plan.passes[k % plan.passes.length]!,
      bpm: climbs ? rungs[Math.min(k, rungs.length - 1)]! : rungs[0]!,
    }));
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

function isSounding(kind: CueKind, { activity }: PlannedPass, role: Role, { twoLines }: Plan): boolean {
  if (ALWAYS.has(kind)) return true;
  const appPlays = role !== 'answer';
  return kind === 'foot' ? twoLines && appPlays : appPlays && SOUNDING[activity].includes(kind);
}

/** Puts the steps of a plan one after the other, each thing at its second. */
class TimetableBuilder {
  readonly sections: Section[] = [];
  readonly cues: Cue[] = [];
  now: Seconds = 0;
  private readonly materials = new Map<string, Material>();
  private readonly coveredIn = new Map<Chunk, number>();
  private readonly passesOf = new Map<Chunk, number>();
  private passes = 0;
  private before: Step | undefined;

  constructor(
    private readonly pattern: Pattern,
    private readonly plan: Plan,
    private readonly counts: CountOptions,
  ) {}

  add(step: Step): void {
    const { chunk, pass, bpm } = step;
    const { plan, before } = this;
    this.passes++;
    const material = this.materialFor(step);
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
    const fresh = !before || before.chunk !== chunk || before.bpm !== bpm;
    // Without a count-in the pattern follows at once, its pickup in the last beats before the bar.
    let start = plan.countInEach || fresh ? this.leadIn(material, bpm) : this.now - material.pickup * whole;
    const covered = this.coverFor(step);
    rolesOf(pass).forEach((role, turn) => {
      const last = this.sections.at(-1);
      if (turn > 0) start = nextBar(material, whole, last!);
      this.play(material, start, whole, { pass, role, fade });
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
  private coverFor({ chunk, pass }: Step): number {
    if (pass.activity !== 'covered') return 0;
    const covered = (this.coveredIn.get(chunk) ?? 0) + 1;
    this.coveredIn.set(chunk, covered);
    return covered;
  }

  /** A step further each time the same measures are gone through. */
  private fadeFor({ chunk }: Step): Fade {
    const before = this.passesOf.get(chunk) ?? 0;
    this.passesOf.set(chunk, before + 1);
    return this.plan.fades ? fadeAt(before) : 'all';
  }

  private materialFor({ chunk, pass }: Step): Material {
    const turned = pass.activity === 'backwards';
    const key = `${chunk.first} ${chunk.last} ${chunk.whole} ${turned}`;
    let material = this.materials.get(key);
    if (!material) {
      const own = chunkPattern(this.pattern, chunk);
      material = materialOf(turned ? backwards(own) : own, this.counts, this.plan.divided);
      this.materials.set(key, material);
    }
    return material;
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
  private play(
    { cues, pattern }: Material,
    start: Seconds,
    whole: Seconds,
    { pass, role, fade }: { pass: PlannedPass; role: Role; fade: Fade },
  ): void {
    const section = this.sections.length;
    const second = toNumber(scheduleOf(pattern, unitBpm(pattern)).measures[pattern.pickup ? 2 : 1]?.at ?? ZERO);
    for (const { time, seconds, kind, text, accent, whispered } of cues) {
      if (kind === 'tone' && pass.activity !== 'play') continue;
      // What is no longer read is no longer said before either.
      const said = kind !== 'syllable' || hasCounts(fade, second > 0 && time >= second - EPSILON ? 1 : 0);
      const sounds = said && isSounding(kind, pass, role, this.plan);
      const at = start + time * whole;
      this.cues.push({ time: at, seconds: seconds * whole, kind, section, text, accent, whispered, sounds });
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
  const trouble = planTrouble(pattern, plan);
  if (trouble) return { ok: false, trouble };
  const steps = stepsOf(pattern, plan);
  const builder = new TimetableBuilder(pattern, plan, counts);
  for (const step of steps) builder.add(step);
  const { sections, cues, now: seconds } = builder;
  if (seconds > LONGEST_RUN) return { ok: false, trouble: { code: 'too-long', seconds } };
  return { ok: true, timetable: { sections, cues, passes: steps.length, seconds } };
}

/** Beat 1 for the next turn: the first bar line that leaves room for the pickup, so that the beat never stumbles. */
function nextBar({ pattern, pickup, length }: Material, whole: Seconds, last: Section): Seconds {
  const { at, measure } = scheduleOf(pattern, unitBpm(pattern)).measures.at(-1)!;
  const bar = toNumber(sub(at, measure.onset));
  const full = toNumber(meterLength(measure.meter));
  return last.start + (bar + Math.ceil((length - pickup - bar) / full - 1e-9) * full) * whole;
}
