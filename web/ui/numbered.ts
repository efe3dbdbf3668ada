/** The first number that nothing of this name has yet. @example "Tie 2" */
export function numbered(title: string, taken: ReadonlySet<string>): string {
  let number = 1;
  while (taken.has(`${title} ${number}`)) number++;
  return `${title} ${number}`;
}
