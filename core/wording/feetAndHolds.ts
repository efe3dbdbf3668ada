import type { TakeResult } from '../judging/takeResult.ts';
import { placeHeading } from './places.ts';
import { counted } from './plurals.ts';
import type { Voice } from './voice.ts';

/** Less than this between hands and feet no listener hears apart: two claps blend within some forty milliseconds. */
const TOGETHER_MS = 40;

/** What is judged beside the rhythm and does not touch the mark. A sentence each, none where it was not heard. */
export function feetAndHoldsSentences({ feet, holds, notes }: TakeResult, voice: Voice): string[] {
  return [
    ...(feet ? [feetSentence(feet)] : []),
    ...(holds && holds.length > 0 ? [holdsSentence(holds, notes, voice)] : []),
  ];
}

function feetSentence({ onBeat, beats, extras, handsLaterMs }: NonNullable<TakeResult['feet']>): string {
  const extra = extras > 0 ? `, and ${counted(extras, 'step was', 'steps were')} too many` : '';
  const all = onBeat === beats && extras === 0;
  const steps = all
    ? 'every step was on the beat'
    : `${onBeat} of ${counted(beats, 'beat')} ${onBeat === 1 ? 'was' : 'were'} stepped on time${extra}`;
  if (onBeat === 0) return `Feet: ${steps}.`;
  const ms = Math.round(Math.abs(handsLaterMs));
  if (ms < TOGETHER_MS) return `Feet: ${steps}. Hands and feet came together.`;
  return `Feet: ${steps}. The hands came ${ms} ms ${handsLaterMs > 0 ? 'after' : 'before'} the feet.`;
}

const HOLD_WORDS = {
  cut: 'let go too early. Hold on to the end of the note',
  'held-over': 'held too long. Let go where the next note or rest begins',
} as const;

function holdsSentence(holds: NonNullable<TakeResult['holds']>, notes: TakeResult['notes'], { naming }: Voice): string {
  const kept = holds.filter(({ verdict }) => verdict === 'kept').length;
  const wrong = holds.find(({ verdict }) => verdict !== 'kept');
  if (!wrong || wrong.verdict === 'kept') {
    if (holds.length === 1) return 'Long notes: the one there is was held for its time.';
    return `Long notes: all ${holds.length} were held for their time.`;
  }
  const were = kept === 1 ? 'was held for its' : 'were held for their';
  const place = placeHeading(notes[wrong.index]!, naming);
  return `Long notes: ${kept} of ${holds.length} ${were} time. ${place}: ${HOLD_WORDS[wrong.verdict]}.`;
}
