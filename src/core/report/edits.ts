import type { Fraction } from '#core/base';
import type { HandStop } from '#core/fingering';
import { type Link, mapNotes, type NoteEvent, type NoteMark, type Tune } from '#core/tune';

/** A link edit; `pass` null: on all passes. */
export interface LinkEdit {
  readonly id: string;
  readonly link: Link;
  readonly pass: number | null;
}

/** A mark, a drone, a wished stroke length or another length set on a note. */
export type NoteEdit =
  | { readonly id: string; readonly mark: NoteMark }
  | { readonly id: string; readonly unmark: NoteMark }
  | { readonly id: string; readonly refinger: Pick<HandStop, 'place' | 'finger' | 'position'> }
  | { readonly id: string; readonly drone: 'lower' | 'upper' | null }
  | { readonly id: string; readonly bowLength: number }
  | { readonly id: string; readonly duration: Fraction };

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
