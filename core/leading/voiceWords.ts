import type { CountOptions } from '../counting/count.ts';
import type { Bpm } from '../timing/units.ts';
import type { Cue } from './cue.ts';
import type { Score } from '../rhythm/score.ts';
import { wordOfCue } from './cueSounds.ts';
import { oncePlan } from './plan.ts';
import { scoreTimetable } from './timetable.ts';

/** A word to be said: its recording's name, and how it is written in the counts. */
export interface VoiceWordToSay {
  readonly word: string;
  readonly text: string;
}

const ANY_TEMPO = 80;

/**
 * Every word that is spoken where a class counts some patterns after two measures of count-in: its numbers first, from
 * 1 up, then all others as they come.
 * @param counts  how the class counts, and in which language
 */
export function voiceWords(scores: readonly Score[], counts: CountOptions): VoiceWordToSay[] {
  const plan = { ...oncePlan(ANY_TEMPO, 'say'), countIn: 'two-measures' as const };
  const found = new Map<string, VoiceWordToSay>();
  for (const score of scores) {
    const made = scoreTimetable(score, plan, counts);
    if (!made.ok) continue;
    for (const cue of made.timetable.cues) {
      const word = wordOfCue(cue);
      if (word !== undefined) found.set(word, { word, text: cue.text });
    }
  }
  const all = [...found.values()];
  const isNumber = ({ text }: VoiceWordToSay) => /^\d+$/.test(text);
  // Each count-in begins with 1: numbers come in their order.
  return [...all.filter(isNumber), ...all.filter((one) => !isNumber(one))];
}

/** Clicks before the first word. */
const LEAD_IN = 2;

/** Words by the names of their recordings over the click, one a beat, after two beats that lead in. */
export function overTheClick(words: readonly string[], bpm: Bpm): Cue[] {
  const cue = (kind: 'click' | 'syllable', beat: number): Cue => ({
    time: (beat * 60) / bpm,
    seconds: 0,
    kind,
    section: 0,
    text: '',
    accent: 'beat',
    whispered: false,
    sounds: true,
  });
  const lead = Array.from({ length: LEAD_IN }, (_, beat) => cue('click', beat));
  return [
    ...lead,
    ...words.flatMap((word, i) => [cue('click', LEAD_IN + i), { ...cue('syllable', LEAD_IN + i), recorded: word }]),
  ];
}
