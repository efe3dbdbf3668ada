import { perLanguage, t } from '../../core/words/say.ts';
import { countIn } from '../../core/leading/countIn.ts';
import type { PlayedClicks } from '../../core/listening/playedClicks.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { pulsesOf } from '../../core/timing/pulses.ts';
import { scheduleOf } from '../../core/timing/schedule.ts';
import type { Bpm, Seconds } from '../../core/timing/units.ts';
import type { RunningClock } from '../audio/clickClock.ts';
import type { LiveListener } from '../audio/microphone.ts';
import type { InputMethod } from './inputs/calibration.ts';
import { TapInput, tidyTimes } from './inputs/tapInput.ts';
import type { PlayedSound } from './takePart.ts';
import type { Limb, Taken, Task } from './taken.ts';

export type RunState = 'ready' | 'count-in' | 'playing' | 'done';

/** What the page shows of a run. */
export interface RunMoment {
  readonly state: RunState;
  /** The count-in word of this moment. */
  readonly word: string | undefined;
  readonly taps: number;
  /** Of the second part, where two are heard. */
  readonly second: number;
  /** Loudest sample that the microphone heard lately, 0 to 1; undefined without one. */
  readonly level: number | undefined;
  readonly problem: Error | undefined;
  /** When beat 1 is heard, in milliseconds on the clock of the page's events; undefined before the run has begun. */
  readonly beatOne: number | undefined;
}

/** One take as it is to be heard. */
export interface RunPlan {
  readonly pattern: Pattern;
  readonly bpm: Bpm;
  readonly method: InputMethod;
  readonly task: Task;
  /** Only the count-in is clicked; then the child is alone with its own tempo. */
  readonly free: boolean;
  /** Every other beat is clicked, the first of each measure always. */
  readonly halfClick?: boolean;
  /** Hand over the sound as well. */
  readonly keepSound: boolean;
  /** What the app plays of other parts. */
  readonly others?: readonly PlayedSound[] | undefined;
}

/** What a run needs of the device; in tests all of it is made up. */
export interface RunDevices {
  readonly startClicks: (
    beats: readonly { time: Seconds; accent: boolean }[],
    others: readonly PlayedSound[],
  ) => Promise<RunningClock>;
  /** Opens the microphone: what it needs for that is over before the first click. */
  readonly readyToListen: () => Promise<void>;
  readonly listenLive: (clicks: PlayedClicks, keep: boolean) => Promise<LiveListener>;
  /** How late this device hears. */
  readonly delay: (method: InputMethod) => Seconds;
  /** Milliseconds on the clock of the page's events. */
  readonly pageTime: () => number;
  readonly later: (action: () => void, ms: number) => void;
}

/** Taps count from so many beats before the first note. */
const LISTEN_BEFORE = 1;
/** The run is over so long after the last written time: time for a late last clap. */
const AFTER_BEATS = 1;
const AFTER: Seconds = 0.4;
/** Without a click a child may begin later and be slower: so much longer is listened. “Done” ends it at once. */
const FREE_PART = 0.3;
const FREE_MORE: Seconds = 1.5;
/** The sound clock of a busy machine may slip beside the page's; less than this is not worth telling. */
const SLIP_MS = 6;
/** A clap is known some hundredths of a second after it was heard; the last ones are waited for. */
const HEARD_AFTER: Seconds = 0.15;
const LOOK_MS = 20;

export const MICROPHONE_GONE = perLanguage(
  () => t`The microphone went away in the middle, so nothing of this take is marked. Plug it in
    or wake it and start again, or hear this child by taps.`,
);

const READY: RunMoment = {
  state: 'ready',
  word: undefined,
  taps: 0,
  second: 0,
  level: undefined,
  problem: undefined,
  beatOne: undefined,
};

/** The beats that are clicked; where it is every other one, from the first of each measure on. */
function clicksOf(pattern: Pattern, bpm: Bpm, halfClick = false): { time: Seconds; accent: boolean }[] {
  return pulsesOf(pattern, bpm)
    .filter(({ beat }) => !halfClick || beat % 2 === 0)
    .map(({ time, accent }) => ({ time, accent: accent === 'measure' }));
}

/** Counts in, clicks and collects taps, or claps through the microphone, for one take. */
export class TakeRunner {
  private shown: RunMoment = READY;
  private readonly listeners = new Set<() => void>();
  private running = false;
  /** Counts the runs: what was asked for one that was cancelled meanwhile is not taken for the next. */
  private turn = 0;
  private clock: RunningClock | undefined;
  private microphone: LiveListener | undefined;
  private taps = new TapInput();

  constructor(
    private readonly plan: RunPlan,
    private readonly devices: RunDevices,
    private readonly onDone: (taken: Taken) => void,
    /** Told what there is so far, after every clap: should the page be closed now, that is all. */
    private readonly onProgress: (taken: Taken) => void = () => {},
  ) {}

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly moment = (): RunMoment => this.shown;

  /** From beat 1 of measure 1; undefined when nothing runs. */
  readonly now = (): Seconds | undefined => this.clock?.now();

  readonly start = (): void => {
    if (this.running) return;
    this.running = true;
    this.taps = new TapInput();
    this.show({ ...READY, state: 'count-in' });
    void this.begin(++this.turn);
  };

  /** @param finger  the key or pointer that does it, so that its lifting is known */
  readonly tap = (timeStamp: number, limb: Limb, finger: string): void => {
    if (!this.clock || this.plan.method === 'microphone') return;
    const time = this.clock.at(timeStamp) - this.devices.delay('tap');
    if (time < this.listenFrom) return;
    this.taps.tap(time, limb, finger);
    this.show({ taps: this.taps.count, second: this.taps.second });
    this.onProgress(this.taps.taken(this.plan.task, time));
  };

