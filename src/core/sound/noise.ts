/** Seeded white noise from -1 to 1: xorshift on 32 bits; the same seed gives the same samples everywhere. */
export class Noise {
  private state: number;

  constructor(seed: number) {
    this.state = (seed | 0) === 0 ? 0x9e3779b9 : seed | 0;
  }

  next(): number {
    let x = this.state;
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    this.state = x;
    return x / 0x80000000;
  }
}
