/**
 * How a run goes through its timetable while it sounds: at what audio time which time of the table is heard. A run that
 * is never touched is one leg; a change of tempo, a jump or a loop begins another.
 */
export interface Leg {
  /** Audio seconds at which it begins. */
  readonly at: number;
  /** Table seconds it covers: from, up to (not including) to. */
  readonly from: number;
  readonly to: number;
  /** Table seconds in one audio second: 0.5 is half speed. */
  readonly rate: number;
}

export type Playback = readonly Leg[];

/** Audio time of a table time that lies in a leg. */
export function audioTime(leg: Leg, table: number): number {
  return leg.at + (table - leg.from) / leg.rate;
}

export function legEnd(leg: Leg): number {
  return audioTime(leg, leg.to);
}

/**
 * What is heard at an audio time; before the first leg its beginning, after the last its end, in a gap where it went
 * on.
 */
export function tableTime(playback: Playback, audio: number): { readonly leg: number; readonly time: number } {
  let index = 0;
  while (index + 1 < playback.length && playback[index + 1]!.at <= audio) index++;
  const leg = playback[index]!;
  return { leg: index, time: Math.min(leg.to, Math.max(leg.from, leg.from + (audio - leg.at) * leg.rate)) };
}

/** From a table time of the last leg on, another rate: what comes before keeps its time. */
export function changeRate(playback: Playback, table: number, rate: number): Playback {
  const last = playback.at(-1)!;
  const from = Math.min(last.to, Math.max(last.from, table));
  return [...playback.slice(0, -1), { ...last, to: from }, { at: audioTime(last, from), from, to: last.to, rate }];
}

/** After the last leg, once more from an earlier table time. */
export function goOn(playback: Playback, from: number, to: number, rate: number): Playback {
  return [...playback, { at: legEnd(playback.at(-1)!), from, to, rate }];
}
