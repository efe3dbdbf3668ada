import { useEffect } from 'react';
import type { Language } from '../../core/words/say.ts';
import { speak } from '../words/language.ts';

/** The page of a child is in the language of its class, as soon as the class is known. */
export function useSpokenIn(language: Language | null | undefined): void {
  useEffect(() => {
    if (language) void speak(language);
  }, [language]);
}
