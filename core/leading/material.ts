import { type CountOptions, countPattern, eventsOf } from '../counting/count.ts';
import type { CountedEvent } from '../counting/countingSystem.ts';
import { sub, toNumber } from '../rhythm/fraction.ts';
import { beatOf } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type PlacedMeasure, placePattern } from '../rhythm/place.ts';
import { type Accent, pulsesOf } from '../timing/pulses.ts';
import { scheduleOf } from '../timing/schedule.ts';
import type { Bpm } from '../timing/units.ts';
import type { Cue, CueKind } from './cue.ts';
import { beatsBefore, footOn, handMoves } from './hands.ts';
import { inWholes, spokenParts } from './spokenParts.ts';

/** A cue before it is given its place in a run; times in whole notes. */
export type CueTemplate = Omit<Cue, 'section' | 'sounds'>;

/** What is led: a pattern with everything that happens in it. Times in whole notes from beat 1 of its measure 1. */
export interface Material {
  readonly pattern: Pattern;
  /** How long its written time is; when its pickup starts. */
  readonly length: number;
  readonly pickup: number;
  readonly cues: readonly CueTemplate[];
}

/** Of what happens at one moment. */
const ORDER: readonly CueKind[] = ['click', 'foot', 'syllable', 'clap', 'tone', 'push', 'open'];

/** What falls on one moment by two ways of adding up gets one time: a billionth of a whole note is no time. */
function tidy(time: number): number {
  return Math.round(time * 1e9) / 1e9;
}

/** The tempo at which a whole note takes one second: times in it are parts of a whole note. */
export function unitBpm(pattern: Pattern): Bpm {
  return 60 / toNumber(beatOf(pattern.measures[0]!.meter).length);
}

/**
 * @param counts   how the class counts
 * @param divided  clicks between the beats too
 */
export function materialOf(pattern: Pattern, counts: CountOptions, divided: boolean): Material {
  const { end, measures } = scheduleOf(pattern, unitBpm(pattern));
  const cues = [...pulseCues(pattern, divided), ...eventCues(pattern, counts)];
  cues.sort((a, b) => a.time - b.time || ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind));
  return { pattern, length: tidy(end), pickup: tidy(Math.min(0, toNumber(measures[0]!.at))), cues };
}

interface Details {
  readonly seconds?: number;
  readonly text?: string;
  readonly whispered?: boolean;
  readonly accent?: Accent;
}

function cue(kind: CueKind, time: number, details: Details = {}): CueTemplate {
  const { seconds = 0, text = '', whispered = false, accent = 'beat' } = details;
  return { time: tidy(time), seconds, kind, text, accent, whispered };
}

/** The clicks, and a step on each beat. */
function pulseCues(pattern: Pattern, divided: boolean): CueTemplate[] {
  const before = beatsBefore(placePattern(pattern));
  return pulsesOf(pattern, unitBpm(pattern), divided).flatMap(({ time, accent, played, beat }) => {
    const click = cue('click', time, { accent });
    return accent === 'division' ? [click] : [click, cue('foot', time, { text: footOn(before[played]!, beat) })];
  });
}

/** Everything said and clapped. */
function eventCues(pattern: Pattern, counts: CountOptions): CueTemplate[] {
  const placed = placePattern(pattern);
  const counted = countPattern(pattern, counts);
  const events = eventsOf(placed);
  return scheduleOf(pattern, unitBpm(pattern)).measures.flatMap(({ at, measure }, m) => {
    const bar = toNumber(sub(at, measure.onset));
    return events[m]!.flatMap((event, i) => {
      const token = counted.ok ? counted.measures[m]!.tokens[i]!.text : '';
      return [...syllables(event, token, bar), ...hands(event, bar, () => tiedLength(placed, m, i))];
    });
  });
}

const inNotes = (beats: CountedEvent['onset'], event: CountedEvent) => toNumber(inWholes(beats, event));

function syllables(event: CountedEvent, token: string, bar: number): CueTemplate[] {
  return spokenParts(event, token).map(({ at, length, text, whispered }) =>
    cue('syllable', bar + inNotes(at, event), { seconds: inNotes(length, event), text, whispered }),
  );
}

/** What the hands do, and the tone of an instrument. @param more  how much longer it sounds through tied notes */
function hands(event: CountedEvent, bar: number, more: () => number): CueTemplate[] {
  const time = bar + inNotes(event.onset, event);
  const length = inNotes(event.length, event);
  if (event.kind === 'rest') return [cue('open', time, { seconds: length })];
  // Where the hands push: the beats a held note sounds through.
  const place = event.onset.n / event.onset.d;
  const first = event.kind === 'tied' ? Math.ceil(place) : Math.floor(place) + 1;
  const pushes = handMoves(event).filter((move) => move === 'push');
  const pushed = pushes.map((_, k) => cue('push', bar + inNotes({ n: first + k, d: 1 }, event)));
  return event.kind === 'note'
    ? [cue('clap', time), cue('tone', time, { seconds: length + more() }), ...pushed]
    : pushed;
}

/** How much longer a note sounds through the notes tied to it. */
function tiedLength(placed: readonly PlacedMeasure[], m: number, i: number): number {
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
