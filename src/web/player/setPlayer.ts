import { perform } from '#core/performance';
import type { TuneReport } from '#core/report';
import { type Engine, startEngine } from './engine';
import type { PlaySettings } from './listenSettings';
import { type FromFiddle, programmeOf } from './programme';

/** One time through a tune of a set. */
export interface Leg {
  /** Place of the tune in the set, from 0. */
  readonly tune: number;
  /** From 1. */
  readonly time: number;
  readonly report: TuneReport;
}

export interface SetPlayerState {
  readonly status: 'idle' | 'starting' | 'playing';
  /** There is no sound device. */
  readonly isSilent: boolean;
  /** What sounds now; null while nothing does. */
  readonly leg: Leg | null;
}

const IDLE: SetPlayerState = { status: 'idle', isSilent: false, leg: null };

/** Plays tunes one after another without a gap: each is made to sound while the one before it plays. */
export class SetPlayer {
  private engine: Promise<Engine> | null = null;
  private sounding: Engine | null = null;
  private state = IDLE;
  private legs: readonly Leg[] = [];
  private settings: PlaySettings | null = null;
  /** Something of it was heard: what was told before is of no concern. */
  private hasBegun = false;
  private readonly listeners = new Set<() => void>();

  constructor(private readonly start: typeof startEngine = startEngine) {}

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly snapshot = (): SetPlayerState => this.state;

  /** Plays from a leg to the end; sound begins only upon a user's action. */
  async play(legs: readonly Leg[], from: number, settings: PlaySettings): Promise<void> {
    if (!legs[from]) return;
    this.legs = legs;
    this.settings = settings;
    this.set({ ...IDLE, status: 'starting' });
    this.engine ??= this.start((told) => this.hear(told));
    this.sounding = await this.engine;
    if (this.snapshot().status !== 'starting') return;
    this.sounding.tell({ kind: 'balance', balance: settings.balance });
    this.hasBegun = false;
    this.set({ status: 'playing', isSilent: this.sounding.isSilent, leg: legs[from] });
    this.sounding.tell({ kind: 'play', programme: this.programme(from, settings.countIn), at: 0 });
    this.queue(from + 1);
  }

  stop(): void {
    this.sounding?.tell({ kind: 'stop' });
    this.set(IDLE);
  }

  close(): void {
    this.set(IDLE);
    void this.engine?.then((engine) => engine.close());
    this.engine = null;
    this.sounding = null;
  }

  private hear({ isPlaying, programme }: FromFiddle): void {
    if (this.state.status !== 'playing') return;
    if (!isPlaying) return this.hasBegun ? this.set(IDLE) : undefined;
    this.hasBegun = true;
    const leg = this.legs[programme - 1];
    if (!leg || leg === this.state.leg) return;
    this.set({ ...this.state, leg });
    this.queue(programme);
  }

  private queue(index: number): void {
    if (this.legs[index]) this.sounding!.tell({ kind: 'next', programme: this.programme(index, 0) });
  }

  /** Programmes are numbered from 1: 0 is none. */
  private programme(index: number, countIn: number) {
    const played = perform(this.legs[index]!.report, {
      layers: new Set(this.settings!.layers),
      span: null,
      countIn,
      answer: false,
      isHuman: true,
      ...(this.settings!.a4 !== undefined && { a4: this.settings!.a4 }),
    });
    return programmeOf(played, index + 1, false);
  }

  private set(state: SetPlayerState): void {
    this.state = state;
    for (const listener of this.listeners) listener();
  }
}
