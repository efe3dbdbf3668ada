import { ClassListener, hearClass } from '../../core/ensemble/classSound.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import type { CapturedBlock } from '../audio/listenMessages.ts';
import type { ClassPass, TogetherAnswer, TogetherRequest } from '../audio/togetherMessages.ts';

/** So much of what was heard before a pass was begun is still there: its count-in may have sounded already. */
const KEPT_SECONDS = 12;

/** Before the first click so much is heard of the room. */
const BEFORE_SECONDS = 1;

const answer = (message: TogetherAnswer) => postMessage(message);

function patternOf(text: string): Pattern {
  const read = parseRhythm(text);
  if (!read.ok) throw new Error('a rhythm that was led can be read');
  return read.pattern;
}

interface Hearing {
  readonly pass: ClassPass;
  readonly pattern: Pattern;
  readonly listener: ClassListener;
  /** Audio clock at its first sample. */
  readonly zero: number;
}

let sampleRate = 48_000;
let recent: CapturedBlock[] = [];
/** A pass that began before anything was heard. */
let waiting: ClassPass | undefined;
/** The pass that goes, and the one before it, whose last claps ring on. */
const hearings = new Map<string, Hearing>();

function take(block: CapturedBlock): void {
  for (const { listener } of hearings.values()) listener.push(block.samples);
  recent.push(block);
  while (recent.length > 0 && block.time - recent[0]!.time > KEPT_SECONDS) recent.shift();
  if (waiting) begin(waiting);
}

function begin(pass: ClassPass): void {
  // From before its count-in on: there the clicks are learned.
  recent = recent.filter(({ time }) => time > (pass.clicks.times[0] ?? pass.start) - BEFORE_SECONDS);
  const zero = recent[0]?.time;
  // The microphone was opened just now: it begins with the first that is heard.
  waiting = zero === undefined ? pass : undefined;
  if (zero === undefined) return;
  const { times, countIn } = pass.clicks;
  const clicks = { times: times.map((time) => time - zero), countIn };
  const listener = new ClassListener(sampleRate, clicks);
  for (const { samples } of recent) listener.push(samples);
  hearings.set(pass.id, { pass, pattern: patternOf(pass.text), listener, zero });
}

function look(id: string, last: boolean): void {
  const hearing = hearings.get(id);
  if (!hearing) return;
  const { pass, pattern, listener, zero } = hearing;
  if (last) listener.finish();
  const start = pass.start - zero;
  answer({ id, last, heard: listener.hear(pattern, pass.bpm, start), until: listener.heard - start });
  if (last) hearings.delete(id);
}

addEventListener('message', ({ data }: MessageEvent<TogetherRequest>) => {
  switch (data.kind) {
    case 'listen':
      sampleRate = data.sampleRate;
      data.port.onmessage = ({ data: block }: MessageEvent<CapturedBlock>) => take(block);
      return;
    case 'pass':
      return begin(data.pass);
    case 'look':
      return look(data.id, data.last);
    case 'forget':
      hearings.delete(data.id);
      if (waiting?.id === data.id) waiting = undefined;
      return;
    case 'recording': {
      const { id, text, bpm, samples, sampleRate: rate } = data;
      answer({ id, last: true, heard: hearClass(samples, rate, { pattern: patternOf(text), bpm }), until: Infinity });
      return;
    }
  }
});
