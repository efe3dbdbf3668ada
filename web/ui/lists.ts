/** Lists that are changed by making new ones. */

export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const next = [...list];
  next.splice(to, 0, ...next.splice(from, 1));
  return next;
}

export function replaced<T>(list: readonly T[], at: number, item: T): T[] {
  return list.map((old, i) => (i === at ? item : old));
}

export function without<T>(list: readonly T[], at: number): T[] {
  return list.filter((_, i) => i !== at);
}

/** A set with something in it that was not, or without it. */
export function toggled<T>(set: ReadonlySet<T>, item: T): ReadonlySet<T> {
  const next = new Set(set);
  if (!next.delete(item)) next.add(item);
  return next;
}
