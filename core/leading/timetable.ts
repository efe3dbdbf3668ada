import { type CountOptions, countPattern, eventsOf } from '../counting/count.ts';
import { scheduleOf } from '../timing/schedule.ts';
import { sub, toNumber } from '../rhythm/fraction.ts';
import { beatOf, meterLength } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { placePattern } from '../rhythm/place.ts';
import { backwards } from './backwards.ts';
import { type Chunk, chunkName, chunkPattern, chunksOf } from './chunks.ts';
import { countIn } from './countIn.ts';
import { footOf, handsOn } from './hands.ts';
import {
  ACTIVITIES,
  type Activity,
  LONGEST_RUN_SECONDS,
  type Plan,
  type PlannedPass,
  planTrouble,
  tempoOf,
} from './plan.ts';
import { inWholes, spokenParts } from './spokenParts.ts';
import { type Accent, pulsesOf } from '../timing/pulses.ts';

export type CueKind = 'chunk' | 'pass' | 'count-in' | 'click' | 'syllable' | 'clap' | 'tone' | 'push' | 'open' | 'foot';

/** One thing that happens at one moment. */
export interface Cue {
  /** Seconds from the beginning of the run. */
  readonly time: number;
  /** How long it lasts, in seconds; 0 for what only strikes. */
  readonly seconds: number;
  readonly kind: CueKind;
  /** Index of the section it belongs to. */
  readonly section: number;
  /** The word or syllable; R or L for a foot; plain words for a pass or chunk. */
  readonly text: string;
  /** Of a click: how strong. */
  readonly accent: Accent;
  /** A whispered rest. */
  readonly whispered: boolean;
  /** The app makes it sound; else it is only shown, for the class to do. */
  readonly sounds: boolean;
}

/** Who is at work in a section: all, the app alone for others to hear, the class alone, the app to check by. */
export type Role = 'together' | 'listen' | 'answer' | 'check';

/** Once through the measures of a chunk, with what leads in. Seconds from the beginning of the run. */
export interface Section {
  readonly from: number;
  /** Beat 1 of its measure 1: where the time of its pattern is zero. */
  readonly start: number;
  readonly end: number;
  /** Counts from 1. */
  readonly pass: number;
  readonly activity: Activity;
  readonly role: Role;
  readonly chunk: Chunk;
  readonly bpm: number;
  /** What is clapped here, written out. */
  readonly pattern: Pattern;
  /** Written signs stay hidden: the ear works alone. */
  readonly hidden: boolean;
  /** So many measures from the first are covered. */
  readonly covered: number;
}

export interface Timetable {
  readonly sections: readonly Section[];
  /** By time, rising. */
  readonly cues: readonly Cue[];
  readonly passes: number;
  readonly seconds: number;
}

export type TimetableResult =
  { readonly ok: true; readonly timetable: Timetable } | { readonly ok: false; readonly reason: string };

/** Times in whole notes. */
type Template = Omit<Cue, 'section' | 'sounds'>;

interface Material {
  readonly pattern: Pattern;
  /** How long its written time is, in whole notes; when its pickup starts. */
  readonly length: number;
  readonly pickup: number;
  readonly cues: readonly Template[];
}

