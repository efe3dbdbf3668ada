import { perLanguage, t } from '../../words/say.ts';
import { type ValueLetter, valueText } from '../../rhythm/value.ts';
import { NO_SYLLABLE } from '../beatPlace.ts';
import { type CountedEvent, type CountingSystem, type Words, writtenValue } from '../countingSystem.ts';

/** @example dotted quarter → "quarter-dot"; whole → "whole-note-hold-on" */
function note(event: CountedEvent, words: Words): string {
  const value = writtenValue(event);
  const whole = words[valueText(value)];
  if (whole !== undefined) return whole;
  const plain = words[value.base];
  return plain === undefined ? NO_SYLLABLE : plain + `-${words['dot']}`.repeat(value.dots);
}

/** How the values are called where they are typed as speech, one and many; in both traditions. */
export const SPOKEN_VALUES: Readonly<Record<string, ValueLetter>> = {
  whole: 'w',
  wholes: 'w',
  semibreve: 'w',
  semibreves: 'w',
  half: 'h',
  halves: 'h',
  minim: 'h',
  minims: 'h',
  quarter: 'q',
  quarters: 'q',
  crotchet: 'q',
  crotchets: 'q',
  eighth: 'e',
  eighths: 'e',
  quaver: 'e',
  quavers: 'e',
  sixteenth: 's',
  sixteenths: 's',
  semiquaver: 's',
  semiquavers: 's',
};

export const noteNames = perLanguage((): CountingSystem => ({
  title: t`Note names (quarter, half-note)`,
  words: {
    w: t`whole-note-hold-on`,
    h: t`half-note`,
    q: t`quarter`,
    e: t`eighth`,
    s: t`sixteenth`,
    t: t`thirty-second`,
    dot: t`dot`,
  },
  meanings: { w: '{w}', h: '{h}', q: '{q}', e: '{e}', s: '{s}', t: '{t}', dot: t`a dot` },
  rests: 'rest',
  note,
  tied: () => '-',
}));
