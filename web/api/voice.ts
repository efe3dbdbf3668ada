import fitsVoice from 'virtual:fits/voice';
import type { Voice } from '../../contract/voice.ts';
import { useGet } from './useGet.ts';

export const VOICE_PATH = '/account/voice';

/** The teacher's own voice: a large answer, asked for once. */
export const useVoice = () =>
  useGet<Voice>(VOICE_PATH, fitsVoice, {
    revalidateOnFocus: false,
    revalidateIfStale: false,
    revalidateOnReconnect: false,
  });
