import { LEFT_OUT_KINDS, type LeftOut, type LeftOutKind } from '../formats/piece.ts';

/** One and several of each kind. */
const NAMES: Readonly<Record<LeftOutKind, readonly [string, string]>> = {
  pitches: ['the pitch of one note', 'the pitches of # notes'],
  'chord-notes': ['one further note of a chord', '# further notes of chords'],
  'close-notes': ['one note too close to the next to be written', '# notes too close to the next to be written'],
  'grace-notes': ['one grace note', '# grace notes'],
  'cue-notes': ['one cue note', '# cue notes'],
  ornaments: ['one ornament', '# ornaments'],
  articulations: ['one articulation', '# articulations'],
  slurs: ['one slur', '# slurs'],
  dynamics: ['one dynamic mark', '# dynamic marks'],
  words: ['one line of words', '# lines of words'],
  lyrics: ['one sung syllable', '# sung syllables'],
  'chord-symbols': ['one chord symbol', '# chord symbols'],
  'tempo-marks': ['one change of tempo', '# changes of tempo'],
  jumps: ['one jump (such as da capo)', '# jumps (such as da capo)'],
  overlays: ['one second line in a measure', '# second lines in measures'],
  'open-ties': ['one tie that leads nowhere', '# ties that lead nowhere'],
  characters: ['one sign that cannot be read', '# signs that cannot be read'],
  unreadable: ['one broken track', '# broken tracks'],
  'cut-off': ['what came after the place where the file is cut off', 'what came after # places where it is cut off'],
};

const counted = ([one, several]: readonly [string, string], count: number) =>
  count === 1 ? one : several.replace('#', String(count));

/** @param others  parts and voices of the file that were not chosen */
export function leftOutList(leftOut: LeftOut, others: { readonly parts: number; readonly voices: number }): string[] {
  const kinds = LEFT_OUT_KINDS.flatMap((kind) => {
    const count = leftOut[kind];
    return count === undefined ? [] : [counted(NAMES[kind], count)];
  });
  return [
    ...(others.parts > 0 ? [counted(['one other part', '# other parts'], others.parts)] : []),
    ...(others.voices > 0 ? [counted(['one other voice', '# other voices'], others.voices)] : []),
    ...kinds,
  ];
}
