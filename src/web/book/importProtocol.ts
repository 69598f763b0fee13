import type { Tune } from '#core/tune';
import type { ImportMessage } from '#formats/text';

/** A written bar as read. */
export interface ImportedBar {
  /** As counted within its part, 0 for a pickup. */
  readonly number: number;
  readonly messages: readonly ImportMessage[];
}

/** A tune as read from a text, with what there is to say about it. */
export interface ImportedTune {
  readonly title: string;
  readonly tune: Tune;
  readonly bars: number;
  readonly notes: number;
  readonly parts: readonly { readonly name: string; readonly bars: readonly ImportedBar[] }[];
  /** Messages that stand before the first bar. */
  readonly messages: readonly ImportMessage[];
  readonly source: string;
}

export interface ImportOutcome {
  readonly tunes: readonly ImportedTune[];
  /** Messages that belong to no tune that could be read. */
  readonly messages: readonly ImportMessage[];
}

/** What the page asks of its import worker. */
export interface ImportWorker {
  readText(bytes: ArrayBuffer, onProgress: (tunesRead: number) => void): ImportOutcome | Promise<ImportOutcome>;
}
