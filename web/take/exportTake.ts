import { saveFile } from '../ui/saveFile.ts';
import type { Waiting } from '../store/keptTakes.ts';

/** A take that the server does not take, as files: what was played, and its sound where there is one. */
export function filesOf({ id, childName, upload, sound, refused }: Waiting): readonly (readonly [string, Blob])[] {
  const name = `take-${new Date(upload.takenAt).toISOString().slice(0, 16).replace(':', '')}-${id.slice(0, 8)}`;
  const told = { kind: 'clapboard take', id, child: childName, ...upload, ...(refused ? { notStored: refused } : {}) };
  const text = new Blob([JSON.stringify(told, null, 2)], { type: 'application/json' });
  const ending = sound?.type.split(';')[0]!.split('/')[1];
  return [[`${name}.json`, text], ...(sound ? [[`${name}.${ending || 'sound'}`, sound] as const] : [])];
}

/** Hands the files of a take to the browser to be saved. */
export function saveAsFiles(take: Waiting): void {
  for (const [name, file] of filesOf(take)) saveFile(name, file);
}
