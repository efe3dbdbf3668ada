import type { DrawnSign, StrokeWords } from '../ear/strokes.ts';
import type { StrokeFault } from '../ear/tracing.ts';
import { type NamingId, capital, inNaming, noteName, restName } from './valueNames.ts';

export function drawnSignName(sign: DrawnSign, naming: NamingId): string {
  const NAMES: Readonly<Record<DrawnSign, string>> = {
    whole: noteName({ base: 'w', dots: 0 }, naming),
    half: noteName({ base: 'h', dots: 0 }, naming),
    quarter: noteName({ base: 'q', dots: 0 }, naming),
    eighth: noteName({ base: 'e', dots: 0 }, naming),
    pair: inNaming('two {e+}, beamed', naming),
    'whole-rest': restName({ base: 'w', dots: 0 }, naming),
    'half-rest': restName({ base: 'h', dots: 0 }, naming),
    'quarter-rest': restName({ base: 'q', dots: 0 }, naming),
    'eighth-rest': restName({ base: 'e', dots: 0 }, naming),
    treble: 'treble clef',
    bass: 'bass clef',
  };
  return capital(NAMES[sign]);
}

const STROKES: Readonly<Record<StrokeWords, string>> = {
  'open-head': 'An open head: once round, and close it',
  'fill-head': 'Fill the head',
  'stem-up': 'The stem: straight up, on the right',
  flag: 'The flag: from the top of the stem, to the right and down',
  beam: 'The beam: from the first stem to the second',
  'block-below': 'A block that hangs below the fourth line: down, across, up',
  'block-above': 'A block that sits on the third line: up, across, down',
  zig: 'Slanting down to the right',
  zag: 'Slanting down to the left',
  'zig-hook': 'Down to the right again, and a hook to the left',
  'rest-hook': 'A little bow to the right',
  'rest-stem': 'The slanting stem: down to the left',
  'treble-dot': 'A dot on the second line',
  'treble-round': 'Round to the left, up to the middle line and over',
  'treble-down': 'Down to the first line',
  'treble-up': 'Up and around, past the top',
  'treble-over': 'Over, to the left',
  'treble-through': 'Straight down through everything',
  'treble-hook': 'A little hook to the left',
  'bass-dot': 'A dot on the fourth line',
  'bass-bow': 'Up to the fifth line, round, and down to just under the second',
  'bass-upper-dot': 'A dot above the fourth line',
  'bass-lower-dot': 'A dot below the fourth line',
};

export function strokeText(says: StrokeWords): string {
  return STROKES[says];
}

const FAULTS: Readonly<Record<StrokeFault, string>> = {
  start: 'Begin at the round mark.',
  backwards: 'The other way: begin at the round mark, end at the arrow.',
  way: 'Stay on the grey line.',
  short: 'Go on, up to the arrow.',
  long: 'Stop at the arrow.',
  end: 'End at the arrow.',
  'not-filled': 'Fill all of it.',
  'not-a-dot': 'Only a dot: touch it once.',
  open: 'Close it: end where you began.',
};

export function faultText(fault: StrokeFault): string {
  return FAULTS[fault];
}
