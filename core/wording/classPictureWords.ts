import type { ClassNote, ClassPicture } from '../judging/classPicture.ts';
import { misreadingTitle } from './misreadingSentences.ts';
import { placeHeading, placeText } from './places.ts';
import { counted } from './plurals.ts';
import type { Voice } from './voice.ts';

const ofAll = (count: number, all: number) => `${count} of ${all}`;

/** What most of those who had a note wrong did with it. */
function mostly({ early, late, missed }: ClassNote): string {
  const most = Math.max(early, late, missed);
  if (most === missed) return 'most left it out';
  return most === early ? 'most came too early' : 'most came too late';
}

/**
 * A class's picture in sentences to the class: how many had all of it, the note to look at, the misreading made most.
 * @returns one to three sentences; none without a take
 * @example ["3 of 26 had all of it right.", "Measure 2, beat 3: 9 of 26 had it on time; most came too early."]
 */
export function classPictureLines(
  { takes, allRight, hardest, commonest }: ClassPicture,
  voice: Pick<Voice, 'naming'>,
): string[] {
  if (takes === 0) return [];
  if (allRight === takes) return [takes === 1 ? 'All of it was right.' : `All ${takes} had all of it right.`];
  const lines = [`${allRight === 0 ? 'Nobody yet' : ofAll(allRight, takes)} had all of it right.`];
  if (hardest)
    lines.push(
      `${placeHeading(hardest, voice.naming)}: ${ofAll(hardest.onTime, takes)} had it on time; ${mostly(hardest)}.`,
    );
  if (commonest && commonest.children > 1)
    lines.push(
      `Misread most: ${misreadingTitle(commonest.code, voice)}, ${placeText(commonest.example, voice.naming)} ` +
        `(${counted(commonest.children, 'child', 'children')}).`,
    );
  return lines;
}