interface Step {
  readonly chunk: Chunk;
  readonly pass: PlannedPass;
  readonly bpm: number;
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

/** Of what happens at one moment. */
const ORDER: readonly CueKind[] = ['click', 'foot', 'syllable', 'clap', 'tone', 'push', 'open'];

/** What falls on one moment by two ways of adding up gets one time: a billionth of a whole note is no time. */
function tidy(time: number): number {
  return Math.round(time * 1e9) / 1e9;
}

/** The tempo at which a whole note takes one second: times in it are parts of a whole note. */
function unitBpm(pattern: Pattern): number {
  return 60 / toNumber(beatOf(pattern.measures[0]!.meter).length);
}

/** Everything said, clapped and stepped in a pattern, by time; times in whole notes from beat 1 of its measure 1. */
function templatesOf(pattern: Pattern, voice: CountOptions, divided: boolean): Template[] {
  const bpm = unitBpm(pattern);
  const { measures } = scheduleOf(pattern, bpm);
  const placed = placePattern(pattern);
  const counted = countPattern(pattern, voice);
  const events = eventsOf(placed);
  const cues: Template[] = [];
  const put = (
    kind: CueKind,
    time: number,
    seconds: number,
    text: string,
    whispered = false,
    accent: Accent = 'beat',
  ) => cues.push({ time: tidy(time), seconds, kind, text, accent, whispered });
  for (const { time, accent, played, beat } of pulsesOf(pattern, bpm, divided)) {
    put('click', time, 0, '', false, accent);
    const { meter, number } = placed[played]!;
    if (accent !== 'division') put('foot', time, 0, footOf(meter, number, beat));
  }
  measures.forEach(({ at, measure }, m) => {
    const bar = toNumber(sub(at, measure.onset));
    events[m]!.forEach((event, i) => {
      const length = (beats: typeof event.onset) => toNumber(inWholes(beats, event));
      const token = counted.ok ? counted.measures[m]!.tokens[i]!.text : '';
      for (const part of spokenParts(event, token))
        put('syllable', bar + length(part.at), length(part.length), part.text, part.whispered);
      const time = bar + length(event.onset);
      if (event.kind === 'rest') put('open', time, length(event.length), '');
      if (event.kind === 'note') {
        put('clap', time, 0, '');
        put('tone', time, length(event.length) + tiedLength(m, i), '');
      }
      // Where the hands push: the beats a held note sounds through.
      const first =
        event.kind === 'tied'
          ? Math.ceil(event.onset.n / event.onset.d)
          : Math.floor(event.onset.n / event.onset.d) + 1;
      const pushes = handsOn(event).split('push').length - 1;
      for (let k = 0; k < pushes; k++) put('push', bar + length({ n: first + k, d: 1 }), 0, '');
    });
  });
  /** How much longer a note sounds through the notes tied to it. */
  function tiedLength(m: number, i: number): number {
    let more = 0;
    for (let measure = m, at = i + 1; measure < placed.length; measure++, at = 0) {
      for (; at < placed[measure]!.events.length; at++) {
        const next = placed[measure]!.events[at]!;
        if (next.kind !== 'tied') return more;
        more += toNumber(next.length);
      }
    }
    return more;
  }
  return cues.sort((a, b) => a.time - b.time || ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind));
}

/**
 * Everything that will happen in a run, each thing at its exact second, and how long it all takes.
 * @param voice  how the class counts
 * @example four quarters, "say" once at 60 → count-in at 0 to 3, "1" at 4, end at 8
 */
