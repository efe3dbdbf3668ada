import type { TakeResult } from './judge.ts';

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
  rest: 'you clapped on the rest. Open your hands and whisper the count',
  hold: 'you clapped inside a long note. Keep your hands together and push them forward on the beat',
  tie: 'you clapped the tied-on note. It only goes on: keep your hands together',
  bounce: 'one clap was heard as two. Clap once, with relaxed hands',
  after: 'you went on after the end. Stop with your hands open',
  other: 'there was a clap too many. Clap only where a note is written',
};

function place({ measure, beat }: { measure: number; beat: string }): string {
  return measure === 0 ? `Pickup, beat ${beat}` : `Measure ${measure}, beat ${beat}`;
}

/** Plain sentences about a take: what went well, and the costliest slips first, each kind of slip once. */
export function adviceOn({ notes, extras, tempo, mark }: TakeResult): Advice {
  const right = notes.filter(({ verdict }) => verdict === 'on-time').length;
  if (notes.length > 0 && notes.every(({ verdict }) => verdict === 'missed') && extras.length === 0) {
    return { well: '', fix: ['Nothing was heard. Tap the space bar or the pad on every note, and try again.'] };
  }
  const findings = new Map<string, Finding>();
  const find = (kind: string, at: { measure: number; beat: string }, what: string, cost: number) => {
    const before = findings.get(kind);
    findings.set(kind, before ? { ...before, cost: before.cost + cost } : { measure: at.measure, beat: at.beat, what, cost });
  };
  for (const extra of extras) find(extra.kind, extra, EXTRA_WORDS[extra.kind], 0.5);
  const lastHeard = notes.findLastIndex(({ verdict }) => verdict !== 'missed');
  notes.forEach((note, i) => {
    if (note.verdict === 'missed' && i > lastHeard && notes.length - lastHeard > 2) find('stopped', note, 'you stopped here. Keep going to the end, even after a slip', 1);
    else if (note.verdict === 'missed') find('missed', note, 'no clap was heard here. Clap every note', 1);
    else if (note.verdict === 'early') find('early', note, 'too early. Wait for the beat', 0.5);
    else if (note.verdict === 'late') find('late', note, 'too late. Think ahead to the next note', 0.5);
  });
  const fix = [...findings.values()].sort((a, b) => b.cost - a.cost).map((finding) => `${place(finding)}: ${finding.what}.`);
  if (Math.abs(tempo.driftPct) > 4) fix.push(tempo.driftPct > 0 ? 'You got faster. Keep your feet with the click.' : 'You got slower. Keep your feet with the click.');
  const well = notes.length === 0 ? 'You kept every rest.' : mark === 4 ? 'Well done: it was right.' : `${right} of ${notes.length} notes were right on time.`;
  return { well, fix: fix.slice(0, MOST) };
}
