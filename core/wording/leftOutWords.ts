import { perLanguage, t } from '../words/say.ts';
import { LEFT_OUT_KINDS, type LeftOut, type LeftOutKind } from '../formats/piece.ts';

/** One and several of each kind. */
const NAMES = perLanguage((): Readonly<Record<LeftOutKind, readonly [string, string]>> => ({
  pitches: [t`the pitch of one note`, t`the pitches of # notes`],
  'chord-notes': [t`one further note of a chord`, t`# further notes of chords`],
  'close-notes': [t`one note too close to the next to be written`, t`# notes too close to the next to be written`],
  'grace-notes': [t`one grace note`, t`# grace notes`],
  'cue-notes': [t`one cue note`, t`# cue notes`],
  ornaments: [t`one ornament`, '# ornaments'],
  articulations: [t`one articulation`, '# articulations'],
  slurs: [t`one slur`, '# slurs'],
  dynamics: [t`one dynamic mark`, t`# dynamic marks`],
  words: [t`one line of words`, t`# lines of words`],
  lyrics: [t`one sung syllable`, t`# sung syllables`],
  'chord-symbols': [t`one chord symbol`, t`# chord symbols`],
  'tempo-marks': [t`one change of tempo`, t`# changes of tempo`],
  jumps: [t`one jump (such as da capo)`, t`# jumps (such as da capo)`],
  overlays: [t`one second line in a measure`, t`# second lines in measures`],
  'open-ties': [t`one tie that leads nowhere`, t`# ties that lead nowhere`],
  characters: [t`one sign that cannot be read`, t`# signs that cannot be read`],
  unreadable: [t`one broken track`, t`# broken tracks`],
  'cut-off': [t`what came after the place where the file is cut off`, t`what came after # places where it is cut off`],
}));

const counted = ([one, several]: readonly [string, string], count: number) =>
  count === 1 ? one : several.replace('#', String(count));

/** @param others  parts and voices of the file that were not chosen */
export function leftOutList(leftOut: LeftOut, others: { readonly parts: number; readonly voices: number }): string[] {
  const kinds = LEFT_OUT_KINDS.flatMap((kind) => {
    const count = leftOut[kind];
    return count === undefined ? [] : [counted(NAMES()[kind], count)];
  });
  return [
    ...(others.parts > 0 ? [counted([t`one other part`, t`# other parts`], others.parts)] : []),
    ...(others.voices > 0 ? [counted([t`one other voice`, t`# other voices`], others.voices)] : []),
    ...kinds,
  ];
}
