/** Places that are there from the first. */
const FIRST_PLACES = 1 << 14;

/** Where no path comes from. */
export const NOWHERE = -1;

/**
 * Ways through the plan, as a tree of the beginnings of notes: each knows the one before it. In order of time, so what
 * comes before has the smaller number. Beginnings that no way leads over any more are let go now and then, since nearly
 * all ways that are alive have come from one place a few notes ago: memory is for those alive and one way to each.
 */
export class Paths {
  count = 0;
  note = new Int32Array(FIRST_PLACES);
  time = new Int32Array(FIRST_PLACES);
  score = new Float64Array(FIRST_PLACES);
  /** Sum of the note's scores where it began. */
  base = new Float64Array(FIRST_PLACES);
  previous = new Int32Array(FIRST_PLACES);
  tempo = new Float64Array(FIRST_PLACES);
  /** How many times longer than planned notes are at that tempo. */
  pace = new Float64Array(FIRST_PLACES);
  /** Notes left out before it. */
  leftOut = new Int8Array(FIRST_PLACES);
  /** Whether it was gone to from elsewhere, and when the note before it ended then. */
  isJump = new Uint8Array(FIRST_PLACES);
  endBefore = new Int32Array(FIRST_PLACES);
  private keptLast = 0;

  /** A new beginning, to be written by who asks for it. */
  add(): number {
    if (this.count === this.note.length) this.grow();
    return this.count++;
  }

  /** Whether so many have come since the last clearing that another is worth its time. */
  get isFull(): boolean {
    return this.count >= FIRST_PLACES && this.count > 2 * this.keptLast;
  }

  /**
   * Lets go of all that none of these can be reached from. Time O(count).
   * @returns for each beginning its new number, `NOWHERE` if it is gone
   */
  keep(wanted: Iterable<number>): Int32Array {
    const numbers = new Int32Array(this.count).fill(NOWHERE);
    for (const node of wanted) if (node >= 0) numbers[node] = node;
    for (let node = this.count - 1; node >= 0; node--)
      if (numbers[node]! >= 0 && this.previous[node]! >= 0) numbers[this.previous[node]!] = this.previous[node]!;
    const columns = this.columns();
    let kept = 0;
    for (let node = 0; node < this.count; node++) {
      if (numbers[node]! < 0) continue;
      for (const column of columns) column[kept] = column[node]!;
      const before = this.previous[node]!;
      this.previous[kept] = before < 0 ? NOWHERE : numbers[before]!;
      numbers[node] = kept;
      kept += 1;
    }
    this.count = kept;
    this.keptLast = kept;
    return numbers;
  }

  private columns() {
    const { note, time, score, base, tempo, pace, leftOut, isJump, endBefore } = this;
    return [note, time, score, base, tempo, pace, leftOut, isJump, endBefore];
  }

  private grow(): void {
    const larger = <T extends { set(from: T): void }>(column: T, made: T): T => {
      made.set(column);
      return made;
    };
    const size = 2 * this.note.length;
    this.note = larger(this.note, new Int32Array(size));
    this.time = larger(this.time, new Int32Array(size));
    this.score = larger(this.score, new Float64Array(size));
    this.base = larger(this.base, new Float64Array(size));
    this.previous = larger(this.previous, new Int32Array(size));
    this.tempo = larger(this.tempo, new Float64Array(size));
    this.pace = larger(this.pace, new Float64Array(size));
    this.leftOut = larger(this.leftOut, new Int8Array(size));
    this.isJump = larger(this.isJump, new Uint8Array(size));
    this.endBefore = larger(this.endBefore, new Int32Array(size));
  }
}
