import { perLanguage, t } from '../../core/words/say.ts';
import { availableParallelism } from 'node:os';
import { Piscina } from 'piscina';
import type { Adaptations } from '../../contract/child.ts';
import type { JudgingSettings, PlayedTake } from '../../core/judging/judgeTake.ts';
import type { NamingId } from '../../core/wording/valueNames.ts';
import { Problem } from '../problem.ts';
import type { Judgement } from '../repository/takes.ts';
import { turnsOf } from '../turns.ts';
import { workerFile } from '../workerFile.ts';

/** What judging and its words need of a class. */
export type JudgingClass = JudgingSettings & {
  readonly naming?: NamingId | undefined;
  /** What is made easier for the child. */
  readonly adaptations?: Adaptations | null | undefined;
};

/** A take, and how its class judges. */
export interface PlayedInClass {
  readonly played: PlayedTake;
  readonly settings: JudgingClass;
}

/** The columns that judging fills, or why the take cannot be judged. */
export type Tried = Judgement | { readonly trouble: string };

/** Threads in which takes are judged, so that the server answers everybody meanwhile. */
export interface Judges {
  /**
   * @param owner  takes turns with the others: a teacher, or the server itself
   * @returns a judgement for each take, in their order
   */
  readonly judge: (owner: string, takes: readonly PlayedInClass[]) => Promise<Tried[]>;
  /** Makes judging fast before the first take comes. */
  readonly warmUp: () => Promise<void>;
  readonly close: () => Promise<void>;
}

/** Two at least, so that one long take holds up nobody else. */
const THREADS = Math.max(2, availableParallelism());
/** Whole classes that send all their takes at once still have their turn. */
const MOST_WAITING = 600;
const MOST_WAITING_OF_ALL = 2_000;
/** The longest take that is judged at all needs a tenth of it. */
const LIMIT_MS = 10_000;
/** For each take of a job. */
const MORE_MS = 100;
const IDLE_MS = 10 * 60_000;

/** Takes with slips of each kind: judging is many times faster when it has been done some times. */
const WARM_UP: readonly PlayedInClass[] = Array.from({ length: 24 }, (_, i) => ({
  settings: { ages: '9-10' },
  played: {
    patternText: '4/4 q e e q (q) | q. e h',
    bpm: 60 + i,
    onsets: [0, 1, 1.5, 2, 4, 5.5, 6]
      .filter((_onset, k) => k !== i % 9)
      .map((onset, k) => (onset + (k % 3) * 0.03) * (60 / (60 + i))),
  },
}));

const TOO_LONG = perLanguage(
  () =>
    new Problem(503, 'busy', t`Judging this take takes too long just now. It is kept on this device and tried again.`),
);

export function judgesWith(limitMs = LIMIT_MS): Judges {
  const pool = new Piscina({
    // Built for some tests elsewhere.
    ...workerFile(new URL('./judge.worker.ts', import.meta.url), process.env['JUDGE_WORKER']),
    minThreads: 0,
    maxThreads: THREADS,
    idleTimeout: IDLE_MS,
    maxQueue: MOST_WAITING_OF_ALL,
    // Nothing of the server's environment is needed there.
    env: {},
  });
  const turns = turnsOf(1, MOST_WAITING);
  let ready: Promise<unknown> | undefined;
  // The first job waits until a thread has read the judging; that is not the take's fault.
  const readied = (first: readonly PlayedInClass[]) => (ready ??= pool.run(first).catch(() => undefined));
  return {
    warmUp: async () => void (await readied(WARM_UP)),
    judge: (owner, takes) =>
      turns(owner, async () => {
        await readied([]);
        const signal = AbortSignal.timeout(limitMs + takes.length * MORE_MS);
        try {
          return (await pool.run(takes, { signal })) as Tried[];
        } catch (error) {
          throw signal.aborted ? TOO_LONG() : error;
        }
      }),
    close: () => pool.destroy(),
  };
}
