import { MISREADINGS } from './misreadings/table.ts';
import type { Score } from './scoreEvents.ts';
import type { JudgedNote, Misreading } from './takeResult.ts';

/** Notes that did not come where they should: with fewer, each is a slip of its own, or follows a tempo that bends. */
const FEWEST = { steady: 3, bent: 4 };
/** Right again after it for so many notes at least, and so few others wrong in the take. */
const RIGHT_AFTER = 2;
const OTHERS = 1;

interface Run {
  readonly from: number;
  readonly to: number;
  readonly wrong: number;
}

/** The most notes that were not on time, with at most so many in a row between them that were. */
function longestRun(notes: readonly JudgedNote[], between: number): Run {
  const none = { from: 0, to: -1, wrong: 0 };
  let [best, now]: [Run, Run] = [none, none];
  notes.forEach(({ verdict }, i) => {
    if (verdict === 'on-time') return;
    const goesOn = now.wrong > 0 && i - now.to <= 1 + between;
    now = goesOn ? { ...now, to: i, wrong: now.wrong + 1 } : { from: i, to: i, wrong: 1 };
    if (now.wrong > best.wrong) best = now;
  });
  return best;
}

/**
 * A stretch in which note after note came early and late, or not at all, where nothing else was misread: the child was
 * lost there, though each clap was near enough to a note to belong to it, and one by chance on it. All early or all
 * late is a tempo that sagged for a moment, and nobody is lost in it.
 */
export function offStretch(
  notes: readonly JudgedNote[],
  { events, notes: written }: Score,
  misreadings: readonly Misreading[],
): Misreading | undefined {
  const named = misreadings.filter(({ instead }) => !instead);
  if (named.some(({ code }) => MISREADINGS[code].ofTempo !== true)) return undefined;
  // In a tempo that bends one note after the other is off; then it must be a run of them.
  const isBent = named.length > 0;
  const { from, to, wrong } = longestRun(notes, isBent ? 0 : 1);
  const verdicts = new Set(notes.slice(from, to + 1).map(({ verdict }) => verdict));
  verdicts.delete('on-time');
  if (wrong < FEWEST[isBent ? 'bent' : 'steady'] || verdicts.size < 2) return undefined;
  const others = notes.filter(({ verdict }) => verdict !== 'on-time').length - wrong;
  if (others > OTHERS || from === 0 || notes.length - to - 1 < RIGHT_AFTER) return undefined;
  const event = written[from]!;
  return {
    code: 'lost-and-recovered',
    event,
    ...events[event]!.source.place,
    until: events[written[to + 1]!]!.source.place,
  };
}
