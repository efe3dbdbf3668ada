/** Gives back first what promises to cost least. */
export class Heap<T extends { readonly promise: number }> {
  private readonly items: T[] = [];

  /** What the next one promises; Infinity when there is none. */
  get least(): number {
    return this.items[0]?.promise ?? Infinity;
  }

  push(item: T): void {
    const { items } = this;
    let i = items.push(item) - 1;
    for (let up = (i - 1) >> 1; i > 0 && items[up]!.promise > item.promise; up = (i - 1) >> 1) {
      items[i] = items[up]!;
      i = up;
    }
    items[i] = item;
  }

  pop(): T | undefined {
    const { items } = this;
    const top = items[0];
    const last = items.pop();
    if (items.length === 0 || last === undefined) return top;
    let i = 0;
    for (;;) {
      let least = 2 * i + 1;
      if (least >= items.length) break;
      if (least + 1 < items.length && items[least + 1]!.promise < items[least]!.promise) least++;
      if (items[least]!.promise >= last.promise) break;
      items[i] = items[least]!;
      i = least;
    }
    items[i] = last;
    return top;
  }
}