export function timetable(pattern: Pattern, plan: Plan, voice: CountOptions): TimetableResult {
  const reason = planTrouble(pattern, plan);
  if (reason !== undefined) return { ok: false, reason };
  const steps = stepsOf(pattern, plan);
  const sections: Section[] = [];
  const cues: Cue[] = [];
  const materials = new Map<string, Material>();
  const coveredIn = new Map<Chunk, number>();
  let now = 0;

  steps.forEach(({ chunk, pass, bpm }, index) => {
    const before = steps[index - 1];
    const key = `${chunk.from} ${chunk.to} ${chunk.whole} ${pass.activity === 'backwards'}`;
    let material = materials.get(key);
    if (!material) {
      const own = chunkPattern(pattern, chunk);
      const played = pass.activity === 'backwards' ? backwards(own) : own;
      const { end, measures } = scheduleOf(played, unitBpm(played));
      materials.set(
        key,
        (material = {
          pattern: played,
          length: tidy(end),
          pickup: tidy(Math.min(0, toNumber(measures[0]!.at))),
          cues: templatesOf(played, voice, plan.divided),
        }),
      );
    }
    const beat = 60 / bpm;
    /** Seconds a whole note takes. */
    const whole = beat * (unitBpm(material.pattern) / 60);
    const covered = pass.activity === 'covered' ? (coveredIn.get(chunk) ?? 0) + 1 : 0;
    if (covered > 0) coveredIn.set(chunk, covered);
    const leadIn = countIn(material.pattern, bpm, { kind: plan.countIn, words: plan.countInWords });
    const fresh = !before || before.chunk !== chunk || before.bpm !== bpm;
    const counted = plan.countInEach || fresh;
    const from = now;
    const rest = before ? plan.restBeats : 0;
    const at = (kind: CueKind, time: number, text: string, accent: Accent = 'beat') =>
      cues.push({
        time,
        seconds: beat,
        kind,
        section: sections.length,
        text,
        accent,
        whispered: false,
        sounds: ALWAYS.has(kind),
      });
    if (!before || before.chunk !== chunk) at('chunk', now, chunkName(chunk));
    at('pass', now, ACTIVITIES[pass.activity]);
    for (let i = 0; i < rest; i++) at('click', now + i * beat, '');
    now += rest * beat;
    // Without a count-in the pattern follows at once, its pickup in the last beats before the bar.
    const first = counted ? leadIn[0]!.time : material.pickup * whole;
    let start = now - first;
    if (counted) {
      for (const { time, word, accent } of leadIn) {
        at('count-in', start + time, word);
        at('click', start + time, '', accent ? 'measure' : 'beat');
      }
    }
    rolesOf(pass).forEach((role, turn) => {
      if (turn > 0) start = nextBar(material, whole, sections.at(-1)!);
      const answers = role === 'answer';
      const sounding = SOUNDING[pass.activity];
      for (const cue of material.cues) {
        if (cue.kind === 'tone' && pass.activity !== 'play') continue;
        const sounds =
          ALWAYS.has(cue.kind) ||
          (cue.kind === 'foot' ? plan.twoLines && !answers : !answers && sounding.includes(cue.kind));
        cues.push({
          time: start + cue.time * whole,
          seconds: cue.seconds * whole,
          kind: cue.kind,
          section: sections.length,
          text: cue.text,
          accent: cue.accent,
          whispered: cue.whispered,
          sounds,
        });
      }
      const end = start + material.length * whole;
      sections.push({
        from: turn === 0 ? from : sections.at(-1)!.end,
        start,
        end,
        pass: index + 1,
        activity: pass.activity,
        role,
        chunk,
        bpm,
        pattern: material.pattern,
        hidden: pass.activity === 'echo' && role !== 'check',
        covered: Math.min(covered, material.pattern.measures.length),
      });
      now = end;
    });
  });
  if (now > LONGEST_RUN_SECONDS)
    return {
      ok: false,
      reason: `this run would take ${durationText(now)}: choose fewer passes or measures (at most an hour)`,
    };
  return { ok: true, timetable: { sections, cues, passes: steps.length, seconds: now } };
}

/** Beat 1 for the next turn: the first bar line that leaves room for the pickup, so that the beat never stumbles. */
function nextBar({ pattern, pickup, length }: Material, whole: number, last: Section): number {
  const { at, measure } = scheduleOf(pattern, unitBpm(pattern)).measures.at(-1)!;
  const bar = toNumber(sub(at, measure.onset));
  const full = toNumber(meterLength(measure.meter));
  return last.start + (bar + Math.ceil((length - pickup - bar) / full - 1e-9) * full) * whole;
}

/** A measure of a section, ready to be gone to. */
export interface MeasureStart {
  /** Seconds from the beginning of the run; of the first measure of a pass that is counted in, where the count-in begins. */
  readonly time: number;
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
export function lastAt(sorted: readonly { readonly time: number }[], time: number): number {
  let low = 0;
  let high = sorted.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle]!.time <= time) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/** "4 min 05 s"; "48 s". */
export function durationText(seconds: number): string {
  const whole = Math.round(seconds);
  const minutes = Math.floor(whole / 60);
  return minutes === 0 ? `${whole} s` : `${minutes} min ${String(whole % 60).padStart(2, '0')} s`;
}
