import type { Child } from '../../../contract/child.ts';

/** The id of the child whose name stands in the name of a file as a word of its own; "" when there is none. */
export function childInName(fileName: string, children: readonly Pick<Child, 'id' | 'name'>[]): string {
  const words = fileName
    .toLowerCase()
    .replace(/\.[^.]+$/, '')
    .split(/[^\p{L}\p{N}]+/u);
  return children.find(({ name }) => words.includes(name.toLowerCase()))?.id ?? '';
}
