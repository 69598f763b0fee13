import { DEFAULT_PEGS, type Pegs, type PegsRecord, pegsSchema } from '#contract/pegs';
import type { Queryable } from '../db';
import { findRevised, saveRevised } from '../revisedDocument';

/** Fiddles and tunings as they are kept, or one fiddle as usual where none is. */
export async function findPegs(db: Queryable): Promise<PegsRecord> {
  const row = await findRevised(db, 'pegs');
  return row ? { revision: row.revision, pegs: pegsSchema.parse(row.document) } : { revision: 0, pegs: DEFAULT_PEGS };
}

/** Replaces them if they still are at `baseRevision`; null when they are not. */
export function savePegs(db: Queryable, baseRevision: number, pegs: Pegs): Promise<number | null> {
  return saveRevised(db, 'pegs', baseRevision, pegs);
}
