import type { Seconds } from '../../core/timing/units.ts';

/** Nothing but zeros for so long, from a microphone that never gave such before: it is not there any more; s. */
const DEAD: Seconds = 0.7;
/** Zeros for so long and then sound again: this microphone is silent between sounds, and zeros say nothing; s. */
const SILENT_BETWEEN: Seconds = 0.05;

/**
 * Notices that a microphone gives nothing at all: every real one has some noise. Tell it each block that is heard.
 * @returns told the loudest sample of a block and its length in seconds, whether the microphone is gone
 */
export function deadAir(): (loudest: number, seconds: Seconds) => boolean {
  let zeros = 0;
  let heard = false;
  let silentBetween = false;
  return (loudest, seconds) => {
    if (loudest > 0) {
      if (zeros > SILENT_BETWEEN) silentBetween = true;
      heard = true;
      zeros = 0;
    } else zeros += seconds;
    return heard && !silentBetween && zeros >= DEAD;
  };
}
