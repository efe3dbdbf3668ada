import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { LICENCES, type Licence } from '../../contract/licences.ts';

const PACKAGES = 'node_modules';

/** What of the pages no map names: styles, fonts, what keeps the app on a device. */
const BESIDE_CODE = [
  '@fontsource/atkinson-hyperlegible-next',
  '@vexflow-fonts/bravura',
  'bootstrap',
  'workbox-core',
  'workbox-precaching',
  'workbox-routing',
  'workbox-strategies',
];

/** The package that a file belongs to; undefined for one of our own. */
export function packageOf(file: string): string | undefined {
  const inside = file.slice(file.lastIndexOf(`${PACKAGES}/`) + PACKAGES.length + 1);
  if (!file.includes(`${PACKAGES}/`)) return undefined;
  const [first, second] = inside.split('/');
  return first!.startsWith('@') ? `${first}/${second}` : first;
}

/** Of which code was built into the pages: told by the maps from there to the sources. */
function packagesInMaps(maps: string): string[] {
  return readdirSync(maps).flatMap((name) => {
    const { sources } = JSON.parse(readFileSync(join(maps, name), 'utf8')) as { sources: string[] };
    return sources.map(packageOf).filter((one) => one !== undefined);
  });
}

/** What is installed with the server, by the lock file. */
export function packagesOfServer(): string[] {
  const { packages } = JSON.parse(readFileSync('package-lock.json', 'utf8')) as {
    packages: Record<string, { dev?: boolean; devOptional?: boolean }>;
  };
  return Object.entries(packages)
    .filter(([path, { dev = false, devOptional = false }]) => path !== '' && !dev && !devOptional)
    .map(([path]) => packageOf(path)!);
}

interface Described {
  readonly version: string;
  readonly license?: string | { readonly type: string };
  readonly licenses?: readonly { readonly type: string }[];
}

const IS_LICENCE = /^(licen[cs]e|copying|ofl)([-._].*)?$/i;

function licenceOf(name: string): Licence | undefined {
  const folder = join(PACKAGES, name);
  // Packages that only another system needs are in the lock file and not here.
  if (!existsSync(join(folder, 'package.json'))) return undefined;
  const { version, license, licenses } = JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8')) as Described;
  const file = readdirSync(folder).find((one) => IS_LICENCE.test(one));
  const text = file === undefined ? '' : readFileSync(join(folder, file), 'utf8').trim();
  const named = license ?? licenses?.[0];
  // A package that does not say its kind begins its licence with it.
  const kind = (typeof named === 'string' ? named : named?.type) ?? text.split('\n')[0]!;
  return { name, version, kind, text };
}

/** The licences of everything that ships, by name: code, styles and fonts of the pages, packages of the server. */
export function licencesOf(maps: string): Licence[] {
  const names = new Set([...BESIDE_CODE, ...packagesInMaps(maps), ...packagesOfServer()]);
  return [...names]
    .sort()
    .map(licenceOf)
    .filter((one) => one !== undefined);
}

/** Writes them beside the pages. */
export function writeLicences(pages: string, maps: string): void {
  writeFileSync(join(pages, LICENCES), JSON.stringify(licencesOf(maps)));
}
