import { type Fraction, ZERO, add, compare, equal, sub, sum } from '../rhythm/fraction.ts';
import { meterLength } from '../rhythm/meter.ts';
import { type TupletPlace, itemLength } from '../rhythm/place.ts';
import { type EmptyMeasure, type LaidNote, layNotes } from './layNotes.ts';
import { measureItems } from './measureItems.ts';
import { Leavings, type RawMeasure, type RawVoice } from './piece.ts';
import { rawLength } from './writtenOut.ts';

/**
 * Several voices of one piece as one rhythm: a note wherever any of them begins one, as long as something sounds.
 * @returns undefined where their measures do not go together
 */
export function mergeVoices(voices: readonly RawVoice[]): RawVoice | undefined {
  const [first, ...others] = voices;
  if (!first) return undefined;
  const alike = others.every(
    ({ measures }) =>
      measures.length === first.measures.length &&
      measures.every((measure, i) => equal(rawLength(measure), rawLength(first.measures[i]!))),
  );
  if (!alike) return undefined;
  const measures = emptyMeasures(first);
  const notes = oneLine(voices.flatMap((voice) => notesOf(voice, measures)));
  const groups = measures.map((_, i) => apart(voices.flatMap(({ measures: own }) => groupsIn(own[i]!))));
  const laid = layNotes(notes, measures, (measure) => groups[measures.indexOf(measure)]!);
  const leavings = new Leavings();
  for (const { leftOut } of voices)
    for (const [kind, count] of Object.entries(leftOut)) leavings.add(kind as keyof typeof leftOut, count);
  return {
    id: voices.map(({ id }) => id).join('+'),
    leftOut: leavings.counts,
    // What stands over and around the notes is that of the first; a pickup stays what it was.
    measures: first.measures.map(({ events: _events, trouble: _trouble, ...marks }, i) => {
      const { events, trouble } = laid[i]!;
      return { ...marks, events, ...(trouble === undefined ? {} : { trouble }) };
    }),
  };
}

function emptyMeasures({ measures }: RawVoice): EmptyMeasure[] {
  let at = ZERO;
  return measures.map((measure) => {
    const empty = { meter: measure.meter, at, length: rawLength(measure) };
    at = add(at, empty.length);
    return empty;
  });
}

/** The notes of a voice, what is tied as one. */
function notesOf({ measures }: RawVoice, places: readonly EmptyMeasure[]): LaidNote[] {
  const notes: LaidNote[] = [];
  let tied = false;
  measures.forEach(({ events }, i) => {
    let { at } = places[i]!;
    for (const { kind, length, tied: goesOn } of events) {
      const to = add(at, length);
      if (kind === 'note' && tied) notes.at(-1)!.to = to;
      else if (kind === 'note') notes.push({ from: at, to });
      tied = kind === 'note' && goesOn === true;
      at = to;
    }
  });
  return notes;
}

/** Every beginning once; each sounds until the next, or until nothing that began sounds any more. */
function oneLine(notes: readonly LaidNote[]): LaidNote[] {
  const sorted = [...notes].sort((a, b) => compare(a.from, b.from));
  const line: LaidNote[] = [];
  let sounds = ZERO;
  for (const { from, to } of sorted) {
    const before = line.at(-1);
    if (before && equal(before.from, from)) {
      if (compare(to, before.to) > 0) before.to = to;
    } else {
      if (before && compare(before.to, from) > 0) before.to = from;
      // What began earlier may sound on over a shorter note.
      line.push({ from, to: compare(sounds, to) > 0 ? sounds : to });
    }
    if (compare(to, sounds) > 0) sounds = to;
  }
  return line;
}

/** Groups in other time of a measure, from its first event. */
function groupsIn({ events, meter }: RawMeasure): TupletPlace[] {
  const made = measureItems(events, meter, sub(meterLength(meter), sum(events.map(({ length }) => length))));
  if (!made.ok) return [];
  let at: Fraction = ZERO;
  return made.items.flatMap((item) => {
    const onset = at;
    at = add(at, itemLength(item));
    return item.kind === 'tuplet' ? [{ n: item.n, m: item.m, onset, length: itemLength(item) }] : [];
  });
}

/** Of groups that overlap the first; one of two alike. */
function apart(groups: readonly TupletPlace[]): TupletPlace[] {
  const kept: TupletPlace[] = [];
  for (const group of [...groups].sort((a, b) => compare(a.onset, b.onset))) {
    const before = kept.at(-1);
    if (!before || compare(add(before.onset, before.length), group.onset) <= 0) kept.push(group);
  }
  return kept;
}
