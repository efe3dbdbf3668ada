import { anySum, partsText } from '../material.ts';
import { MISCONCEPTIONS, clapsOf } from '../misconceptions.ts';
import { optionsOf } from '../options.ts';
import type { Answer, Option, QuestionMaker, Step } from '../question.ts';
import type { Part } from '../valueSums.ts';

/** How many claps is this? */
export const claps: QuestionMaker = (settings, random) => {
  const parts = anySum(settings, random, 5);
  const tied = parts.filter((part) => part.tied).length;
  const rests = parts.filter(({ kind }) => kind === 'rest').length;
  if (tied + rests === 0 || rests === parts.length) return undefined;
  const count = (clapped: (part: Part) => number) => parts.reduce((sum, part) => sum + clapped(part), 0);
  const say = (times: number): Answer => ({ is: 'claps', claps: times });
  const total = count(clapsOf);
  const wrong = MISCONCEPTIONS.flatMap(({ id, claps: clapped }): Option[] =>
    clapped ? [{ answer: say(count(clapped)), misconception: id }] : [],
  );
  const slips = [total + 1, total + 2, total - 1, total + 3].filter((times) => times >= 0).map(say);
  const made = optionsOf(say(total), wrong, slips, random);
  const steps: Step[] = [
    { step: 'clap-notes', notes: parts.length - rests },
    ...(tied > 0 ? [{ step: 'no-clap-tied', tied } as const] : []),
    ...(rests > 0 ? [{ step: 'no-clap-rests', rests } as const] : []),
  ];
  return made && { asked: { kind: 'claps' }, shows: partsText(parts), ...made, steps };
};
