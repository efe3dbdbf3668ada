import { perLanguage, t } from '../words/say.ts';
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

export const ACTIVITY_NAMES = perLanguage((): Readonly<Record<Activity, string>> => ({
  say: t`say the counts`,
  'say-clap': t`say and clap`,
  clap: t`clap, think the counts`,
  play: t`play or tap`,
  backwards: t`backwards`,
  covered: t`clap, one more {measure} covered`,
  echo: t`echo: hear it, clap it back, see it`,
}));

export function activityName(activity: Activity, naming: NamingId): string {
  return inNaming(ACTIVITY_NAMES()[activity], naming);
}

export const WHO_NAMES = perLanguage((): Readonly<Record<Who, string>> => ({
  together: t`together`,
  'i-go': t`I go, you go`,
  'you-go': t`you go first, then check`,
}));

export const ROLE_NAMES = perLanguage((): Readonly<Record<Role, string>> => ({
  together: t`Together`,
  listen: t`Listen`,
  answer: t`Your turn`,
  check: t`Check`,
}));

export const HAND_NAMES = perLanguage((): Readonly<Record<HandMove, string>> => ({
  clap: t`clap`,
  push: t`push`,
  open: t`open`,
}));

/** What the teacher can turn up, down and off. */
export const CHANNEL_NAMES = perLanguage((): Readonly<Record<Channel, string>> => ({
  click: t`Click`,
  count: t`Count-in`,
  syllables: t`Syllables`,
  claps: t`Claps`,
  feet: t`Feet`,
}));

const COUNT_IN_NAMES = perLanguage((): Readonly<Record<CountInKind, string>> => ({
  measure: t`one {measure}`,
  'two-measures': t`two {measure+}`,
  'two-beats': t`two beats`,
}));

export function countInName(kind: CountInKind, naming: NamingId): string {
  return inNaming(COUNT_IN_NAMES()[kind], naming);
}

/** "measures 3-4", "measure 2", "line 3", "all". */
export function chunkName(chunk: Pick<Chunk, 'from' | 'to' | 'whole' | 'line'>, naming: NamingId): string {
  const { from, to, whole, line } = chunk;
  if (whole) return t`all`;
  if (line !== undefined) return t`line ${line}`;
  return inNaming(from === to ? t`{measure} ${from}` : t`{measure+} ${from}-${to}`, naming);
}

/** "4 min 05 s"; "48 s". */
export function durationText(seconds: Seconds): string {
  const whole = Math.round(seconds);
  const minutes = Math.floor(whole / 60);
  return minutes === 0 ? `${whole} s` : t`${minutes} min ${String(whole % 60).padStart(2, '0')} s`;
}

/** As a clock shows it. @example clockText(76)  // "1:16" */
export function clockText(seconds: Seconds): string {
  const whole = Math.round(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}

/** Which parts go: "clap alone", "all together"; nothing where there is one. @param names  of all parts */
export function goingName({ going }: Pick<Section, 'going'>, names: readonly string[]): string {
  if (names.length < 2) return '';
  if (going.length === names.length) return names.length === 2 ? t`both together` : t`all together`;
  return t`${going.map((part) => names[part]).join(', ')} alone`;
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
    next.role === 'together' ? '' : ROLE_NAMES()[next.role].toLowerCase(),
    samePass ? '' : activityName(next.activity, naming),
    next.chunk === now.chunk ? '' : chunkName(next.chunk, naming),
    next.bpm === now.bpm ? '' : t`at ${Math.round(next.bpm * rate)}`,
  ];
  return parts.filter(Boolean).join(', ') || t`the same again`;
}

/** Why a plan cannot lead a pattern, in one sentence that says what to do, without its full stop. */
export function planTroubleText(trouble: PlanTrouble, naming: NamingId): string {
  switch (trouble.code) {
    case 'no-passes':
      return t`choose at least one pass`;
    case 'no-tempo':
      return t`set a tempo`;
    case 'tempo':
      return t`the tempo must be from ${SLOWEST_BPM} to ${FASTEST_BPM} beats a minute, not ${trouble.bpm}`;
    case 'passes':
      return t`each tempo takes 1 to ${MOST_PASSES} passes, and all together no more than ${MOST_PASSES}`;
    case 'rest':
      return t`rest from 0 to ${MOST_REST_BEATS} beats between the passes`;
    case 'study':
      return t`look at the line for 0 to ${LONGEST_STUDY} whole seconds`;
    case 'range':
      return inNaming(t`the pattern has the {measure+} ${trouble.first} to ${trouble.last}: choose among them`, naming);
    case 'joined':
      return inNaming(t`join by one {measure} or more`, naming);
    case 'too-long':
      return inNaming(
        t`this run would take ${durationText(trouble.seconds)}: choose fewer passes or
          {measure+} (at most an hour)`,
        naming,
      );
  }
}
