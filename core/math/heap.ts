/** A binary heap: what has the least bound comes out first. */
export class Heap<T> {
  private readonly items: T[] = [];
  private readonly bounds: number[] = [];

  push(item: T, bound: number): void {
    const { items, bounds } = this;
    let i = items.length;
    items.push(item);
    bounds.push(bound);
    while (i > 0) {
      const up = (i - 1) >> 1;
      if (bounds[up]! <= bound) break;
      items[i] = items[up]!;
      bounds[i] = bounds[up]!;
      i = up;
    }
    items[i] = item;
    bounds[i] = bound;
  }

  pop(): T | undefined {
    const { items, bounds } = this;
    const top = items[0];
    const last = items.pop();
    const bound = bounds.pop();
    if (last === undefined || bound === undefined || items.length === 0) return top;
    let i = 0;
    for (;;) {
      let down = 2 * i + 1;
      if (down >= items.length) break;
      if (down + 1 < items.length && bounds[down + 1]! < bounds[down]!) down++;
      if (bounds[down]! >= bound) break;
      items[i] = items[down]!;
      bounds[i] = bounds[down]!;
      i = down;
    }
    items[i] = last;
    bounds[i] = bound;
    return top;
  }
}
