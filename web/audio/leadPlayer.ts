import { EPSILON } from '../../core/timing/tolerance.ts';
import { type Playback, audioTime, changeRate, goOn, legEnd, tableTime } from '../../core/leading/playback.ts';
import type { Cue } from '../../core/leading/cue.ts';
import { type MeasureStart, lastAt, measureStarts } from '../../core/leading/moment.ts';
import type { Timetable } from '../../core/leading/timetable.ts';
import { countIn } from '../../core/leading/countIn.ts';
import { play } from './clickClock.ts';
import { heardAt } from './context.ts';
import type { Mixer } from './mixer.ts';
import type { SoundBank } from './soundBank.ts';
import { soundOf } from '../../core/leading/cueSounds.ts';

/**
 * Sounds are given to the audio clock this long before they are due, so that a page in the background, whose timers run
 * once a second, is never late.
 */
const AHEAD = 6;
const EVERY_MS = 250;
/** From pressing a key to the first sound. */
const SOON = 0.15;

/** Gives the cues of a stretch of table time to the audio clock. Also used to render a run without playing it. */
export function schedule(
  context: BaseAudioContext,
  bank: SoundBank,
  mixer: Mixer,
  cues: readonly Cue[],
  clapAs: 'clap' | 'wood',
  at: (cue: Cue) => number,
): { source: AudioBufferSourceNode; time: number }[] {
  return cues.flatMap((cue) => {
    const found = soundOf(cue, clapAs);
    const ready = found && bank.get(found.sound);
    if (!found || !ready) return [];
    const time = at(cue);
    return [
      {
        source: play(
          context,
          ready.buffer,
          mixer.into(found.channel, found.sound.kind === 'word' && found.sound.whispered),
          time - ready.lead,
        ),
        time,
      },
    ];
  });
}

/** What can be seen of a player; the player alone knows it. */
export interface PlayerState {
  readonly state: 'stopped' | 'running' | 'paused';
  /** 1 is the tempo of the plan. */
  readonly rate: number;
  readonly loops: boolean;
}

const MIN_RATE = 0.25;
const MAX_RATE = 4;

/** Plays a timetable on the audio clock. Everything it says about time is what is being heard. */
export class LeadPlayer {
  private playback: Playback = [];
  /** Table time up to which the last leg has been given to the audio clock. */
  private given = 0;
  private sources: { source: AudioBufferSourceNode; time: number }[] = [];
  private timer: ReturnType<typeof setInterval> | undefined;
  private readonly starts: readonly MeasureStart[];
  /** The count-in that leads to where it was begun or jumped to, by audio time. */
  private entry: { words: readonly { at: number; text: string }[]; end: number } | undefined;
  private pausedAt: number | undefined;
  private looping: { from: number; to: number } | undefined;
  private speed = 1;
  private readonly listeners = new Set<() => void>();
  private shown: PlayerState = { state: 'stopped', rate: 1, loops: false };

  constructor(
    private readonly context: AudioContext,
    private readonly bank: SoundBank,
    private readonly mixer: Mixer,
    private readonly table: Timetable,
    private readonly clapAs: 'clap' | 'wood',
  ) {
    this.starts = measureStarts(table);
  }

