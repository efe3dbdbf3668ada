import { t } from '../words/say.ts';
import type { ClassHeard, ClassNoteHeard, ClassSilence } from '../ensemble/classHeard.ts';
import { toNumber } from '../rhythm/fraction.ts';
import { placeText, measureText } from './places.ts';
import type { NamingId } from './valueNames.ts';

/** So narrow, in the middle of all notes, a class sounds like one; so narrow it is together; ms. */
const AS_ONE = 60;
const TOGETHER = 110;
/** A tenth of the class is heard in a rest; less may be a chair. */
const HEARD_IN_SILENCE = 0.1;
/** A note so much wider than the others is named, and so wide at least; ms. */
const WIDER = 1.8;
/** Off the beat by so much, on the whole, a class hears it; ms. */
const OFF = 35;
/** A width is not measured nearer than so many milliseconds. */
const NOT_CHANGED = 10;
/** A lump of the class so near to half of it is called that. */
const HALF = { from: 0.35, to: 0.65 };

/** The place to do again, and why. */
export interface ToMend {
  readonly what: 'apart' | 'fewer' | 'silence' | 'runs' | 'lump' | 'wide';
  readonly note?: ClassNoteHeard;
  readonly silence?: ClassSilence;
  readonly measure: number;
  readonly played: number;
}

const most = <T>(all: readonly T[], value: (one: T) => number): T | undefined =>
  all.reduce<T | undefined>((best, one) => (best === undefined || value(one) > value(best) ? one : best), undefined);

/** What a class is told first, and does again; undefined where it was together. */
export function toMend(heard: ClassHeard): ToMend | undefined {
  const { notes, rests, holds, fallsApart, fewer, runs, widthMs = 0 } = heard;
  if (heard.tooFew) return undefined;
  const at = (what: ToMend['what'], note: ClassNoteHeard): ToMend => ({
    what,
    note,
    measure: note.measure,
    played: note.played,
  });
  if (fallsApart) return at('apart', notes[fallsApart.index]!);
  if (fewer) return at('fewer', notes[fewer.kind === 'stop' ? fewer.index : 0]!);
  const silence = most([...rests, ...holds], ({ share }) => share);
  if (silence && silence.share >= HEARD_IN_SILENCE)
    return { what: 'silence', silence, measure: silence.measure, played: silence.played };
  if (runs) return at('runs', notes[runs.index]!);
  const lump = most(notes, ({ early = 0, late = 0 }) => Math.max(early, late));
  if (lump && (lump.early ?? lump.late)) return at('lump', lump);
  const widest = most(notes, (note) => note.widthMs ?? 0);
  if (widest && (widest.widthMs ?? 0) > Math.max(TOGETHER, WIDER * widthMs)) return at('wide', widest);
  return undefined;
}

/** "half of you", "3 in 10 of you". */
function partOfClass(share: number): string {
  if (share >= HALF.from && share <= HALF.to) return t`half of you`;
  if (share > HALF.to) return t`most of you`;
  return t`${Math.max(1, Math.round(share * 10))} in 10 of you`;
}

/** What stands before a note: a rest makes many early. */
function afterRest({ rests }: ClassHeard, note: ClassNoteHeard): boolean {
  const at = toNumber(note.beat);
  return rests.some(({ played, beat }) => {
    const after = at - toNumber(beat);
    return played === note.played && after > 0 && after <= 1;
  });
}

function apartSentence(heard: ClassHeard, note: ClassNoteHeard, naming: NamingId): string {
  const place = placeText(note, naming);
  const before = heard.notes[note.index - 1];
  const until = before ? t`Together until ${placeText(before, naming)}` : t`Together at first`;
  const { early, late } = note;
  const which = afterRest(heard, note) ? t`after the rest` : t`in ${place}`;
  if (early !== undefined) return t`${until}; ${which} ${partOfClass(early)} came early.`;
  if (late !== undefined) return t`${until}; ${which} ${partOfClass(late)} came late.`;
  return t`${until}; from ${place} on it falls apart.`;
}

function fewerSentence({ kind, share, ...place }: NonNullable<ClassHeard['fewer']>, naming: NamingId): string {
  const where = placeText(place, naming);
  const who = partOfClass(share);
  return kind === 'stop'
    ? t`All of you until ${where}; from there on only ${who} clapped.`
    : t`Only ${who} clapped at first; from ${where} on all of you.`;
}

function lumpSentence(note: ClassNoteHeard, naming: NamingId): string {
  const { early, late = 0 } = note;
  const place = placeText(note, naming);
  return early === undefined
    ? t`Together but for ${place}: ${partOfClass(late)} came late.`
    : t`Together but for ${place}: ${partOfClass(early)} came early.`;
}

function howTogether({ widthMs = 0, aheadMs = 0 }: ClassHeard): string {
  const together =
    widthMs <= AS_ONE
      ? t`As one from beginning to end`
      : widthMs <= TOGETHER
        ? t`Together all through`
        : t`Not together yet, everywhere alike`;
  if (Math.abs(aheadMs) < OFF) return `${together}.`;
  return t`${together}, ${aheadMs > 0 ? t`a little before` : t`a little behind`} the beat.`;
}

/**
 * One sentence to a class that clapped as one: until where it was together, and what happened there.
 * @example "Together until measure 2, beat 4; after the rest half of you came early."
 */
export function classTogetherSentence(heard: ClassHeard, naming: NamingId): string {
  if (heard.tooFew) return t`Too few hands to tell whether the class is together.`;
  const mend = toMend(heard);
  if (!mend) return howTogether(heard);
  const { what, note, silence } = mend;
  if (silence) {
    const where = placeText(silence, naming);
    const who = partOfClass(silence.share);
    return silence.kind === 'rest'
      ? t`Nobody claps in the rest in ${where}: ${who} did.`
      : t`The note sounds on in ${where}: ${who} clapped there.`;
  }
  switch (what) {
    case 'apart':
      return apartSentence(heard, note!, naming);
    case 'fewer':
      return fewerSentence(heard.fewer!, naming);
    case 'runs':
      return heard.driftPct > 0
        ? t`On the beat at first; from ${placeText(note!, naming)} on you run ahead of it.`
        : t`On the beat at first; from ${placeText(note!, naming)} on you fall behind it.`;
    case 'lump':
      return lumpSentence(note!, naming);
    default:
      return t`Together but for ${placeText(note!, naming)}: that one is wide.`;
  }
}

/** What to do about it, by one press: lead the measure again. @example "Once more: measure 3" */
export function onceMoreText(mend: ToMend, naming: NamingId): string {
  return t`Once more: ${measureText({ measure: mend.measure }, naming)}`;
}

/** How wide a clap of the class is. @example "Most claps of a note come within 84 ms." */
export function withinText(widthMs: number): string {
  return t`Most claps of a note come within ${Math.round(widthMs)} ms.`;
}

/** How much narrower a class is than the week before. @example "32 ms nearer together" */
export function changedText(narrower: number | undefined): string {
  if (narrower === undefined) return '';
  if (Math.abs(narrower) < NOT_CHANGED) return t`as before`;
  return narrower > 0 ? t`${narrower} ms nearer together` : t`${-narrower} ms further apart`;
}

/** Whose takes lie over each other, and whose are missing. @param missing  names, in the order of the list */
export function missingText(many: number, missing: readonly string[]): string {
  const children = many === 1 ? t`1 child` : t`${many} children`;
  if (missing.length === 0) return t`All ${children} together.`;
  return t`${children} together. No take of ${missing.join(', ')}.`;
}
