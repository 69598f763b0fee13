import type { Direction, Unrolled } from '#core/tune';
import type { BowedNote } from './strokes';

/** A locked note that the links bring out the other way. */
export interface LockConflict {
  readonly id: string;
  readonly lock: Direction;
  /** Passes on which the note is bowed against its lock: `A2`. */
  readonly passes: readonly string[];
  /** Indices of the played notes concerned. */
  readonly indices: readonly number[];
}

/** Locks that the links contradict: links win, and the conflict is told. In playing order. */
export function lockConflicts(unrolled: Unrolled, bowed: readonly BowedNote[]): LockConflict[] {
  const conflicts = new Map<string, { lock: Direction; passes: string[]; indices: number[] }>();
  for (const { index, note, part, pass } of unrolled.notes) {
    if (!note.lock || note.lock === bowed[index]!.bow) continue;
    const conflict = conflicts.get(note.id) ?? { lock: note.lock, passes: [], indices: [] };
    conflict.passes.push(`${part}${pass}`);
    conflict.indices.push(index);
    conflicts.set(note.id, conflict);
  }
  return [...conflicts].map(([id, conflict]) => ({ id, ...conflict }));
}
