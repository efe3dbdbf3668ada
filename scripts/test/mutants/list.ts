import type { MutantGroup } from './group.ts';
import { CORE_MUTANTS } from './core.ts';
import { JUDGING_MUTANTS } from './judging.ts';
import { SERVER_MUTANTS } from './server.ts';
import { WEB_MUTANTS } from './web.ts';

/** Breakages that nothing notices, as `npm run mutants` prints them, each with the reason for it; five at most. */
export const SURVIVORS: Readonly<Record<string, string>> = {
  'core/ear/otherWays.ts: seen.has(text) || soundKey(other) !== sound → seen.has(text)':
    'every way that is proposed today sounds the same; the check is there for a row that would not',
  'core/listening/playedClicks.ts: Math.abs(best - middle) * STEP <= AGREE / 2 → true':
    'in every recording that is tried the clicks of the count-in agree, or too few rise at all',
};

export const MUTANTS: readonly MutantGroup[] = [...CORE_MUTANTS, ...JUDGING_MUTANTS, ...SERVER_MUTANTS, ...WEB_MUTANTS];
