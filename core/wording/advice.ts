import { placeText } from './misreadingWords.ts';
import { type TakeResult } from '../judging/takeResult.ts';

export interface Advice {
  /** What went well, first of all. */
  readonly well: string;
  /** At most three sentences; the first is the one thing to fix. Empty when there is nothing. */
  readonly fix: readonly string[];
}

const MOST = 3;

interface Finding {
  readonly measure: number;
  readonly beat: string;
  readonly what: string;
  /** Points it cost. */
  readonly cost: number;
}

/** What to do about a hit where none is written, by where it fell. */
const EXTRA_WORDS: Readonly<Record<TakeResult['extras'][number]['kind'], string>> = {
  rest: 'you clapped in the rest. Open your hands and whisper the count',
  hold: 'you clapped inside a long note. Keep your hands together and push them forward on the beat',
  tie: 'you clapped the tied-on note. It only goes on: keep your hands together',
  bounce: 'one clap was heard as two. Clap once, with relaxed hands',
  after: 'you went on after the end. Stop with your hands open',
  other: 'there was a clap too many. Clap only where a note is written',
};

/** Single slips that no misreading explains, the costliest kind first, each kind once. */
function slips({ notes, extras }: TakeResult): string[] {
  const findings = new Map<string, Finding>();
  const find = (kind: string, at: { measure: number; beat: string }, what: string, cost: number) => {
    const before = findings.get(kind);
    findings.set(
      kind,
      before ? { ...before, cost: before.cost + cost } : { measure: at.measure, beat: at.beat, what, cost },
    );
  };
  for (const extra of extras) find(extra.kind, extra, EXTRA_WORDS[extra.kind], 0.5);
  for (const note of notes) {
    if (note.verdict === 'missed') find('missed', note, 'no clap was heard here. Clap every note', 1);
    else if (note.verdict === 'early') find('early', note, 'too early. Wait for the beat', 0.5);
    else if (note.verdict === 'late') find('late', note, 'too late. Think ahead to the next note', 0.5);
  }
  return [...findings.values()]
    .sort((a, b) => b.cost - a.cost)
    .map(({ measure, beat, what }) => `${placeText(measure, beat)}: ${what}.`);
}

/** What was right, in words for a child. */
function wellDone({ notes, mark, misreadings, accuracy, tempo }: TakeResult): string {
  const right = notes.filter(({ verdict }) => verdict === 'on-time').length;
  if (notes.length === 0) return 'You kept every rest.';
  if (mark === 4 && misreadings.length === 0) return 'Well done: it was right.';
  if (right === notes.length)
    return misreadings.length > 0 ? 'After the slip you went on right in rhythm.' : 'Every note was right in rhythm.';
  const steady = accuracy >= 0.6 && Math.abs(tempo.driftPct) <= 4 ? ' You kept a steady beat.' : '';
  return `${right} of ${notes.length} notes were right on time.${steady}`;
}

/** Plain sentences about a take: what went well, and what was misread; where nothing was misread, the costliest slips. */
export function adviceOn(result: TakeResult): Advice {
  const { notes, extras, misreadings } = result;
  if (notes.length > 0 && notes.every(({ verdict }) => verdict === 'missed') && extras.length === 0) {
    return { well: '', fix: ['Nothing was heard. Tap the space bar or the pad on every note, and try again.'] };
  }
  const fix = misreadings.length > 0 ? misreadings.map(({ sentence }) => sentence) : slips(result);
  return { well: wellDone(result), fix: fix.slice(0, MOST) };
}
