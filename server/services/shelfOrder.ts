/**
 * Two who put one list into order: what each moved lies where that hand laid it, behind the thing it was laid behind.
 * What is new in `now` stays where it is, what is gone from it is left out.
 * @param was  the order from which `wanted` was made
 * @param now  the order there is by now
 * @returns the order of both, and what both moved to different places, which is then left as it lies now
 */
export function mergedOrder(
  was: readonly string[],
  now: readonly string[],
  wanted: readonly string[],
): { readonly order: string[]; readonly both: string[] } {
  const there = new Set(now);
  const laid = wanted.filter((id) => there.has(id));
  const mine = movedIn(was, laid);
  const theirs = movedIn(was, now);
  const behind = (list: readonly string[], id: string) => list[list.indexOf(id) - 1];
  const both = [...mine].filter((id) => theirs.has(id) && behind(laid, id) !== behind(now, id));
  const order = [...now];
  for (const id of laid) {
    if (!mine.has(id) || both.includes(id)) continue;
    order.splice(order.indexOf(id), 1);
    const before = behind(laid, id);
    order.splice(before === undefined ? 0 : order.indexOf(before) + 1, 0, id);
  }
  return { order, both };
}

/** What does not lie in its old order any more: as few as explain the new one. */
function movedIn(was: readonly string[], list: readonly string[]): Set<string> {
  const place = new Map(was.map((id, i) => [id, i]));
  const known = list.filter((id) => place.has(id));
  /** The last of the best row of each length, and who stands before each. */
  const ends: string[] = [];
  const before = new Map<string, string | undefined>();
  for (const id of known) {
    const longer = ends.findIndex((end) => place.get(end)! > place.get(id)!);
    const at = longer < 0 ? ends.length : longer;
    before.set(id, ends[at - 1]);
    ends[at] = id;
  }
  const moved = new Set(known);
  for (let id = ends.at(-1); id !== undefined; id = before.get(id)) moved.delete(id);
  return moved;
}
