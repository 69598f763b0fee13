import type { Tune } from '#core/tune';
import type { ImportMessage } from '../text';

/** One tune of a file, read as far as it could be. */
export interface ReadTune {
  readonly reference: string;
  readonly tune: Tune;
  readonly messages: readonly ImportMessage[];
  /** The tune's own text as it stood in the file; null where a file has none for each tune. */
  readonly source: string | null;
  /** Where each written bar begins in the file, by its id. */
  readonly barPositions: ReadonlyMap<string, { readonly line: number; readonly column: number }>;
  /** Voices of which one was taken for the melody; empty where there is one only. */
  readonly voices: readonly Voice[];
}

export interface ReadResult<T extends ReadTune = ReadTune> {
  readonly tunes: readonly T[];
  /** Messages that belong to no tune that could be read. */
  readonly messages: readonly ImportMessage[];
}

/** A voice that could be the melody. */
export interface Voice {
  readonly id: string;
  readonly name: string;
  readonly notes: number;
}
