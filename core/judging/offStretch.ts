import { MISREADINGS } from './misreadings/table.ts';
import type { Score } from './scoreEvents.ts';
import type { JudgedNote, Misreading } from './takeResult.ts';

/** Notes in a row that did not come where they should: with fewer, each is a slip of its own. */
const FEWEST = 4;
/** Right again after it for so many notes at least, and so few others wrong in the take. */
const RIGHT_AFTER = 2;
const OTHERS = 1;

/** A run of notes that were not on time. */
function longestRun(notes: readonly JudgedNote[]): { readonly from: number; readonly to: number } {
  let best = { from: 0, to: -1 };
  let from = 0;
  notes.forEach(({ verdict }, i) => {
    if (verdict === 'on-time') from = i + 1;
    else if (i - from > best.to - best.from) best = { from, to: i };
  });
  return best;
}

/**
 * A stretch in which note after note came early and late, or not at all, where nothing else was misread: the child was
 * lost there, though each clap was near enough to a note to belong to it. All early or all late is a tempo that sagged
 * for a moment, and nobody is lost in it.
 */
export function offStretch(
  notes: readonly JudgedNote[],
  { events, notes: written }: Score,
  misreadings: readonly Misreading[],
): Misreading | undefined {
  if (misreadings.some(({ code, instead }) => !instead && MISREADINGS[code].ofTempo !== true)) return undefined;
  const { from, to } = longestRun(notes);
  const stretch = notes.slice(from, to + 1);
  const verdicts = new Set(stretch.map(({ verdict }) => verdict));
  const others = notes.filter(({ verdict }) => verdict !== 'on-time').length - stretch.length;
  if (stretch.length < FEWEST || verdicts.size < 2 || others > OTHERS) return undefined;
  if (from === 0 || notes.length - to - 1 < RIGHT_AFTER) return undefined;
  const event = written[from]!;
  return {
    code: 'lost-and-recovered',
    event,
    ...events[event]!.source.place,
    until: events[written[to + 1]!]!.source.place,
  };
}
