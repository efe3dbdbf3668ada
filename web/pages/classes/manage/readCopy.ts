import { perLanguage, t } from '../../../../core/words/say.ts';
import { v5 as uuidFrom } from 'uuid';
import fitsCopy from 'virtual:fits/class-copy';
import type { ClassCopy, ClassPieces, CopiedSound } from '../../../../contract/classCopy.ts';
import type { SavedPattern } from '../../../../contract/pattern.ts';
import { partKey } from '../../../../core/records/partKey.ts';

const CUT_OFF = perLanguage(() => t`This file cannot be read: it is no class that was saved here, or it was cut off.`);
const NO_CLASS = perLanguage(
  () => t`There is no class in this file. Choose one that was saved under a class, More, Save as a file.`,
);
const CHANGED = perLanguage(
  () => t`This file was changed after it was saved, and does not fit together any more. Save it
    once more where it came from.`,
);
const NEWER = perLanguage(() => t`This file comes from a newer Clapboard. Read it in there, or have this one renewed.`);

/** @returns the class in a file; a sentence where there is none */
export function readCopy(text: string): ClassCopy | string {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return CUT_OFF();
  }
  if (fitsCopy(data)) return data as ClassCopy;
  const { kind, version } = (data ?? {}) as { kind?: unknown; version?: unknown };
  if (kind !== 'clapboard-class') return NO_CLASS();
  return version === 1 ? CHANGED() : NEWER();
}

/**
 * The class of a file as a new one: everything gets a name of its own, so that the one it came from may stand beside
 * it. The same file under the same id is always the same, so that reading in goes on where it broke off.
 * @param classId  of the class that is made
 * @param known  the teacher's patterns: one that is there already, word for word, is used
 */
export function renamed(copy: ClassCopy, classId: string, known: readonly SavedPattern[]): ClassCopy {
  const names = new Map<string, string>();
  const anew = (things: readonly { readonly id: string }[]) => {
    for (const { id } of things) names.set(id, uuidFrom(id, classId));
  };
  const { children, takes, paper, lineUps, practice, terms, ear = [], together = [], lessons = [] } = copy;
  for (const things of [children, takes, paper, lineUps, practice, terms, ear, together, lessons]) anew(things);
  for (const { id, title, text } of copy.patterns) {
    const same = known.find((one) => one.title === title && one.text === text);
    names.set(id, same?.id ?? uuidFrom(id, classId));
  }
  for (const { patternId, part } of takes) {
    if (patternId === null || !part) continue;
    names.set(partKey(patternId, part), partKey(names.get(patternId) ?? patternId, part));
  }
  const walk = (value: unknown): unknown => {
    if (typeof value === 'string') return names.get(value) ?? value;
    if (Array.isArray(value)) return value.map(walk);
    if (typeof value !== 'object' || value === null) return value;
    return Object.fromEntries(Object.entries(value).map(([key, one]) => [names.get(key) ?? key, walk(one)]));
  };
  // Texts and sounds hold no names, and are long.
  const { sounds, ...rest } = copy;
  return {
    ...(walk(rest) as Omit<ClassCopy, 'sounds'>),
    sounds: sounds.map((sound) => ({ ...sound, takeId: names.get(sound.takeId) ?? sound.takeId })),
  };
}

/** A request is not to be larger than this, in letters. */
const LARGEST = 200_000;

/** All but children, patterns and sounds, in requests that are not too large; terms first: the rest hangs on them. */
export function piecesOf(copy: ClassCopy): ClassPieces[] {
  const { termFrom, terms, paper, practice, ear = [], together = [], lessons = [], termPlan, takes, lineUps } = copy;
  const cut = <K extends keyof ClassPieces>(kind: K, things: readonly unknown[]): ClassPieces[] => {
    const pieces: ClassPieces[] = [];
    let [some, size]: [unknown[], number] = [[], 0];
    const close = () => {
      if (some.length > 0) pieces.push({ [kind]: some });
      [some, size] = [[], 0];
    };
    for (const thing of things) {
      const more = JSON.stringify(thing).length;
      if (size + more > LARGEST || some.length === 400) close();
      some.push(thing);
      size += more;
    }
    close();
    return pieces;
  };
  // Together those of one child: its records are made once for each piece.
  const byChild = [...takes].sort((a, b) => (a.childId === b.childId ? 0 : a.childId < b.childId ? -1 : 1));
  return [
    ...cut(
      'terms',
      [...terms].sort((a, b) => a.untilAt - b.untilAt),
    ),
    { termFrom },
    ...cut('takes', byChild),
    ...cut('paper', paper),
    ...cut('lineUps', lineUps),
    ...cut('practice', practice),
    ...cut('ear', ear),
    ...cut('together', together),
    ...cut('lessons', lessons),
    ...(termPlan ? [{ termPlan }] : []),
  ];
}

/** A recording as it is sent. */
export function soundIn({ mime, base64 }: CopiedSound): Blob {
  return new Blob([Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0))], { type: mime });
}
