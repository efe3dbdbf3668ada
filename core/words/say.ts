/**
 * Every language people read or hear the product in: a folder of catalogues and a row here. English is the source.
 * `voice` is espeak-ng’s, for the recorded counts.
 */
export const LANGUAGES = {
  en: { own: 'English', locale: 'en-GB', decimal: '.', voice: 'en-gb' },
  de: { own: 'Deutsch', locale: 'de-DE', decimal: ',', voice: 'de' },
  es: { own: 'Español', locale: 'es-ES', decimal: ',', voice: 'es' },
} as const satisfies Readonly<
  Record<string, { readonly own: string; readonly locale: string; readonly decimal: string; readonly voice: string }>
>;

export type Language = keyof typeof LANGUAGES;
export const LANGUAGE_IDS = Object.keys(LANGUAGES) as readonly Language[];
export const SOURCE = 'en' satisfies Language;

/** The language of a name such as "de", "de-AT" or "ES"; undefined where there is none. */
export function languageOf(name: string | undefined): Language | undefined {
  const short = name?.trim().toLowerCase().split(/[-_]/)[0];
  return short !== undefined && Object.hasOwn(LANGUAGES, short) ? (short as Language) : undefined;
}

/** What can stand in the places of a sentence. */
export type Put = string | number | null | undefined;

/** One language that can be spoken: its sentences, and how values are put into them. */
export interface Speech {
  readonly language: Language;
  /** The sentence of a key with its values put in; undefined where the catalogue has none. */
  readonly say: (key: string, values: readonly Put[]) => string | undefined;
}

/** Who reads just now. The page has one reader, a server has one for each request, so the host says it. */
let reader: () => Speech | undefined = () => undefined;
/** Within `inSpeech` another one: a sheet in the language of the class, while its teacher's page is in her own. */
let within: { readonly speech: Speech | undefined } | undefined;

/** For the host: who is asked for the language each time a sentence is made. Without a speech it is English. */
export function readWith(whoReads: () => Speech | undefined): void {
  reader = whoReads;
}

/** Everything said while `make` runs is said in this speech; undefined is English. Not across an await. */
export function inSpeech<T>(speech: Speech | undefined, make: () => T): T {
  const before = within;
  within = { speech };
  try {
    return make();
  } finally {
    within = before;
  }
}

export function currentSpeech(): Speech | undefined {
  return within ? within.speech : reader();
}

export function currentLanguage(): Language {
  return currentSpeech()?.language ?? SOURCE;
}

/** Speeches beside that of who reads: of a class that learns in another language. */
const others = new Map<Language, Speech>();
let fetchOther: (language: Language) => void = () => {};

/** For the host: who loads a language that is asked for and not there yet. */
export function loadOthersWith(load: (language: Language) => void): void {
  fetchOther = load;
}

export function keepSpeech(speech: Speech): void {
  others.set(speech.language, speech);
}

/**
 * What is made for a class is said in its language; without one, in that of who reads. A language that is not there
 * yet is asked for, and until it comes who reads has their own.
 */
export function inLanguage<T>(language: Language | null | undefined, make: () => T): T {
  if (!language || language === currentLanguage()) return make();
  if (language === SOURCE) return inSpeech(undefined, make);
  const speech = others.get(language);
  if (speech) return inSpeech(speech, make);
  fetchOther(language);
  return make();
}

const keys = new WeakMap<TemplateStringsArray, readonly string[]>();

/** A sentence may be broken where the line of the program ends: a line break with its indent is one space. */
export function piecesOf(parts: TemplateStringsArray): readonly string[] {
  let pieces = keys.get(parts);
  if (!pieces) {
    pieces = parts.map((part) => part.replace(/\s*\n\s*/g, ' '));
    keys.set(parts, pieces);
  }
  return pieces;
}

/** The key under which catalogues keep a sentence: its English with places {0}, {1} … */
export function keyOf(pieces: readonly string[]): string {
  return pieces.reduce((key, piece, i) => `${key}{${i - 1}}${piece}`);
}

/** The key of a number with what is counted; its translation has the forms of its language for {0}. */
export function countedKey(one: string, many: string): string {
  return `# ${one}|# ${many}`;
}

/**
 * A sentence for people, in the language of who reads: t`${name} claps again`. Its English is its key; catalogues in
 * `words/LANGUAGE` give the others, as messages of ICU with {0}, {1} … for what is put in. What a catalogue lacks is
 * said in English.
 */
export function t(parts: TemplateStringsArray, ...values: readonly Put[]): string {
  const pieces = piecesOf(parts);
  const speech = currentSpeech();
  const said = speech?.say(keyOf(pieces), values);
  return said ?? pieces.reduce((text, piece, i) => `${text}${values[i - 1] ?? ''}${piece}`);
}

/** "1 clap", "3 claps"; with an irregular plural `many`. */
export function counted(n: number, one: string, many = `${one}s`): string {
  return currentSpeech()?.say(countedKey(one, many), [n]) ?? `${n} ${n === 1 ? one : many}`;
}

/** A number as it is written in the language: "1.5" or "1,5". */
export function decimal(value: number | string): string {
  return String(value).replace('.', LANGUAGES[currentLanguage()].decimal);
}

/** Sentences that stand in a table of the program: made once for each language, when they are first asked for. */
export function perLanguage<T>(make: () => T): () => T {
  const made = new Map<Language, T>();
  return () => {
    const language = currentLanguage();
    if (!made.has(language)) made.set(language, make());
    return made.get(language)!;
  };
}
