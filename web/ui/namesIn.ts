import type { ClassDetail } from '../../contract/schoolClass.ts';

/** The children of a class by their ids. */
export function namesIn({ children }: Pick<ClassDetail, 'children'>): Readonly<Record<string, string>> {
  return Object.fromEntries(children.map(({ id, name }) => [id, name]));
}
