import { placeText } from './misreadingWords.ts';
import { type TakeResult } from '../judging/takeResult.ts';

/** Less than this between hands and feet nobody hears. */
const TOGETHER_MS = 25;

/** What is judged beside the rhythm and does not touch the mark: the feet, and long notes held. A sentence each, none where it was not heard. */
export function besidesOf({ feet, holds, notes }: TakeResult): string[] {
  return [...(feet ? [feetSentence(feet)] : []), ...(holds && holds.length > 0 ? [holdsSentence(holds, notes)] : [])];
}

function feetSentence({ onBeat, beats, extras, handsLaterMs }: NonNullable<TakeResult['feet']>): string {
  const steps =
    onBeat === beats && extras === 0
      ? 'every step was on the beat'
      : `${onBeat} of ${beats} beats were stepped on time${extras > 0 ? `, and ${extras} ${extras === 1 ? 'step was' : 'steps were'} too many` : ''}`;
  const ms = Math.round(Math.abs(handsLaterMs));
  const apart =
    ms < TOGETHER_MS
      ? 'Hands and feet came together.'
      : `The hands came ${ms} ms ${handsLaterMs > 0 ? 'after' : 'before'} the feet.`;
  return onBeat === 0 ? `Feet: ${steps}.` : `Feet: ${steps}. ${apart}`;
}

function holdsSentence(holds: NonNullable<TakeResult['holds']>, notes: TakeResult['notes']): string {
  const kept = holds.filter(({ verdict }) => verdict === 'kept').length;
  const wrong = holds.find(({ verdict }) => verdict !== 'kept');
  const note = wrong && notes[wrong.index];
  if (!note)
    return holds.length === 1
      ? 'Long notes: the one there is was held for its time.'
      : `Long notes: all ${holds.length} were held for their time.`;
  const what =
    wrong.verdict === 'cut'
      ? 'let go too early. Hold on to the end of the note'
      : 'held too long. Let go where the next note or rest begins';
  return `Long notes: ${kept} of ${holds.length} were held for their time. ${placeText(note.measure, note.beat)}: ${what}.`;
}
