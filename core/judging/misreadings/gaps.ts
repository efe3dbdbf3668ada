import type { Random } from '../../random.ts';
import { EPSILON } from '../../timing/tolerance.ts';
import type { Beats } from '../../timing/units.ts';
import type { Score, ScoreEvent } from '../scoreEvents.ts';
import {
  type HeardSoFar,
  type Hypothesis,
  type MisreadingKind,
  type SlippingTake,
  shiftAfter,
  shifted,
} from './hypothesis.ts';
import { laterThanWritten } from './writtenPlaces.ts';

/** Nats: as likely as a misread place; how much time it got is anything. */
const COST = 6.5;
/** Beats: less is unsteadiness. */
const LEAST = 0.3;
/** Beats: nearer to a half or a third than this it is meant to be just that. */
const NEAR = 0.13;
/** Beats: a rest that got no more got none at all. */
const NOTHING = 0.2;
/** So many claps before the first strange thing, and after it, it may have begun. */
const BEFORE = 2;
const AFTER = 2;

/** What stands between two claps and can get another time than its own: one rest, or one long note. */
type Standing = 'rest' | 'hold';

function between(
  { events, notes }: Score,
  note: number,
): { readonly event: number; readonly kind: Standing } | undefined {
  const [from, to] = [notes[note]!, notes[note + 1]];
  if (to === undefined) return undefined;
  const inside = events.slice(from + 1, to);
  if (inside.length === 1 && inside[0]!.kind === 'rest') return { event: from + 1, kind: 'rest' };
  return inside.length === 0 && isLong(events[from]!) ? { event: from, kind: 'hold' } : undefined;
}

/** A note so long that its beats have to be counted. */
export const isLong = ({ kind, beats }: ScoreEvent): boolean => kind !== 'rest' && beats > 2 - EPSILON;

/** To the half beat, in compound meter to the third, where it is near to one. */
function meant(beats: Beats, division: number): Beats {
  const nearest = Math.round(beats * division) / division;
  return Math.abs(nearest - beats) < NEAR ? nearest : beats;
}

/** Rests, or long notes, that got only part of their time: the take shows which, and how much. */
export function cutShort(standing: Standing): (score: Score, take: HeardSoFar) => Hypothesis[] {
  return (score, take) => {
    const { onsets, claps, hits, first } = take;
    return claps.flatMap((clap, i): Hypothesis[] => {
      const [hit, next] = [hits[i]!, claps[i + 1]];
      if (i < first - BEFORE || i >= first + AFTER || hit < 0 || hit + 1 >= onsets.length) return [];
      if (clap.note < 0 || next?.note !== clap.note + 1) return [];
      const place = between(score, clap.note);
      if (place?.kind !== standing) return [];
      const event = score.events[place.event]!;
      const less = meant(-laterThanWritten(take, i) / event.beat, event.division);
      if (less < LEAST || event.beats - less < NOTHING) return [];
      return [shiftAfter(place.event, COST, event, -less)];
    });
  };
}

/** A rest of a beat or more gets some of its half beats. */
function slip(take: SlippingTake, score: Score, random: Random): number | undefined {
  const places = score.notes.flatMap((_event, note) => {
    const place = between(score, note);
    return place?.kind === 'rest' && score.events[place.event]!.beats >= 1 ? [place.event] : [];
  });
  if (places.length === 0) return undefined;
  const event = random.pick(places);
  const { end, beat, beats } = score.events[event]!;
  const halves = 1 + random.below(Math.max(1, Math.round(2 * beats) - 1));
  take.claps = shifted(take.claps, end, -(halves / 2) * beat);
  return event;
}

/** Gave a rest only part of its time. */
export const restTooShort: MisreadingKind = { about: 'place', noHabit: true, inTake: cutShort('rest'), slip };
