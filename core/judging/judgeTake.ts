import type { Pattern } from '../rhythm/pattern.ts';
import { eventsPlayed } from '../rhythm/place.ts';
import { parseRhythm } from '../rhythm/text.ts';
import type { Bpm, Seconds } from '../timing/units.ts';
import { judge } from './judge.ts';
import type { MarkBorder, Scale } from './scale.ts';
import type { TakeResult } from './takeResult.ts';
import type { TakeTrouble } from './takeTrouble.ts';
import { type WindowSettings, type Windows, windowsOf } from './windows.ts';

/** A take as it was played, with the text of its pattern. */
export interface PlayedTake {
  readonly patternText: string;
  readonly bpm: Bpm;
  readonly onsets: readonly Seconds[];
  readonly start?: Seconds | undefined;
  readonly free?: boolean | undefined;
  readonly feet?: readonly Seconds[] | null | undefined;
  readonly releases?: readonly (Seconds | null)[] | null | undefined;
}

/** How a class judges. */
export interface JudgingSettings extends WindowSettings {
  readonly borders?: readonly MarkBorder[] | null | undefined;
  readonly scale?: Scale | null | undefined;
  /** Keeping the click counts too. */
  readonly clickCounts?: boolean | undefined;
}

export type JudgedTake =
  | { readonly ok: true; readonly result: TakeResult; readonly windows: Windows; readonly pattern: Pattern }
  | { readonly ok: false; readonly trouble: TakeTrouble };

/**
 * Prepares and judges a take: the one way for browser, server and command line, so that all of them say the same.
 * @param read          reads the pattern's text; for those who keep what they have read
 * @param mostCompared  notes times claps; for those who judge for many, and must not be held up by one
 */
export function judgeTake(
  take: PlayedTake,
  settings: JudgingSettings,
  read = parseRhythm,
  mostCompared = Infinity,
): JudgedTake {
  const parsed = read(take.patternText);
  if (!parsed.ok) return { ok: false, trouble: { code: 'unreadable', at: parsed.at } };
  const { bpm, onsets, start, free } = take;
  const { pattern } = parsed;
  const claps = onsets.length + (take.feet?.length ?? 0);
  if (eventsPlayed(pattern) * claps > mostCompared) return { ok: false, trouble: { code: 'too-much' } };
  const windows = windowsOf(settings);
  const judged = judge({
    pattern,
    bpm,
    onsets,
    start,
    free,
    feet: take.feet ?? undefined,
    releases: take.releases ?? undefined,
    windows,
    borders: settings.borders ?? undefined,
    scale: settings.scale ?? undefined,
    clickCounts: settings.clickCounts,
  });
  return judged.ok ? { ...judged, windows, pattern } : judged;
}
