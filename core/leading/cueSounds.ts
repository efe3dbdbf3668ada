import type { Sound, Struck } from '../sound/sounds.ts';
import { recordingOf } from './spokenWords.ts';
import type { Cue } from './cue.ts';

/** What the teacher can turn up, down and off. */
export const CHANNEL_IDS = ['click', 'count', 'syllables', 'claps', 'feet'] as const;
export type Channel = (typeof CHANNEL_IDS)[number];

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
      const word = cue.recorded ?? recordingOf(cue.text);
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
