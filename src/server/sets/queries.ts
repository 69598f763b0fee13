import { NO_SETS, type Sets, type SetsRecord, setsSchema } from '#contract/sets';
import type { Queryable } from '../db';
import { findRevised, saveRevised } from '../revisedDocument';

/** The sets as they are kept; a tune that is in the book no more may still stand in one. */
export async function findSets(db: Queryable): Promise<SetsRecord> {
  const row = await findRevised(db, 'sets');
  return row ? { revision: row.revision, sets: setsSchema.parse(row.document) } : { revision: 0, sets: NO_SETS };
}

/** Replaces them if they still are at `baseRevision`; null when they are not. */
export function saveSets(db: Queryable, baseRevision: number, sets: Sets): Promise<number | null> {
  return saveRevised(db, 'sets', baseRevision, sets);
}
