import type { Chunk } from '../leading/chunks.ts';
import type { CountInKind } from '../leading/countIn.ts';
import type { Channel } from '../leading/cueSounds.ts';
import { LONGEST_STUDY } from '../leading/fading.ts';
import type { HandMove } from '../leading/hands.ts';
import { type Activity, MOST_PASSES, MOST_REST_BEATS, type PlanTrouble, type Who } from '../leading/plan.ts';
import type { Role, Section } from '../leading/timetable.ts';
import { FASTEST_BPM, SLOWEST_BPM } from '../timing/limits.ts';
import type { Seconds } from '../timing/units.ts';
import { type NamingId, inNaming } from './valueNames.ts';

export const ACTIVITY_NAMES: Readonly<Record<Activity, string>> = {
  say: 'say the counts',
  'say-clap': 'say and clap',
  clap: 'clap, think the counts',
  play: 'play or tap',
  backwards: 'backwards',
  covered: 'clap, one more {measure} covered',
  echo: 'echo: hear it, clap it back, see it',
};

export function activityName(activity: Activity, naming: NamingId): string {
  return inNaming(ACTIVITY_NAMES[activity], naming);
}

export const WHO_NAMES: Readonly<Record<Who, string>> = {
  together: 'together',
  'i-go': 'I go, you go',
  'you-go': 'you go first, then check',
};

export const ROLE_NAMES: Readonly<Record<Role, string>> = {
  together: 'Together',
  listen: 'Listen',
  answer: 'Your turn',
  check: 'Check',
};

export const HAND_NAMES: Readonly<Record<HandMove, string>> = { clap: 'clap', push: 'push', open: 'open' };

/** What the teacher can turn up, down and off. */
export const CHANNEL_NAMES: Readonly<Record<Channel, string>> = {
  click: 'Click',
  count: 'Count-in',
  syllables: 'Syllables',
  claps: 'Claps',
  feet: 'Feet',
};

const COUNT_IN_NAMES: Readonly<Record<CountInKind, string>> = {
  measure: 'one {measure}',
  'two-measures': 'two {measure+}',
  'two-beats': 'two beats',
};

export function countInName(kind: CountInKind, naming: NamingId): string {
  return inNaming(COUNT_IN_NAMES[kind], naming);
}

/** "measures 3-4", "measure 2", "line 3", "all". */
export function chunkName(chunk: Pick<Chunk, 'from' | 'to' | 'whole' | 'line'>, naming: NamingId): string {
  const { from, to, whole, line } = chunk;
  if (whole) return 'all';
  if (line !== undefined) return `line ${line}`;
  return inNaming(from === to ? `{measure} ${from}` : `{measure+} ${from}-${to}`, naming);
}

/** "4 min 05 s"; "48 s". */
export function durationText(seconds: Seconds): string {
  const whole = Math.round(seconds);
  const minutes = Math.floor(whole / 60);
  return minutes === 0 ? `${whole} s` : `${minutes} min ${String(whole % 60).padStart(2, '0')} s`;
}

/** As a clock shows it. @example clockText(76)  // "1:16" */
export function clockText(seconds: Seconds): string {
  const whole = Math.round(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}

/** Which parts go: "clap alone", "all together"; nothing where there is one. @param names  of all parts */
export function goingName({ going }: Pick<Section, 'going'>, names: readonly string[]): string {
  if (names.length < 2) return '';
  if (going.length === names.length) return names.length === 2 ? 'both together' : 'all together';
  return `${going.map((part) => names[part]).join(', ')} alone`;
}

/**
 * What is another in the next section: "your turn, measures 3-4, at 72".
 * @param rate   of the run beside the plan
 * @param names  of the parts, where there are several
 */
export function nextText(
  now: Section,
  next: Section,
  rate: number,
  naming: NamingId,
  names: readonly string[] = [],
): string {
  const samePass = next.activity === now.activity && next.pass === now.pass;
  const whose = goingName(next, names);
  const parts = [
    whose === goingName(now, names) ? '' : whose,
    next.role === 'together' ? '' : ROLE_NAMES[next.role].toLowerCase(),
    samePass ? '' : activityName(next.activity, naming),
    next.chunk === now.chunk ? '' : chunkName(next.chunk, naming),
    next.bpm === now.bpm ? '' : `at ${Math.round(next.bpm * rate)}`,
  ];
  return parts.filter(Boolean).join(', ') || 'the same again';
}

/** Why a plan cannot lead a pattern, in one sentence that says what to do, without its full stop. */
export function planTroubleText(trouble: PlanTrouble, naming: NamingId): string {
  switch (trouble.code) {
    case 'no-passes':
      return 'choose at least one pass';
    case 'no-tempo':
      return 'set a tempo';
    case 'tempo':
      return `the tempo must be from ${SLOWEST_BPM} to ${FASTEST_BPM} beats a minute, not ${trouble.bpm}`;
    case 'passes':
      return `each tempo takes 1 to ${MOST_PASSES} passes, and all together no more than ${MOST_PASSES}`;
    case 'rest':
      return `rest from 0 to ${MOST_REST_BEATS} beats between the passes`;
    case 'study':
      return `look at the line for 0 to ${LONGEST_STUDY} whole seconds`;
    case 'range':
      return inNaming(`the pattern has the {measure+} ${trouble.first} to ${trouble.last}: choose among them`, naming);
    case 'joined':
      return inNaming('join by one {measure} or more', naming);
    case 'too-long':
      return inNaming(
        `this run would take ${durationText(trouble.seconds)}: choose fewer passes or {measure+} (at most an hour)`,
        naming,
      );
  }
}
