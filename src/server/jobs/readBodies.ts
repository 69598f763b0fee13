import { importPieceSchema, likenessAskedSchema } from '#contract/imports';
import { createTunesSchema, saveTuneSchema } from '#contract/tunes';
import { nameVersionSchema } from '#contract/versions';
import type { PlayerSettings } from '#core/report';
import { type TuneHead, tuneHead } from '../tunes/tuneHead';
import { readBody } from './readBody';

/** A tune that came in, as the text that is kept. */
export interface NewTune {
  readonly title: string;
  readonly document: string;
  readonly source?: string | undefined;
}

export function readNewTunes(bytes: Uint8Array): { fileName: string | undefined; tunes: NewTune[] } {
  const { fileName, tunes } = readBody(createTunesSchema, bytes);
  return {
    fileName,
    tunes: tunes.map(({ tune, source }) => ({ title: tune.title, document: JSON.stringify(tune), source })),
  };
}

export function readSave(bytes: Uint8Array): { baseRevision: number; document: string } {
  const { baseRevision, tune } = readBody(saveTuneSchema, bytes);
  return { baseRevision, document: JSON.stringify(tune) };
}

/** Tunes of an import with what the book knows of them. */
export interface ReadPiece {
  readonly from: number;
  readonly tunes: readonly {
    readonly head: TuneHead;
    readonly document: string;
    readonly source: string | undefined;
  }[];
}

export function readPiece(bytes: Uint8Array, settings: Pick<PlayerSettings, 'bands'>): ReadPiece {
  const { from, tunes } = readBody(importPieceSchema, bytes);
  return {
    from,
    tunes: tunes.map(({ tune, source }) => ({
      head: tuneHead(tune, settings),
      document: JSON.stringify(tune),
      source,
    })),
  };
}

export function readVersion(bytes: Uint8Array) {
  const { tune, ...version } = readBody(nameVersionSchema, bytes);
  return { ...version, document: JSON.stringify(tune) };
}

export const readLikenessAsked = (bytes: Uint8Array) => readBody(likenessAskedSchema, bytes);
