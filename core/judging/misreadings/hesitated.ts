import { type MisreadingKind, shifted } from './hypothesis.ts';
import { laterThanWritten, randomPlace } from './writtenPlaces.ts';

/** A stop is at least so long, in beats: shorter ones are a note held or a rest kept too long. */
const LEAST = 0.7;
/** Nats: as likely as a misread place, and the length of the stop is anything. */
const COST = 7;

/** A gap in the claps that is longer than written, whatever its length; what follows is moved by it. */
export const hesitated: MisreadingKind = {
  about: 'place',
  inTake: (score, take) => {
    const { onsets, claps, hits } = take;
    return claps.flatMap((clap, i) => {
      const hit = hits[i]!;
      const next = claps[i + 1];
      if (hit < 0 || !next || next.note < 0 || next.written <= clap.written || hit + 1 >= onsets.length) return [];
      const event = score.notes[next.note]!;
      const { beat, time: from } = score.events[event]!;
      const seconds = laterThanWritten(take, i);
      if (seconds < LEAST * beat) return [];
      const shift = { from, beats: seconds / beat, seconds };
      return [{ event, cost: COST, apply: (all) => shifted(all, from, seconds), shift }];
    });
  },
  slip: (take, score, random) => {
    const clap = randomPlace(take, random);
    if (!clap) return undefined;
    const event = score.notes[clap.note]!;
    take.claps = shifted(take.claps, clap.written, score.events[event]!.beat * (1 + 3 * random.next()));
    return event;
  },
};
