import { perLanguage, t } from '../words/say.ts';
import type { DrawnSign, StrokeWords } from '../ear/strokes.ts';
import type { StrokeFault } from '../ear/tracing.ts';
import { type NamingId, capital, inNaming, noteName, restName } from './valueNames.ts';

export function drawnSignName(sign: DrawnSign, naming: NamingId): string {
  const NAMES: Readonly<Record<DrawnSign, string>> = {
    whole: noteName({ base: 'w', dots: 0 }, naming),
    half: noteName({ base: 'h', dots: 0 }, naming),
    quarter: noteName({ base: 'q', dots: 0 }, naming),
    eighth: noteName({ base: 'e', dots: 0 }, naming),
    pair: inNaming(t`two {e+}, beamed`, naming),
    'whole-rest': restName({ base: 'w', dots: 0 }, naming),
    'half-rest': restName({ base: 'h', dots: 0 }, naming),
    'quarter-rest': restName({ base: 'q', dots: 0 }, naming),
    'eighth-rest': restName({ base: 'e', dots: 0 }, naming),
    treble: t`treble clef`,
    bass: t`bass clef`,
  };
  return capital(NAMES[sign]);
}

const STROKES = perLanguage((): Readonly<Record<StrokeWords, string>> => ({
  'open-head': t`An open head: once round, and close it`,
  'fill-head': t`Fill the head`,
  'stem-up': t`The stem: straight up, on the right`,
  flag: t`The flag: from the top of the stem, to the right and down`,
  beam: t`The beam: from the first stem to the second`,
  'block-below': t`A block that hangs below the fourth line: down, across, up`,
  'block-above': t`A block that sits on the third line: up, across, down`,
  zig: t`Slanting down to the right`,
  zag: t`Slanting down to the left`,
  'zig-hook': t`Down to the right again, and a hook to the left`,
  'rest-hook': t`A little bow to the right`,
  'rest-stem': t`The slanting stem: down to the left`,
  'treble-dot': t`A dot on the second line`,
  'treble-round': t`Round to the left, up to the middle line and over`,
  'treble-down': t`Down to the first line`,
  'treble-up': t`Up and around, past the top`,
  'treble-over': t`Over, to the left`,
  'treble-through': t`Straight down through everything`,
  'treble-hook': t`A little hook to the left`,
  'bass-dot': t`A dot on the fourth line`,
  'bass-bow': t`Up to the fifth line, round, and down to just under the second`,
  'bass-upper-dot': t`A dot above the fourth line`,
  'bass-lower-dot': t`A dot below the fourth line`,
}));

export function strokeText(says: StrokeWords): string {
  return STROKES()[says];
}

const FAULTS = perLanguage((): Readonly<Record<StrokeFault, string>> => ({
  start: t`Begin at the round mark.`,
  backwards: t`The other way: begin at the round mark, end at the arrow.`,
  way: t`Stay on the grey line.`,
  short: t`Go on, up to the arrow.`,
  long: t`Stop at the arrow.`,
  end: t`End at the arrow.`,
  'not-filled': t`Fill all of it.`,
  'not-a-dot': t`Only a dot: touch it once.`,
  open: t`Close it: end where you began.`,
}));

export function faultText(fault: StrokeFault): string {
  return FAULTS()[fault];
}
