import { counted, perLanguage, t } from '../words/say.ts';
import type { MeasureWritten, Written } from '../ear/written.ts';
import { measureText } from './places.ts';
import { type NamingId, capital } from './valueNames.ts';

/** "right", "sounds the same, written otherwise", "wrong from beat 3 on: 2 of 4 beats right". */
export function measureVerdict({ wrongFromBeat, sameWriting, beatsRight, beats }: MeasureWritten): string {
  if (wrongFromBeat === null) return sameWriting ? t`right` : t`right: it sounds the same, written otherwise`;
  const right = t`${beatsRight} of ${counted(beats, 'beat')} right`;
  return wrongFromBeat >= beats
    ? t`wrong from beat ${wrongFromBeat}: ${right}`
    : t`wrong from beat ${wrongFromBeat} on: ${right}`;
}

/** "Measure 2: wrong from beat 3 on: …". */
export function measureLine(measure: MeasureWritten, naming: NamingId): string {
  const place = { measure: measure.number, ...(measure.timeThrough ? { timeThrough: measure.timeThrough } : {}) };
  return `${capital(measureText(place, naming).replace(/^the /, ''))}: ${measureVerdict(measure)}`;
}

/** The one line for the whole of what was written. */
export function writtenHeadline({ right, sameWriting, measures }: Written, naming: NamingId): string {
  if (right) return sameWriting ? t`All right` : t`Right: it sounds the same, written otherwise`;
  const first = measures.find((one) => !one.right)!;
  const place = measures.length === 1 ? '' : `${capital(measureText({ measure: first.number }, naming))}, `;
  const text = t`${place}beat ${first.wrongFromBeat}: listen once more`;
  return capital(text);
}

/** What differs between two ways to write the same sound. */
export const SAME_SOUND = perLanguage(
  () => t`The claps start at the same times; what differs is how long the notes last.`,
);
