import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import ts from 'typescript';
import type { Catalogue, CatalogueRoom } from '../../core/words/catalogues.ts';
import { type Language, countedKey, keyOf } from '../../core/words/say.ts';

/** Whose sentences a catalogue holds; what several rooms say is in the first that says it. */
const ROOMS = {
  core: ['core', 'contract', 'drawing'],
  web: ['web'],
  server: ['server'],
  cli: ['cli'],
} as const satisfies Readonly<Record<Exclude<CatalogueRoom, 'room'>, readonly string[]>>;

/** Where a sentence is said, for who translates it. */
export interface Sentence {
  readonly key: string;
  readonly room: keyof typeof ROOMS;
  /** The files in which it stands, with the line. */
  readonly places: readonly string[];
}

/** A break with its indent is one space, as the tag has it. */
const oneLine = (text: string) => text.replace(/\s*\n\s*/g, ' ');

function templateKey(template: ts.TemplateLiteral): string {
  if (ts.isNoSubstitutionTemplateLiteral(template)) return oneLine(template.text);
  return keyOf([template.head.text, ...template.templateSpans.map(({ literal }) => literal.text)].map(oneLine));
}

/** Keys said in a file: of the tags t and rich, and of what is counted with words that stand there. */
export function keysIn(name: string, source: string): { readonly key: string; readonly line: number }[] {
  const kind = name.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS;
  const file = ts.createSourceFile(name, source, ts.ScriptTarget.Latest, false, kind);
  const found: { key: string; line: number }[] = [];
  const add = (key: string, at: number) => found.push({ key, line: file.getLineAndCharacterOfPosition(at).line + 1 });
  const visit = (node: ts.Node): void => {
    if (ts.isTaggedTemplateExpression(node) && ts.isIdentifier(node.tag) && /^(t|rich)$/.test(node.tag.text))
      add(templateKey(node.template), node.pos);
    if (ts.isCallExpression(node) && ts.isIdentifier(node.expression) && node.expression.text === 'counted') {
      const [, one, many] = node.arguments;
      if (one && ts.isStringLiteral(one) && (!many || ts.isStringLiteral(many)))
        add(countedKey(one.text, many ? many.text : `${one.text}s`), node.pos);
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

function filesOf(folder: string): string[] {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.tsx?$/.test(name) && !/\.(test|test-helper|d)\.tsx?$/.test(name))
    .sort()
    .map((name) => join(folder, name));
}

/** Every sentence of the product. */
export function allSentences(): Sentence[] {
  const found = new Map<string, { room: keyof typeof ROOMS; places: string[] }>();
  for (const [room, folders] of Object.entries(ROOMS) as [keyof typeof ROOMS, readonly string[]][])
    for (const name of folders.flatMap(filesOf))
      for (const { key, line } of keysIn(name, readFileSync(name, 'utf8'))) {
        const known = found.get(key) ?? { room, places: [] };
        known.places.push(`${name}:${line}`);
        found.set(key, known);
      }
  return [...found].map(([key, at]) => ({ key, ...at }));
}

/** The modules a page is made of, those it loads later too. */
function modulesOf(entry: string, known = new Set<string>()): ReadonlySet<string> {
  if (known.has(entry) || !existsSync(entry)) return known;
  known.add(entry);
  const source = readFileSync(entry, 'utf8');
  for (const [, from] of source.matchAll(/(?:from|import\()\s*'(\.[^']+\.tsx?)'/g))
    modulesOf(join(dirname(entry), from!), known);
  return known;
}

/** The page of children's own devices loads only what it says itself. */
const ROOM_PAGE = 'web/room/main.tsx';

export type Catalogues = Readonly<Record<CatalogueRoom, Catalogue>>;

/**
 * Puts the messages of a language where the rooms look for them, in order.
 * @param messages  by key, wherever they stood
 * @returns the catalogues, and the sentences they lack
 */
export function sortedOut(
  messages: Catalogue,
  sentences: readonly Sentence[] = allSentences(),
): { catalogues: Catalogues; missing: readonly Sentence[] } {
  const pages = modulesOf(ROOM_PAGE);
  const catalogues: Record<CatalogueRoom, Record<string, string>> = {
    core: {},
    web: {},
    room: {},
    server: {},
    cli: {},
  };
  for (const { key, room, places } of [...sentences].sort((a, b) => (a.key < b.key ? -1 : 1))) {
    const message = messages[key];
    if (message === undefined) continue;
    catalogues[room][key] = message;
    if (places.some((place) => pages.has(place.replace(/:\d+$/, '')))) catalogues.room[key] = message;
  }
  return { catalogues, missing: sentences.filter(({ key }) => !Object.hasOwn(messages, key)) };
}

const fileOf = (language: Language, room: CatalogueRoom) => join('core/words', language, `${room}.json`);

/** The catalogues of a language as they lie there; a room without a file has none. */
export function readCatalogues(language: Language): Catalogues {
  const read = (room: CatalogueRoom) => {
    const file = fileOf(language, room);
    return (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : {}) as Catalogue;
  };
  return { core: read('core'), web: read('web'), room: read('room'), server: read('server'), cli: read('cli') };
}

export function writeCatalogues(language: Language, catalogues: Catalogues): void {
  mkdirSync(join('core/words', language), { recursive: true });
  for (const [room, catalogue] of Object.entries(catalogues) as [CatalogueRoom, Catalogue][])
    writeFileSync(fileOf(language, room), `${JSON.stringify(catalogue, null, 2)}\n`);
}
