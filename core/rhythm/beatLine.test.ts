import fc from 'fast-check';
import { expect, it } from 'vitest';
import { beatTimes } from '../timing/pulses.ts';
import { scheduleOf } from '../timing/schedule.ts';
import { nearlyEqual } from '../timing/tolerance.ts';
import { fullPattern, patternOf } from './arbitrary.test-helper.ts';
import { beatLine } from './beatLine.ts';
import { playPattern } from './place.ts';
import { printRhythm } from './text.ts';

it.each([
  ['4/4 q e e h | w', '4/4 q q q q | q q q q'],
  ['6/8 q e q. | (h.)', '6/8 q. q. | q. q.'],
  ['2/2 h q q', '2/2 h h'],
  ['7/8[2+2+3] q q q.', '7/8[2+2+3] e e e e e e e'],
  ['3/4 ^ e | q. e q', '3/4 ^ (e) | q q q'],
  ['4/4 ^ q. | w', '4/4 ^ (e) q | q q q q'],
  ['4/4 |: q q h | (M2) :| #7 "B" w | 3/4 h.', '4/4 |: q q q q | q q q q | q q q q :| #7 "B" q q q q | 3/4 q q q'],
])('the beat of %s is %s', (text, beat) =>
  expect(printRhythm(beatLine(patternOf(text)))).toBe(printRhythm(patternOf(beat))),
);

it('its notes are the beats, when and where these are', () =>
  fc.assert(
    fc.property(fullPattern, (pattern) => {
      const line = beatLine(pattern);
      const notes = scheduleOf(line, 72).notes.map(({ time }) => time);
      const beats = beatTimes(pattern, 72).map(({ time }) => time);
      expect(notes.length).toBe(beats.length);
      expect(notes.every((time, i) => nearlyEqual(time, beats[i]!))).toBe(true);
      const places = (of: typeof pattern) =>
        playPattern(of).map(({ at, measure, timeThrough }) => [at, measure.number, timeThrough]);
      expect(places(line)).toEqual(places(pattern));
    }),
    { numRuns: 40 },
  ));
