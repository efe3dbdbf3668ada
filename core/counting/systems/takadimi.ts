import { perLanguage, t } from '../../words/say.ts';
import { byGroups } from '../byGroups.ts';
import { NO_SYLLABLE, PLACE_MEANINGS, beatsHeld, beatsInside, placeOf, vowelOf } from '../beatPlace.ts';
import { type CountedEvent, type CountingSystem, speechRules, type Words } from '../countingSystem.ts';

function syllable(event: CountedEvent, words: Words): string {
  const { place } = placeOf(event);
  return (place && words[place]) ?? NO_SYLLABLE;
}

/** @example onset 1/2, length 1 → "di-i"; a rest of two beats → "ta-ta" */
function note(event: CountedEvent, words: Words): string {
  const said = syllable(event, words);
  const further = beatsInside(event).length;
  return further === 0 ? said : said + `-${event.kind === 'rest' ? words['beat']! : vowelOf(said)}`.repeat(further);
}

/** The vowel once for each beat start it sounds through, at least once. */
function tied(event: CountedEvent, words: Words): string {
  const vowel = vowelOf(syllable(event.sounding?.event ?? event, words));
  return `-${vowel}`.repeat(Math.max(1, beatsHeld(event).length));
}

export const takadimi = perLanguage((): CountingSystem => ({
  title: t`Takadimi (by place in the beat)`,
  words: {
    beat: 'ta',
    quarter1: 'ka',
    half: 'di',
    quarter3: 'mi',
    third1: 'ki',
    third2: 'da',
    sixth1: 'va',
    sixth3: 'di',
    sixth5: 'ma',
  },
  meanings: { beat: t`on the beat`, ...PLACE_MEANINGS() },
  rests: 'parens',
  sees: byGroups,
  note,
  tied,
  tiedByVowel: true,
  speech: speechRules({
    order: 4,
    aliases: {
      tah: 'beat',
      kah: 'quarter1',
      dee: 'half',
      mee: 'quarter3',
      kee: 'third1',
      dah: 'third2',
      vah: 'sixth1',
    },
  }),
}));
