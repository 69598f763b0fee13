import type { Obstacle } from './geometry';

/**
 * Upper and lower outline of what is drawn on a line, by columns one pixel wide. The staff itself is not ink here:
 * slurs may lie across it. Where nothing is drawn the top is infinitely low and the bottom infinitely high.
 */
export class Skyline {
  private readonly tops: Float64Array;
  private readonly bottoms: Float64Array;

  constructor(width: number) {
    this.tops = new Float64Array(Math.max(1, Math.ceil(width) + 1)).fill(Infinity);
    this.bottoms = new Float64Array(this.tops.length).fill(-Infinity);
  }

  add({ left, right, top, bottom }: Obstacle): void {
    const [from, to] = this.columns(left, right);
    for (let column = from; column <= to; column++) {
      if (top < this.tops[column]!) this.tops[column] = top;
      if (bottom > this.bottoms[column]!) this.bottoms[column] = bottom;
    }
  }

  /** Highest ink between two x. */
  top(left: number, right: number): number {
    const [from, to] = this.columns(left, right);
    let highest = Infinity;
    for (let column = from; column <= to; column++) highest = Math.min(highest, this.tops[column]!);
    return highest;
  }

  /** Lowest ink between two x. */
  bottom(left: number, right: number): number {
    const [from, to] = this.columns(left, right);
    let lowest = -Infinity;
    for (let column = from; column <= to; column++) lowest = Math.max(lowest, this.bottoms[column]!);
    return lowest;
  }

  private columns(left: number, right: number): [number, number] {
    const last = this.tops.length - 1;
    const clamp = (x: number) => Math.min(last, Math.max(0, Math.round(x)));
    return [clamp(Math.min(left, right)), clamp(Math.max(left, right))];
  }
}