  get running(): boolean {
    return this.timer !== undefined;
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** What can be seen of it: another object whenever something changes. */
  readonly state = (): PlayerState => this.shown;

  /** Table time that is heard now. */
  now(): number {
    if (this.pausedAt !== undefined) return this.pausedAt;
    return this.playback.length === 0 ? 0 : tableTime(this.playback, heardAt(this.context, performance.now())).time;
  }

  /** When a table time sounds, or sounded last, on the audio clock, and how fast; undefined where it is not played. */
  audioAt(time: number): { readonly at: number; readonly rate: number } | undefined {
    const leg = this.running
      ? this.playback.findLast(({ from, to }) => from <= time + EPSILON && time < to)
      : undefined;
    return leg && { at: audioTime(leg, time), rate: leg.rate };
  }

  /** The word of the count-in before a place inside a pass, while it sounds; it is in no timetable. */
  countingIn(): string | undefined {
    if (this.entry === undefined || !this.running) return undefined;
    const time = heardAt(this.context, performance.now());
    if (time >= this.entry.end) return undefined;
    return this.entry.words.findLast(({ at }) => at <= time)?.text ?? '';
  }

  /** Everything has been heard. */
  get over(): boolean {
    const last = this.playback.at(-1);
    return (
      this.running &&
      last !== undefined &&
      last.to >= this.table.seconds - 1e-9 &&
      heardAt(this.context, performance.now()) >= legEnd(last)
    );
  }

  /** Begins at a table time; inside a pass it is counted in again. */
  start(from = 0): void {
    this.silence(-Infinity);
    const begin = this.context.currentTime + SOON;
    const entry = this.leadIn(from, begin);
    this.playback = [{ at: entry, from, to: this.looping?.to ?? this.table.seconds, rate: this.speed }];
    this.given = from;
    this.pausedAt = undefined;
    this.timer ??= setInterval(() => this.pump(), EVERY_MS);
    this.pump();
    this.tell();
  }

  pause(): void {
    if (!this.running) return;
    const now = this.now();
    this.end();
    this.pausedAt = this.starts[lastAt(this.starts, now + EPSILON)]?.time ?? 0;
    this.tell();
  }

  resume(): void {
    this.start(this.pausedAt ?? 0);
  }

  stop(): void {
    this.end();
    this.tell();
  }

  private end(): void {
    clearInterval(this.timer);
    this.timer = undefined;
    this.silence(-Infinity);
  }

  private tell(): void {
    const state = this.running ? 'running' : this.pausedAt === undefined ? 'stopped' : 'paused';
    this.shown = { state, rate: this.speed, loops: this.looping !== undefined };
    for (const listener of this.listeners) listener();
  }

  /** 1 is the tempo of the plan; the change comes with the next measure. */
  setRate(wanted: number): void {
    this.speed = Math.min(MAX_RATE, Math.max(MIN_RATE, wanted));
    this.tell();
    if (!this.running) return;
    const rate = this.speed;
    const heard = tableTime(this.playback, this.context.currentTime + SOON);
    const next = this.playback[heard.leg + 1];
    const bar = this.starts[lastAt(this.starts, heard.time) + 1]?.time ?? Infinity;
    if (next) {
      // A turn lies ahead already: what comes after it takes the new tempo.
      this.silence(next.at);
      this.playback = [
        ...this.playback.slice(0, heard.leg + 1),
        { at: next.at, from: next.from, to: this.looping?.to ?? this.table.seconds, rate },
      ];
      this.given = next.from;
    } else if (bar < this.playback.at(-1)!.to) {
      this.silence(audioTime(this.playback.at(-1)!, bar));
      this.playback = changeRate(this.playback, bar, rate);
      this.given = bar;
    }
    this.pump();
  }

  /** Goes to a table time; while paused only the place changes. */
  jump(to: number): void {
    if (this.running) this.start(to);
    else this.pausedAt = to;
  }

  /** Again and again from one table time to another; undefined lets the run go on. */
  loop(range: { from: number; to: number } | undefined): void {
    this.looping = range;
    this.tell();
    if (!this.running) return;
    const now = this.now();
    const to = range && now < range.to ? range.to : this.table.seconds;
    const { leg, time } = tableTime(this.playback, this.context.currentTime);
    const kept = this.playback[leg]!;
    const nowAt = this.context.currentTime;
    this.silence(nowAt);
    this.playback = [{ at: nowAt, from: time, to, rate: kept.rate }];
    this.given = time;
    this.pump();
  }

  /** Clicks and words of a count-in before a place inside a pass. @returns audio time of the place */
  private leadIn(from: number, begin: number): number {
    const { section, measure, time } = this.starts[Math.max(0, lastAt(this.starts, from + EPSILON))]!;
    this.entry = undefined;
    if (measure === 0 && Math.abs(time - from) < 1e-3) return begin;
    const { pattern, bpm } = this.table.sections[section]!;
    const beats = countIn({ pickup: false, measures: pattern.measures.slice(measure) }, bpm);
    const first = beats[0]!.time;
    const cue = (kind: 'click' | 'count-in', index: number): Cue => ({
      time: (beats[index]!.time - first) / this.speed,
      seconds: 0,
      kind,
      section,
      text: beats[index]!.word,
      accent: beats[index]!.accent ? 'measure' : 'beat',
      whispered: false,
      sounds: true,
    });
    const cues = beats.flatMap((_, i) => [cue('click', i), cue('count-in', i)]);
    this.sources.push(
      ...schedule(this.context, this.bank, this.mixer, cues, this.clapAs, ({ time: at }) => begin + at),
    );
    const end = begin - first / this.speed;
    const words = beats.map(({ time: at, word }) => ({ at: begin + (at - first) / this.speed, text: word }));
    this.entry = { words, end };
    return end;
  }

  private pump(): void {
    const horizon = this.context.currentTime + AHEAD;
    for (let guard = 0; guard < 64; guard++) {
      const leg = this.playback.at(-1)!;
      const until = Math.min(leg.to, leg.from + (horizon - leg.at) * leg.rate);
      if (until > this.given) {
        const { cues } = this.table;
        const due = cues.slice(lastAt(cues, this.given - 1e-9) + 1, lastAt(cues, until - 1e-9) + 1);
        this.sources.push(
          ...schedule(this.context, this.bank, this.mixer, due, this.clapAs, ({ time }) => audioTime(leg, time)),
        );
        this.given = until;
      }
      if (until < leg.to - 1e-9 || !this.looping || legEnd(leg) > horizon) break;
      this.playback = goOn(this.playback, this.looping.from, this.looping.to, this.speed);
      this.given = this.looping.from;
    }
    const past = this.context.currentTime - 5;
    this.sources = this.sources.filter(({ time }) => time > past);
  }

  /** Takes back what has not begun by an audio time. */
  private silence(from: number): void {
    for (const { source, time } of this.sources) if (time >= from) source.stop();
    this.sources = this.sources.filter(({ time }) => time < from);
  }
}
