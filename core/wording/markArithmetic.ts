import { counted, decimal, perLanguage, t } from '../words/say.ts';
import type { JudgedHold } from '../judging/holds.ts';
import { driftAllowed } from '../judging/mark.ts';
import { type MarkBorder, type Scale, USUAL_SCALE, markLabel, usualBorders } from '../judging/scale.ts';
import type { TakeResult, TempoKept } from '../judging/takeResult.ts';
import { type Fraction, ONE, abs, equal, frac, mixed } from '../rhythm/fraction.ts';
import type { Bpm } from '../timing/units.ts';
import { placeHeading, placeText } from './places.ts';
import type { Voice } from './voice.ts';

const percent = (part: number) => `${decimal(Math.round(part * 1000) / 10)} %`;
const ms = (value: number) => t`${Math.abs(Math.round(value))} ms`;

/** What a class gives marks by. */
export interface Marking {
  readonly scale?: Scale | null | undefined;
  /** null is as usual. */
  readonly borders?: readonly MarkBorder[] | null | undefined;
}

const within = (border: MarkBorder, free: boolean) =>
  border.driftPct === undefined ? '' : t`, the tempo kept within ${driftAllowed(border, free)} %`;

/** Which border gave the mark, and what kept it from a better one that the accuracy would have. */
function borderText(mark: number, scale: Scale, borders: readonly MarkBorder[], free: boolean, result: TakeResult) {
  const label = markLabel(mark, scale);
  if (result.notes.length > 0 && isSilent(result)) return t`${label}: nothing was heard.`;
  const best = borders[0];
  const isKept = best && result.accuracy >= best.accuracy && mark < best.mark;
  const needs = isKept
    ? t` For ${markLabel(best.mark, scale)}: nothing misread, left out or added${within(best, free)}.`
    : '';
  if (scale === 'percent') return t`${label}: the accuracy itself.${needs}`;
  const border = borders.find((one) => one.mark === mark);
  if (!border) return t`${label}: below the border of ${percent(borders.at(-1)?.accuracy ?? 0)}.`;
  return t`${label}: at least ${percent(border.accuracy)}${within(border, free)}.${needs}`;
}

const isSilent = ({ notes, extras }: TakeResult) =>
  extras.length === 0 && notes.every(({ verdict }) => verdict === 'missed');

function leadText(leadMs: number): string {
  if (Math.abs(leadMs) < 1) return t`With the click`;
  return leadMs > 0 ? t`${ms(leadMs)} ahead of the click` : t`${ms(leadMs)} behind the click`;
}

function tempoText({ bpm, driftPct, spreadMs, leadMs }: TempoKept, set: Bpm | undefined): string {
  const kept =
    driftPct === 0
      ? t`tempo kept`
      : driftPct > 0
        ? t`${driftPct} % faster by the end`
        : t`${-driftPct} % slower by the end`;
  const played =
    set === undefined
      ? t`No click; played at about ${bpm}. `
      : t`Click at ${set}, played at ${bpm}. ${leadText(leadMs)} (taken off before judging); `;
  return t`${played}${kept}; unsteadiness ${ms(spreadMs)}.`;
}

function feetText({ onBeat, beats, extras, leadMs, handsLaterMs, apartMs }: NonNullable<TakeResult['feet']>): string {
  const extra = extras > 0 ? t`, ${counted(extras, 'step')} too many` : '';
  const lead =
    leadMs >= 0
      ? t`${ms(leadMs)} ahead of the beat on the whole (taken off)`
      : t`${ms(leadMs)} behind the beat on the whole (taken off)`;
  const hands =
    handsLaterMs >= 0 ? t`hands ${ms(handsLaterMs)} after the feet` : t`hands ${ms(handsLaterMs)} before the feet`;
  return t`Feet: ${onBeat} of ${beats} beats${extra}, ${lead}; ${hands}, give or take ${ms(apartMs)}.`;
}

const HELD = perLanguage(() => ({ kept: '', cut: t`, cut short`, 'held-over': t`, held over` }) as const);

function holdText({ index, verdict, heldS, writtenS }: JudgedHold, notes: TakeResult['notes'], voice: Voice): string {
  return t`${placeHeading(notes[index]!, voice.naming)}: held ${heldS} s of ${writtenS} s${HELD()[verdict]}.`;
}

const HALF = frac(1, 2);

function followText(beatsAhead: Fraction, note: TakeResult['notes'][number] | undefined, { naming }: Voice): string {
  const where = note ? t` since ${placeText(note, naming)}` : '';
  if (beatsAhead.n === 0) return t`With the beat again${where}.`;
  const size = abs(beatsAhead);
  const much = equal(size, HALF) ? t`Half a beat` : equal(size, ONE) ? t`A beat` : t`${mixed(size)} beats`;
  return beatsAhead.n < 0
    ? t`${much} behind${where}; followed from there, so what came after counts as it was clapped.`
    : t`${much} ahead${where}; followed from there, so what came after counts as it was clapped.`;
}

/**
 * The arithmetic behind a mark, a line each.
 * @param set  the tempo of the click; undefined in a free take
 */
export function markArithmetic(result: TakeResult, set: Bpm | undefined, marking: Marking, voice: Voice): string[] {
  const scale = marking.scale ?? USUAL_SCALE;
  const borders = marking.borders ?? usualBorders(scale);
  const { notes, extras, slips, offClick, tempo, accuracy, mark, withBeat, follow, feet, holds } = result;
  const count = (...verdicts: string[]) => notes.filter(({ verdict }) => verdicts.includes(verdict)).length;
  const late = t`half of ${count('early', 'late')} early or late`;
  const misread = slips > 0 ? t` − ${slips} misread` : '';
  const points = t`(${count('on-time')} on time + ${late} − half of ${extras.length} too many${misread})`;
  const free = set === undefined;
  const byBorders = borderText(result.withoutClick ?? mark, scale, borders, free, result);
  return [
    t`${points} ÷ ${notes.length} notes = ${percent(accuracy)}. Mark ${byBorders}`,
    ...(offClick ? [t`The click was not kept, and here it counts too: mark ${markLabel(mark, scale)}.`] : []),
    tempoText(tempo, set),
    ...(withBeat === null ? [] : [t`With the beat itself, the child not followed: ${percent(withBeat)} of the notes.`]),
    ...follow.map(({ fromNote, beatsAhead }) => followText(beatsAhead, notes[fromNote], voice)),
    ...(feet ? [feetText(feet)] : []),
    ...(holds ?? []).map((hold) => holdText(hold, notes, voice)),
  ];
}
