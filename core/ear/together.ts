import type { Pattern } from '../rhythm/pattern.ts';
import { type ScheduledEvent, scheduleOf } from '../timing/schedule.ts';
import type { Bpm, Seconds } from '../timing/units.ts';

/** How a class clapped a pattern together, as a microphone heard it. */
export interface Together {
  /** Notes that were clapped, of how many. */
  readonly clapped: number;
  readonly notes: number;
  /** Rests in which nobody clapped, of how many. */
  readonly quietRests: number;
  readonly rests: number;
  /** Indices of the notes that nobody clapped, and the first of the rests that were not silent, in playing order. */
  readonly missed: readonly number[];
  readonly clappedRest?: ScheduledEvent;
  /** From the first hand to the last at one note, in the middle of all notes; undefined where nothing was heard. */
  readonly spreadMs: number | undefined;
  /** How much later than written the class was in the middle; early is below 0. */
  readonly leadMs: number | undefined;
  /** 0 to 1: notes clapped and rests kept. */
  readonly accuracy: number;
}

/** Hands of a whole class at one note arrive within this, either side; closer notes share what is between them. */
const WIDEST: Seconds = 0.18;
/** What the class's own delay may be: it follows the beat by ear. */
const MOST_LEAD: Seconds = 0.25;
const LEAD_STEP: Seconds = 0.01;
/** Less of a rest than this is not looked at: the hands before and after it reach into it. */
const SHORTEST_REST: Seconds = 0.1;
/** From here on a class is together for the ear: hands further apart are heard one by one. */
export const TOGETHER_MS = 90;
const WELL = 0.85;

function median(of: readonly number[]): number | undefined {
  const sorted = [...of].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)];
}

/** Half the way to the next note on each side, at most the widest. */
function reach(times: readonly Seconds[], i: number): { before: Seconds; after: Seconds } {
  const gap = (other: Seconds | undefined) =>
    other === undefined ? WIDEST : Math.min(WIDEST, Math.abs(other - times[i]!) / 2);
  return { before: gap(times[i - 1]), after: gap(times[i + 1]) };
}

function handsAt(times: readonly Seconds[], onsets: readonly Seconds[], lead: Seconds): Seconds[][] {
  return times.map((time, i) => {
    const { before, after } = reach(times, i);
    return onsets.filter((onset) => onset - lead >= time - before && onset - lead < time + after);
  });
}

/** The delay with which most claps fall close to notes. */
function leadOf(times: readonly Seconds[], onsets: readonly Seconds[]): Seconds {
  let best = { lead: 0, score: -Infinity };
  for (let lead = -MOST_LEAD; lead <= MOST_LEAD; lead += LEAD_STEP) {
    const near = onsets.reduce((sum, onset) => {
      const off = Math.min(...times.map((time) => Math.abs(onset - lead - time)));
      return sum + Math.max(0, 1 - off / WIDEST);
    }, 0);
    const score = near - Math.abs(lead);
    if (score > best.score) best = { lead, score };
  }
  return best.lead;
}

/**
 * How a whole class clapped a pattern: a note is clapped where hands are heard near it, a rest is kept where none are.
 * @param onsets  seconds from beat 1 of measure 1, as the microphone heard them
 */
export function heardTogether(pattern: Pattern, bpm: Bpm, onsets: readonly Seconds[]): Together {
  const { notes, events } = scheduleOf(pattern, bpm);
  const times = notes.map(({ time }) => time);
  const lead = onsets.length === 0 || times.length === 0 ? 0 : leadOf(times, onsets);
  const hands = handsAt(times, onsets, lead);
  const missed = hands.flatMap((heard, i) => (heard.length === 0 ? [i] : []));
  const taken = new Set(hands.flat());
  const rests = silences(events).filter(({ from, to }) => to - from > SHORTEST_REST + WIDEST);
  const loud = rests.filter(({ from, to }) =>
    onsets.some((onset) => !taken.has(onset) && onset - lead > from - WIDEST / 2 && onset - lead < to),
  );
  const apart = hands.flatMap((heard) => (heard.length === 0 ? [] : [Math.max(...heard) - Math.min(...heard)]));
  const spread = median(apart);
  const middles = hands.flatMap((heard, i) => (heard.length === 0 ? [] : [median(heard)! - times[i]!]));
  const all = times.length + rests.length;
  const [first] = loud;
  const middle = median(middles);
  return {
    clapped: times.length - missed.length,
    notes: times.length,
    quietRests: rests.length - loud.length,
    rests: rests.length,
    missed,
    ...(first ? { clappedRest: first.rest } : {}),
    spreadMs: spread === undefined ? undefined : Math.round(spread * 1000),
    leadMs: middle === undefined ? undefined : Math.round(middle * 1000),
    accuracy: all === 0 ? 0 : (times.length - missed.length + rests.length - loud.length) / all,
  };
}

/** Rests in a row are one silence. */
function silences(events: readonly ScheduledEvent[]): { rest: ScheduledEvent; from: Seconds; to: Seconds }[] {
  const found: { rest: ScheduledEvent; from: Seconds; to: Seconds }[] = [];
  for (const event of events) {
    if (event.event.kind !== 'rest') continue;
    const last = found.at(-1);
    if (last && Math.abs(last.to - event.time) < 1e-9) found[found.length - 1] = { ...last, to: event.end };
    else found.push({ rest: event, from: event.time, to: event.end });
  }
  return found;
}

/** Good enough to go a step further. */
export function wentWell({ accuracy, notes }: Together): boolean {
  return notes > 0 && accuracy >= WELL;
}
