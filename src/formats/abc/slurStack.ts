interface OpenSlur {
  /** Where it was opened; null: it is left out. */
  readonly at: number | null;
  isClosed: boolean;
}

/**
 * The slurs that are open at a place of the text. Those open where a first ending begins run on into every ending, so
 * each may be closed once in each of them; what an ending opens stays within it.
 */
export class SlurStack {
  readonly endings = new Map<number, number>();
  private slurs: OpenSlur[] = [];
  /** Open where the first ending begins; null outside endings. */
  private carried: readonly OpenSlur[] | null = null;
  private ending = 0;

  get depth(): number {
    return this.slurs.length;
  }

  open(at: number | null): void {
    this.slurs.push({ at, isClosed: false });
  }

  /** Closes the innermost one and says where it was opened; undefined where none is open. */
  close(): number | null | undefined {
    const slur = this.slurs.pop();
    if (!slur) return undefined;
    slur.isClosed = true;
    if (this.carried?.includes(slur)) this.endings.set(this.ending, this.endings.get(this.ending)! + 1);
    return slur.at;
  }

  /** Begins an ending; returns where the slurs were opened that the ending before leaves open. */
  beginEnding(at: number, isFirst: boolean): number[] {
    if (isFirst) this.endEndings();
    const left = this.carried ? openedAt(this.slurs.filter((slur) => !this.carried!.includes(slur))) : [];
    this.carried ??= [...this.slurs];
    this.slurs = [...this.carried];
    this.ending = at;
    this.endings.set(at, 0);
    return left;
  }

  endEndings(): void {
    if (this.carried) this.slurs = this.slurs.filter((slur) => !(slur.isClosed && this.carried!.includes(slur)));
    this.carried = null;
  }

  /** Where the slurs still open were opened. */
  left(): number[] {
    return openedAt(this.slurs);
  }
}

const openedAt = (slurs: readonly OpenSlur[]) => slurs.flatMap(({ at }) => (at === null ? [] : [at]));
