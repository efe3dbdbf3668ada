import type { MutantGroup } from './group.ts';
import { CORE_MUTANTS } from './core.ts';
import { JUDGING_MUTANTS } from './judging.ts';
import { SERVER_MUTANTS } from './server.ts';
import { WEB_MUTANTS } from './web.ts';

/** Breakages that nothing notices, as `npm run mutants` prints them, each with the reason for it; five at most. */
export const SURVIVORS: Readonly<Record<string, string>> = {};

export const MUTANTS: readonly MutantGroup[] = [...CORE_MUTANTS, ...JUDGING_MUTANTS, ...SERVER_MUTANTS, ...WEB_MUTANTS];
