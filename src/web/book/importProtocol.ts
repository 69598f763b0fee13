import type { ImportPiece } from '#contract/imports';
import type { Tune } from '#core/tune';
import type { FileChoice, FileTune } from '#formats/file';
import type { FileKind } from '#formats/kinds';
import type { Voice } from '#formats/score';
import type { ImportMessage } from '#formats/text';

/** What is to be read: dropped or chosen files, a pasted text, or nothing yet. */
export type ImportInput =
  { readonly kind: 'files'; readonly files: readonly File[] } | { readonly kind: 'text'; readonly text: string } | null;

/** A written bar as read. */
export interface ImportedBar {
  /** As counted within its part, 0 for a pickup. */
  readonly number: number;
  readonly messages: readonly ImportMessage[];
}

/** A tune as read from a file, with what there is to say about it. */
export interface ImportedTune {
  readonly title: string;
  /** The tune and its own text as the server is told of them, JSON: made once, where nobody waits for it. */
  readonly toSend: string;
  readonly kind: FileKind;
  /** The file inside an archive. */
  readonly entry: string | null;
  readonly bars: number;
  readonly notes: number;
  readonly parts: readonly { readonly name: string; readonly bars: readonly ImportedBar[] }[];
  /** Messages that stand before the first bar. */
  readonly messages: readonly ImportMessage[];
  /** Whether it has a text of its own; else the file is kept as a whole. */
  readonly hasSource: boolean;
  readonly voices: readonly Voice[];
  readonly quantised: FileTune['quantised'];
  /** By what it is compared with the book. */
  readonly melody: { readonly print: readonly number[]; readonly pitches: readonly number[] };
}

/** The tune that was read. */
export function tuneOf({ toSend }: Pick<ImportedTune, 'toSend'>): Tune {
  return (JSON.parse(toSend) as ImportPiece['tunes'][number]).tune;
}

export interface ImportOutcome {
  readonly tunes: readonly ImportedTune[];
  /** Messages that belong to no tune that could be read. */
  readonly messages: readonly ImportMessage[];
}

/** What the page asks of its import worker. Tunes come while it reads; how many they are stands at the end. */
export interface ImportWorker {
  readFile(
    bytes: ArrayBuffer,
    choice: FileChoice,
    onTunes: (tunes: readonly ImportedTune[]) => void,
  ): ImportEnd | Promise<ImportEnd>;
}

export interface ImportEnd {
  readonly count: number;
  readonly messages: readonly ImportMessage[];
}
