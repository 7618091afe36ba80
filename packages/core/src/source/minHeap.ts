/** Hands out what was put in, the least first; equal ones in any order. */
export class MinHeap<Item> {
  private readonly items: Item[] = [];
  private readonly isBefore: (a: Item, b: Item) => boolean;

  constructor(isBefore: (a: Item, b: Item) => boolean) {
    this.isBefore = isBefore;
  }

  get size(): number {
    return this.items.length;
  }

  push(item: Item): void {
    const { items } = this;
    let at = items.push(item) - 1;
    while (at > 0) {
      const parent = (at - 1) >> 1;
      if (!this.isBefore(item, items[parent]!)) break;
      items[at] = items[parent]!;
      at = parent;
    }
    items[at] = item;
  }

  pop(): Item | undefined {
    const { items } = this;
    const first = items[0];
    const last = items.pop();
    if (items.length === 0 || last === undefined) return first;
    let at = 0;
    for (;;) {
      let child = 2 * at + 1;
      if (child >= items.length) break;
      if (child + 1 < items.length && this.isBefore(items[child + 1]!, items[child]!)) child++;
      if (!this.isBefore(items[child]!, last)) break;
      items[at] = items[child]!;
      at = child;
    }
    items[at] = last;
    return first;
  }
}
