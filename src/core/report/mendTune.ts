import { setLinks, setLocks } from '#core/bowing';
import { rebar } from '#core/editing';
import { type NoteEvent, type Tune, mapNotes } from '#core/tune';
import type { Finding, Mend, NoteEdit } from './finding';

/** Slowest tempo that a mend sets. */
const SLOWEST_BPM = 10;

/** The tune with a mend of one of its findings made: what the mend promises, the report of this tune has. */
export function mendTune(tune: Tune, mend: Mend, { ids }: Pick<Finding, 'ids'>): Tune {
  if (mend.deed === 'unlock') return setLocks(tune, ids, null);
  if (mend.barId !== undefined) return rebar(tune, mend.barId);
  if (mend.start) return { ...tune, start: mend.start };
  if (mend.deed === 'slower')
    return { ...tune, tempoBpm: Math.max(SLOWEST_BPM, Math.floor(mend.ceilingBpm ?? SLOWEST_BPM)) };
  const linked = mend.edits.reduce((edited, { id, link, pass }) => setLinks(edited, new Map([[id, link]]), pass), tune);
  return mend.notes ? withNoteEdits(linked, mend.notes) : linked;
}

/** The tune with marks and drones set on notes. */
export function withNoteEdits(tune: Tune, edits: readonly NoteEdit[]): Tune {
  const byId = new Map<string, NoteEdit[]>();
  for (const edit of edits) byId.set(edit.id, [...(byId.get(edit.id) ?? []), edit]);
  return mapNotes(tune, (note) => byId.get(note.id)?.reduce(withEdit, note) ?? note);
}

function withEdit(note: NoteEvent, edit: NoteEdit): NoteEvent {
  if ('drone' in edit) {
    const { drone: _before, ...bare } = note;
    return edit.drone === null ? bare : { ...bare, drone: edit.drone };
  }
  if ('duration' in edit) return { ...note, duration: edit.duration };
  if ('bowLength' in edit) return { ...note, bowLength: edit.bowLength };
  if ('refinger' in edit) return { ...note, ...edit.refinger };
  if ('unmark' in edit) {
    const marks = note.marks?.filter((mark) => mark !== edit.unmark) ?? [];
    return { ...note, marks: marks.length > 0 ? marks : undefined };
  }
  return note.marks?.includes(edit.mark) ? note : { ...note, marks: [...(note.marks ?? []), edit.mark] };
}
