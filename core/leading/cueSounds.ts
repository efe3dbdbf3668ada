import type { Sound, Struck } from '../sound/sounds.ts';
import { recordingOf } from './spokenWords.ts';
import type { Cue } from './cue.ts';

/** What the teacher can turn up, down and off. */
export const CHANNEL_IDS = ['click', 'count', 'syllables', 'claps', 'feet'] as const;
export type Channel = (typeof CHANNEL_IDS)[number];

/** The word a cue speaks, if it speaks; one of which the app has no recording may be in a teacher's own voice. */
export function wordOfCue({ kind, recorded, text }: Pick<Cue, 'kind' | 'recorded' | 'text'>): string | undefined {
  if (kind !== 'count-in' && kind !== 'syllable') return undefined;
  return recorded ?? recordingOf(text) ?? (/^\p{L}+$/u.test(text) ? text.toLowerCase() : undefined);
}

/** Which sound a cue makes and on which channel; undefined for what is only shown. */
export function soundOf(
  cue: Cue,
  clapAs: Struck = 'clap',
): { readonly channel: Channel; readonly sound: Sound } | undefined {
  if (!cue.sounds) return undefined;
  switch (cue.kind) {
    case 'click':
      return { channel: 'click', sound: { kind: 'click', accent: cue.accent } };
    case 'count-in':
    case 'syllable': {
      const word = wordOfCue(cue);
      return word === undefined
        ? undefined
        : {
            channel: cue.kind === 'count-in' ? 'count' : 'syllables',
            sound: { kind: 'word', word, whispered: cue.whispered },
          };
    }
    case 'clap':
      return { channel: 'claps', sound: { kind: cue.struck ?? clapAs } };
    case 'tone':
      return { channel: 'claps', sound: { kind: 'tone', seconds: cue.seconds } };
    case 'foot':
      return { channel: 'feet', sound: { kind: 'stamp' } };
    default:
      return undefined;
  }
}
