import { type FromFiddle, type Programme, sameplace, type ToFiddle } from './programme';

/**
 * Where playing is: begins, goes on, comes round, takes over a new plan, ends. Knows nothing of sound, so that it is the
 * same with a sound device and without.
 */
export class Transport {
  private programme: Programme | null = null;
  private next: Programme | null = null;
  private rounds = 0;
  time = 0;

  get isPlaying(): boolean {
    return this.programme !== null;
  }

  get playing(): Programme | null {
    return this.programme;
  }

  /** Does as it is told; true where another plan, or another place of it, sounds from now on. */
  tell(message: ToFiddle): boolean {
    switch (message.kind) {
      case 'play': {
        const { programme, at } = message;
        this.time = at ?? (this.programme ? sameplace(this.programme, programme, this.time) : 0);
        if (at !== null) this.rounds = 0;
        this.programme = programme;
        this.next = null;
        return true;
      }
      case 'next':
        this.next = message.programme;
        return false;
      case 'stop':
        this.programme = null;
        this.next = null;
        return true;
      default:
        return false;
    }
  }

  /** Seconds until the plan comes round or ends; nothing while nothing is played. */
  get untilTurn(): number {
    if (!this.programme) return Infinity;
    return (this.programme.loop?.to ?? this.programme.plan.seconds) - this.time;
  }

  /** Comes round, or ends; true where another plan or place sounds from now on. */
  turn(): boolean {
    const { programme } = this;
    if (!programme) return false;
    if (!programme.loop && !this.next) {
      this.programme = null;
      return true;
    }
    if (programme.loop) this.rounds += 1;
    this.programme = this.next ?? programme;
    this.next = null;
    this.time = this.programme.loop?.from ?? 0;
    return true;
  }

  /** Time passes, however long: for playing without sound. */
  pass(seconds: number): void {
    let left = seconds;
    while (this.programme && left >= this.untilTurn) {
      left -= Math.max(0, this.untilTurn);
      this.turn();
    }
    this.time += left;
  }

  report(clock: number, underruns = 0): FromFiddle {
    return {
      clock,
      programme: this.programme?.id ?? 0,
      time: this.time,
      isPlaying: this.isPlaying,
      rounds: this.rounds,
      underruns,
    };
  }
}
