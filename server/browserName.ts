import Bowser from 'bowser';

const LONGEST = 60;

/** A browser in a few words, as in “Firefox on Windows”; '' where it says nothing that is known. */
export function browserName(userAgent: string): string {
  if (userAgent === '') return '';
  const { browser, os, platform } = Bowser.parse(userAgent);
  const machine = platform.model ?? os.name;
  return [browser.name, machine].filter(Boolean).join(' on ').slice(0, LONGEST);
}
