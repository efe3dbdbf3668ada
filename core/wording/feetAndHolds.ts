import { counted, perLanguage, t } from '../words/say.ts';
import type { Stepped, TakeResult } from '../judging/takeResult.ts';
import { placeHeading, placeText } from './places.ts';
import type { NamingId } from './valueNames.ts';
import type { Voice } from './voice.ts';

/** Less than this between hands and feet no listener hears apart: two claps blend within some forty milliseconds. */
const TOGETHER_MS = 40;

/** What is judged beside the rhythm and does not touch the mark. A sentence each, none where it was not heard. */
export function feetAndHoldsSentences({ feet, holds, notes }: TakeResult, voice: Voice): string[] {
  return [
    ...(feet ? [feetSentence(feet, voice)] : []),
    ...(holds && holds.length > 0 ? [holdsSentence(holds, notes, voice)] : []),
  ];
}

type Feet = NonNullable<TakeResult['feet']>;

function feetSentence(feet: Feet, { naming }: Voice): string {
  const { onBeat, beats, extras, stepped, misreadings } = feet;
  const extra = extras > 0 ? t`, and ${counted(extras, 'step was', 'steps were')} too many` : '';
  const all = onBeat === beats && extras === 0;
  const steps = all
    ? t`every step was on the beat`
    : onBeat === 1
      ? t`1 of ${counted(beats, 'beat')} was stepped on time${extra}`
      : t`${onBeat} of ${counted(beats, 'beat')} were stepped on time${extra}`;
  const troubles = misreadings.flatMap((one) => feetTrouble(one, naming) ?? []);
  const together = onBeat > 0 && stepped === 'beat' ? [handsWithFeet(feet)] : [];
  return [t`Feet: ${steps}.`, ...(stepped === 'beat' ? [] : [STEPPED_WORDS()[stepped]]), ...troubles, ...together].join(
    ' ',
  );
}

function handsWithFeet({ handsLaterMs }: Feet): string {
  const ms = Math.round(Math.abs(handsLaterMs));
  if (ms < TOGETHER_MS) return t`Hands and feet came together.`;
  return handsLaterMs > 0 ? t`The hands came ${ms} ms after the feet.` : t`The hands came ${ms} ms before the feet.`;
}

const ALONE_FIRST = perLanguage(() => t`Step the beat alone first, then clap above it.`);
const STEPPED_WORDS = perLanguage((): Readonly<Record<Exclude<Stepped, 'beat'>, string>> => ({
  'other-beats': t`The feet stepped every other beat. ${ALONE_FIRST()}`,
  'first-beats': t`The feet stepped only the first beat of each measure. ${ALONE_FIRST()}`,
  parts: t`The feet stepped between the beats as well. ${ALONE_FIRST()}`,
  rhythm: t`The feet stepped the rhythm with the hands. ${ALONE_FIRST()}`,
}));

function feetTrouble({ code, percent, kept, until, ...at }: Feet['misreadings'][number], naming: NamingId) {
  const place = placeText(at, naming);
  if (code === 'rushing') return t`The feet got faster, by ${percent} %.`;
  if (code === 'dragging') return t`The feet got slower, by ${percent} %.`;
  if (kept) return t`The feet kept a steady ${kept.bpm} beats a minute; the click was at ${kept.click}.`;
  if (code === 'joined-late') return t`The first step came at ${place}.`;
  if (code === 'stopped-early') return t`From ${place} on there was no step.`;
  if (!until) return undefined;
  const again = placeText(until, naming);
  return code === 'measure-silent'
    ? t`From ${place} there was no step; the feet were back at ${again}.`
    : t`The feet left the beat at ${place} and were back at ${again}.`;
}

const HOLD_WORDS = perLanguage(
  () =>
    ({
      cut: t`let go too early. Hold on to the end of the note`,
      'held-over': t`held too long. Let go where the next note or rest begins`,
    }) as const,
);

function holdsSentence(holds: NonNullable<TakeResult['holds']>, notes: TakeResult['notes'], { naming }: Voice): string {
  const kept = holds.filter(({ verdict }) => verdict === 'kept').length;
  const wrong = holds.find(({ verdict }) => verdict !== 'kept');
  if (!wrong || wrong.verdict === 'kept') {
    if (holds.length === 1) return t`Long notes: the one there is was held for its time.`;
    return t`Long notes: all ${holds.length} were held for their time.`;
  }
  const were = kept === 1 ? t`was held for its` : t`were held for their`;
  const place = placeHeading(notes[wrong.index]!, naming);
  return t`Long notes: ${kept} of ${holds.length} ${were} time. ${place}: ${HOLD_WORDS()[wrong.verdict]}.`;
}
