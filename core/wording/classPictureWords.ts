import { inLanguage, counted, t } from '../words/say.ts';
import type { ClassNote, ClassPicture } from '../judging/classPicture.ts';
import { misreadingTitle } from './misreadingSentences.ts';
import { placeHeading, placeText } from './places.ts';
import type { Voice } from './voice.ts';

const ofAll = (count: number, all: number) => t`${count} of ${all}`;

/** What most of those who had a note wrong did with it. */
function mostly({ early, late, missed }: ClassNote): string {
  const most = Math.max(early, late, missed);
  if (most === missed) return t`most left it out`;
  return most === early ? t`most came too early` : t`most came too late`;
}

/**
 * A class's picture in sentences to the class: how many had all of it, the note to look at, the misreading made most.
 * @returns one to three sentences; none without a take
 * @example ["3 of 26 had all of it right.", "Measure 2, beat 3: 9 of 26 had it on time; most came too early."]
 */
export function classPictureLines(picture: ClassPicture, voice: Pick<Voice, 'naming' | 'language'>): string[] {
  return inLanguage(voice.language, () => linesSaid(picture, voice));
}

function linesSaid({ takes, allRight, hardest, commonest }: ClassPicture, voice: Pick<Voice, 'naming'>): string[] {
  if (takes === 0) return [];
  if (allRight === takes) return [takes === 1 ? t`All of it was right.` : t`All ${takes} had all of it right.`];
  const lines = [t`${allRight === 0 ? t`Nobody yet` : ofAll(allRight, takes)} had all of it right.`];
  if (hardest)
    lines.push(
      t`${placeHeading(hardest, voice.naming)}: ${ofAll(hardest.onTime, takes)} had it on
        time; ${mostly(hardest)}.`,
    );
  if (commonest && commonest.children > 1)
    lines.push(
      t`Misread most: ${misreadingTitle(commonest.code, voice)},
        ${placeText(commonest.example, voice.naming)}
        (${counted(commonest.children, 'child', 'children')}).`,
    );
  return lines;
}
