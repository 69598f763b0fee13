import type { NoteEvent, Part, Tune, TuneEvent } from './tune';

/**
 * Changes events one by one, in written order. Whatever is left as it is keeps its identity: an event that `change` gives
 * back, a part without a change, the tune where nothing changes at all. Time O(events).
 */
export function mapEvents(tune: Tune, change: (event: TuneEvent) => TuneEvent): Tune {
  let isTuneChanged = false;
  const parts = tune.parts.map((part): Part => {
    let isChanged = false;
    const events = part.events.map((event) => {
      const next = change(event);
      if (next !== event) isChanged = true;
      return next;
    });
    if (!isChanged) return part;
    isTuneChanged = true;
    return { ...part, events };
  });
  return isTuneChanged ? { ...tune, parts } : tune;
}

/** The same for the notes alone. */
export function mapNotes(tune: Tune, change: (note: NoteEvent) => NoteEvent): Tune {
  return mapEvents(tune, (event) => (event.kind === 'note' ? change(event) : event));
}
