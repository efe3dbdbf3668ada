import { optionsOf } from '../options.ts';
import type { Answer, Option, SignQuestionMaker } from '../question.ts';
import { type StaffHeight, type StaffPlace, TOP_LINE, note, staffPlace } from '../signs.ts';

const say = (place: StaffPlace): Answer => ({ is: 'staff', ...place });

/** On which line, in which space does this note stand? */
export const staffPlaceQuestion: SignQuestionMaker = (_settings, random) => {
  const at: StaffHeight = random.below(TOP_LINE + 1);
  const place = staffPlace(at);
  const other = place.on === 'line' ? 'space' : 'line';
  const most = (on: StaffPlace['on']) => (on === 'line' ? 5 : 4);
  const wrong: Option[] = [
    { answer: say(staffPlace(TOP_LINE - at)), misconception: 'counted-from-above' },
    { answer: say({ on: other, number: Math.min(most(other), place.number) }), misconception: 'line-space-mixed' },
  ];
  const slips = [1, 2, 3, 4, 5]
    .filter((number) => number <= most(place.on))
    .map((number) => say({ on: place.on, number }));
  const made = optionsOf(say(place), wrong, slips, random);
  const staff = [{ sign: note('w'), at }];
  return made && { asked: { kind: 'staff-place' }, shows: '', staff, ...made, steps: [{ step: 'staff', ...place }] };
};
