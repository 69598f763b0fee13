import type { Seconds } from '#core/base';

/** Reads a list of things in order of their beginnings as time goes on; `seek` goes anywhere. */
export class Timeline<T> {
  private place = 0;

  constructor(
    private readonly items: readonly T[],
    private readonly beginOf: (item: T) => Seconds,
  ) {}

  /** Things before a time are left behind. Time O(log n). */
  seek(time: Seconds): void {
    let low = 0;
    let high = this.items.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.beginOf(this.items[middle]!) < time) low = middle + 1;
      else high = middle;
    }
    this.place = low;
  }

  /** The last thing that has begun; null before the first. */
  current(time: Seconds): T | null {
    while (this.place < this.items.length && this.beginOf(this.items[this.place]!) <= time) this.place += 1;
    return this.place > 0 ? this.items[this.place - 1]! : null;
  }

  /** The next thing that has begun by now and was not taken yet, null when there is none. */
  take(time: Seconds): T | null {
    const item = this.items[this.place];
    if (item === undefined || this.beginOf(item) > time) return null;
    this.place += 1;
    return item;
  }
}
