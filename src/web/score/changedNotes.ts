import type { NoteState } from '#core/noteStates';

/** What a change does to a note: to the note itself, or only to the direction in which it is bowed. */
export type NoteChange = 'changed' | 'turned';

/** Notes that a change would show otherwise. Time O(n). */
export function changedNotes(
  before: ReadonlyMap<string, NoteState>,
  after: ReadonlyMap<string, NoteState>,
): Map<string, NoteChange> {
  const changed = new Map<string, NoteChange>();
  for (const [id, is] of after) {
    const was = before.get(id);
    if (!was || !sameItself(was, is)) changed.set(id, 'changed');
    else if (was.bow !== is.bow) changed.set(id, 'turned');
  }
  return changed;
}

function sameItself(a: NoteState, b: NoteState): boolean {
  return (
    a.link === b.link &&
    a.drone === b.drone &&
    a.place === b.place &&
    a.finger === b.finger &&
    a.position === b.position &&
    a.wish === b.wish &&
    a.lock === b.lock &&
    a.marks.length === b.marks.length &&
    a.marks.every((mark, i) => mark === b.marks[i])
  );
}
