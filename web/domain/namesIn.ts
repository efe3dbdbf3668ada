import type { ClassDetail } from '../../contract/schoolClass.ts';

/** Things by their ids, as they are called. */
export function namesOf(
  things: readonly { readonly id: string; readonly name: string }[],
): Readonly<Record<string, string>> {
  return Object.fromEntries(things.map(({ id, name }) => [id, name]));
}

/** The children of a class by their ids. */
export function namesIn({ children }: Pick<ClassDetail, 'children'>): Readonly<Record<string, string>> {
  return namesOf(children);
}
