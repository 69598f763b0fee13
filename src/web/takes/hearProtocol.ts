import type { DrillKind } from '#core/drills';
import type { PlayerSettings } from '#core/report';
import type { PlayerName } from '#core/simulatedPlayer';
import type { MistakeKind, TakeReference, Thresholds } from '#core/take';
import type { Tune } from '#core/tune';
import type { TakeResult } from './takeResult';

/** What a take is of. */
export interface TakeSubject {
  readonly tune: Tune;
  readonly settings: PlayerSettings;
  readonly bpm: number;
  /** Notes by index; null: the whole tune. */
  readonly span: { readonly from: number; readonly to: number } | null;
  readonly loops: number;
  readonly a4: number;
  readonly thresholds: Thresholds;
  readonly reference: TakeReference | null;
  /** The drill it is a take of; null: none. */
  readonly drill: DrillKind | null;
}

export interface SimulatedWish {
  readonly player: PlayerName;
  readonly mistakes: readonly MistakeKind[];
  /** Signal to noise in dB, and seconds of echo. */
  readonly signalToNoise: number;
  readonly room: number;
  readonly seed: number;
}

/** Samples at one rate. */
export interface Sound {
  readonly samples: Float32Array;
  readonly sampleRate: number;
}

export interface HearWorker {
  /** Listens to a whole take; tells the share done. */
  check(subject: TakeSubject, sound: Sound, onDone: (share: number) => void): Promise<TakeResult>;
  /** A take of the simulated player. */
  simulate(subject: TakeSubject, wish: SimulatedWish, onDone: (share: number) => void): Promise<Sound>;
  /** Begins to listen to what will come in blocks. */
  begin(subject: TakeSubject, sampleRate: number): Promise<void>;
  /** Takes a block in: its level in dB, and whether the plan has been played to its end. */
  push(block: Float32Array): Promise<{ readonly level: number; readonly isOver: boolean }>;
  /** Ends it. */
  end(): Promise<TakeResult>;
}
