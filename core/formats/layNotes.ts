import { t } from '../words/say.ts';
import { type Fraction, ZERO, add, compare, equal, frac, sub, toNumber } from '../rhythm/fraction.ts';
import { type Meter, meterLength } from '../rhythm/meter.ts';
import { type TupletPlace, contentLength } from '../rhythm/place.ts';
import { type SoundSpan, writeMeasure } from '../rhythm/spell.ts';
import type { RawMeasure } from './piece.ts';
import { rawMeasures } from './rawItems.ts';

/** A measure to be filled: where its bar line is, in whole notes. */
export interface EmptyMeasure {
  readonly meter: Meter;
  readonly at: Fraction;
  readonly length: Fraction;
  /** Shorter than its meter, and its sounds stand at the end of the measure. */
  readonly pickup?: true;
  readonly letter?: string;
}

/** A note, in exact whole notes. */
export interface LaidNote {
  readonly from: Fraction;
  to: Fraction;
}

/** Groups of a measure, from its bar line; `shift` leads from the time of the piece to there. */
export type GroupsOf = (
  measure: EmptyMeasure,
  shift: Fraction,
  stretches: readonly SoundSpan[],
) => readonly TupletPlace[];

/**
 * Writes notes into measures: rests between them, ties over bar lines.
 * @param notes  in order, none before the one before it is over
 */
export function layNotes(
  notes: readonly LaidNote[],
  measures: readonly EmptyMeasure[],
  groupsOf: GroupsOf,
): RawMeasure[] {
  let k = 0;
  /** A note that goes on over the bar line sounds in the next measure from there. */
  let held: LaidNote | undefined;
  return measures.map((measure, i) => {
    const end = add(measure.at, measure.length);
    const stretches: SoundSpan[] = [];
    let now = measure.at;
    // From the bar line: a pickup stands before the end of its measure.
    const shift = sub(measure.pickup ? sub(meterLength(measure.meter), measure.length) : ZERO, measure.at);
    const put = (kind: 'note' | 'rest', to: Fraction, tiedOut = false) => {
      if (compare(to, now) <= 0) return;
      stretches.push({ kind, from: add(now, shift), to: add(to, shift), ...(tiedOut ? { tiedOut } : {}) });
      now = to;
    };
    for (let note = held ?? notes[k]; note && compare(note.from, end) < 0; note = notes[k]) {
      put('rest', note.from);
      const goesOn = compare(note.to, end) > 0;
      put('note', goesOn ? end : note.to, goesOn);
      held = goesOn ? { from: end, to: note.to } : undefined;
      if (goesOn) break;
      k++;
    }
    put('rest', end);
    return {
      ...filled(measure, stretches, groupsOf(measure, shift, stretches)),
      ...(i === 0 ? { pickup: measure.pickup === true } : {}),
      ...(measure.letter === undefined ? {} : { letter: measure.letter }),
    };
  });
}

function filled(
  { meter, length }: EmptyMeasure,
  stretches: readonly SoundSpan[],
  groups: readonly TupletPlace[],
): RawMeasure {
  const made = writeMeasure(meter, stretches, groups);
  if (equal(contentLength(made), length)) return rawMeasures(made)[0]!;
  const kept = inThirtySeconds(stretches);
  // What is moved to the bar line and held over it begins there.
  const notes = (of: readonly SoundSpan[]) => of.filter(({ kind, tiedOut }) => kind === 'note' && !tiedOut).length;
  const lost = notes(stretches) - notes(kept);
  const [moved] = rawMeasures(writeMeasure(meter, kept));
  const where = t`it has places finer than can be written; they are moved to the next thirty-second`;
  const left = lost === 1 ? t`one too close to the next is left out` : t`${lost} too close to the next are left out`;
  return { ...moved!, trouble: lost > 0 ? `${where}; ${left}` : where };
}

/** The same stretches with every place moved to a thirty-second; what is nothing then is left out. */
function inThirtySeconds(stretches: readonly SoundSpan[]): SoundSpan[] {
  const moved = (time: Fraction) => frac(Math.round(toNumber(time) * 32), 32);
  return stretches
    .map((stretch) => ({ ...stretch, from: moved(stretch.from), to: moved(stretch.to) }))
    .filter(({ from, to }) => compare(from, to) < 0);
}
