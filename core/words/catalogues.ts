import { IntlMessageFormat } from 'intl-messageformat';
import { LANGUAGES, type Language, type Put, SOURCE, type Speech } from './say.ts';

/** Sentences of a language by their English keys, as messages of ICU. */
export type Catalogue = Readonly<Record<string, string>>;

/**
 * Rooms whose sentences are loaded together; the core’s are said by all others too. `room` is what the page of
 * children’s own devices says, of the core too: it loads nothing else.
 */
export type CatalogueRoom = 'core' | 'web' | 'room' | 'server' | 'cli';

type Load = () => Promise<{ readonly default: Catalogue }>;

/** A row a language: where its catalogues lie. English needs none. */
const CATALOGUES: Readonly<Record<Exclude<Language, typeof SOURCE>, Readonly<Record<CatalogueRoom, Load>>>> = {
  de: {
    core: () => import('./de/core.json'),
    web: () => import('./de/web.json'),
    room: () => import('./de/room.json'),
    server: () => import('./de/server.json'),
    cli: () => import('./de/cli.json'),
  },
  es: {
    core: () => import('./es/core.json'),
    web: () => import('./es/web.json'),
    room: () => import('./es/room.json'),
    server: () => import('./es/server.json'),
    cli: () => import('./es/cli.json'),
  },
};

/** Speaks a language from catalogues. A message is read when it is first said. */
export function speechOf(language: Language, catalogues: readonly Catalogue[]): Speech {
  const { locale, decimal } = LANGUAGES[language];
  const read = new Map<string, IntlMessageFormat>();
  const find = (key: string) => {
    const known = read.get(key);
    if (known) return known;
    const text = catalogues.find((one) => Object.hasOwn(one, key))?.[key];
    if (text === undefined) return undefined;
    const message = new IntlMessageFormat(text, locale, undefined, { ignoreTag: true });
    read.set(key, message);
    return message;
  };
  // A whole number stays one, for it may decide about a plural.
  const written = (value: Put) =>
    typeof value === 'number' && !Number.isInteger(value) ? String(value).replace('.', decimal) : (value ?? '');
  return {
    language,
    say: (key, values) => {
      const said = find(key)?.format(Object.fromEntries(values.map((value, i) => [i, written(value)])));
      return said === undefined ? undefined : String(said);
    },
  };
}

const loading = new Map<string, Promise<Speech>>();

/**
 * Loads what a room says in a language, with what the core says, once; undefined for English, which is in the program.
 */
export async function loadSpeech(language: Language, room: CatalogueRoom): Promise<Speech | undefined> {
  if (language === SOURCE) return undefined;
  const key = `${language} ${room}`;
  if (!loading.has(key)) loading.set(key, load(language, room));
  return loading.get(key)!.catch((error: unknown) => {
    // What could not be fetched is fetched again the next time.
    loading.delete(key);
    throw error;
  });
}

async function load(language: Exclude<Language, typeof SOURCE>, room: CatalogueRoom): Promise<Speech> {
  const rooms = CATALOGUES[language];
  const loaded = await Promise.all((room === 'room' ? [room] : [room, 'core' as const]).map((one) => rooms[one]()));
  return speechOf(
    language,
    loaded.map((one) => one.default),
  );
}
