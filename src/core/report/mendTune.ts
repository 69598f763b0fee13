import { setLinks, setLocks } from '#core/bowing';
import { rebar } from '#core/editing';
import type { NoteEvent, Tune } from '#core/tune';
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
  const byId = new Map(edits.map((edit) => [edit.id, edit]));
  return {
    ...tune,
    parts: tune.parts.map((part) => ({
      ...part,
      events: part.events.map((event) => {
        const edit = byId.get(event.id);
        return edit && event.kind === 'note' ? withEdit(event, edit) : event;
      }),
    })),
  };
}

function withEdit(note: NoteEvent, edit: NoteEdit): NoteEvent {
  if ('drone' in edit) return { ...note, drone: edit.drone };
  if ('duration' in edit) return { ...note, duration: edit.duration };
  if ('bowLength' in edit) return { ...note, bowLength: edit.bowLength };
  return note.marks?.includes(edit.mark) ? note : { ...note, marks: [...(note.marks ?? []), edit.mark] };
}