  readonly lift = (timeStamp: number, finger: string): void => {
    if (this.clock) this.taps.lift(this.clock.at(timeStamp) - this.devices.delay('tap'), finger);
  };

  /** Ends now and hands over what there is. */
  readonly finish = (): void => {
    if (!this.running) return;
    const { clock, microphone } = this;
    const ended = (clock?.now() ?? 0) - this.devices.delay('tap');
    this.microphone = undefined;
    this.stop('done');
    if (microphone && clock?.atContext) void this.handOver(microphone, clock.atContext);
    else this.onDone(this.taps.taken(this.plan.task, ended));
  };

  readonly cancel = (): void => this.stop('ready');

  /** Goes straight to the result: it came from elsewhere. */
  readonly showResult = (): void => this.stop('done');

  /** When the first tap can count. */
  private get listenFrom(): Seconds {
    const { pattern, bpm } = this.plan;
    return countIn(pattern, bpm).at(-1)!.time + ((1 - LISTEN_BEFORE) * 60) / bpm;
  }

  private show(change: Partial<RunMoment>): void {
    const next = { ...this.shown, ...change };
    const same = (Object.keys(next) as (keyof RunMoment)[]).every((key) => Object.is(next[key], this.shown[key]));
    if (same) return;
    this.shown = next;
    for (const listener of this.listeners) listener();
  }

  private stop(state: RunState): void {
    this.running = false;
    this.clock?.stop();
    this.clock = undefined;
    this.microphone?.stop();
    this.microphone = undefined;
    this.show({ state, word: undefined, beatOne: undefined, level: undefined });
  }

  private async begin(turn: number): Promise<void> {
    const { pattern, bpm, free, halfClick, method, keepSound, others = [] } = this.plan;
    const words = countIn(pattern, bpm);
    const beats = free ? words : [...words, ...clicksOf(pattern, bpm, halfClick)];
    let clock: RunningClock | undefined;
    let microphone: LiveListener | undefined;
    try {
      if (method === 'microphone') await this.devices.readyToListen();
      if (!this.running || turn !== this.turn) return;
      clock = await this.devices.startClicks(beats, others);
      if (method === 'microphone') {
        const times = clock.contextTime ? beats.map(({ time }) => clock!.contextTime!(time)) : [];
        microphone = await this.devices.listenLive({ times, countIn: words.length }, keepSound);
      }
    } catch (error) {
      clock?.stop();
      if (turn !== this.turn) return;
      this.stop('ready');
      this.show({ problem: error as Error });
      return;
    }
    if (!this.running || turn !== this.turn) {
      clock.stop();
      microphone?.stop();
      return;
    }
    this.microphone = microphone;
    this.clock = clock;
    this.follow(clock);
  }

  private follow(clock: RunningClock): void {
    const { pattern, bpm, free, method } = this.plan;
    const words = countIn(pattern, bpm);
    const { end } = scheduleOf(pattern, bpm);
    const beat = 60 / bpm;
    const late = Math.max(AFTER_BEATS * beat, AFTER) + (method === 'microphone' ? HEARD_AFTER : 0);
    const over = end + late + (free ? FREE_PART * end + FREE_MORE : 0);
    const last = words.at(-1)!.time + beat;
    const look = () => {
      if (this.clock !== clock) return;
      const now = clock.now();
      const counting = now < last;
      this.show({
        word: counting ? words.findLast(({ time }) => time <= now)?.word : undefined,
        state: counting ? 'count-in' : 'playing',
        // The sound clock needs a moment until it knows the page's clock.
        ...(now > words[0]!.time ? { beatOne: this.beatOneAt(now) } : {}),
      });
      if (this.microphone?.gone()) return this.lose();
      if (this.microphone) this.listenFurther(this.microphone, clock);
      if (now >= over) this.finish();
      else this.devices.later(look, LOOK_MS);
    };
    look();
  }

  /** Half a take is no take: nothing of it is handed over. */
  private lose(): void {
    this.stop('ready');
    this.show({ problem: new Error(MICROPHONE_GONE()) });
  }

  private beatOneAt(now: Seconds): number {
    const one = this.devices.pageTime() - now * 1000;
    const { beatOne } = this.shown;
    return beatOne !== undefined && Math.abs(beatOne - one) < SLIP_MS ? beatOne : one;
  }

  private listenFurther(microphone: LiveListener, { atContext }: RunningClock): void {
    // In steps, so that the page is not drawn for every breath.
    this.show({ level: Math.round(microphone.level() * 20) / 20 });
    const heard = this.inTime(microphone.onsets(), (time) => atContext?.(time) ?? 0);
    if (heard.length === this.shown.taps) return;
    this.show({ taps: heard.length });
    this.onProgress({ onsets: heard });
  }

  /** Onsets of the microphone as times of the take; what came before it is left out. */
  private inTime(onsets: readonly Seconds[], toTake: (contextTime: Seconds) => Seconds): Seconds[] {
    const delay = this.devices.delay('microphone');
    return tidyTimes(onsets.map((time) => toTake(time) - delay).filter((time) => time >= this.listenFrom));
  }

  private async handOver(microphone: LiveListener, toTake: (contextTime: Seconds) => Seconds): Promise<void> {
    const { onsets, outline, sound } = await microphone.finish();
    this.onDone({
      onsets: this.inTime(onsets, toTake),
      outline: { ...outline, from: toTake(outline.from) - this.devices.delay('microphone') },
      ...(sound ? { sound } : {}),
    });
  }
}
