import { mapNotes } from '#core/editing';
import type { NoteEvent, Tune } from '#core/tune';
import type { DroneScene } from './candidates';
import type { DroneChoice } from './droneLine';

/** The tune with what was chosen set on its notes, by id: an open drone, a stopped second note, or neither. */
export function applyDrones(tune: Tune, choices: ReadonlyMap<string, DroneChoice>): Tune {
  let isChanged = false;
  const parts = tune.parts.map((part) => ({
    ...part,
    events: part.events.map((event) => {
      const choice = event.kind === 'note' ? choices.get(event.id) : undefined;
      if (event.kind !== 'note' || !choice) return event;
      const next = withChoice(event, choice);
      if (next !== event) isChanged = true;
      return next;
    }),
  }));
  return isChanged ? { ...tune, parts } : tune;
}

/** A note's pitch held by its finger and sounding on beside the notes after it, up to the last of them. */
export function holdFinger(
  { tune, unrolled }: Pick<DroneScene, 'tune' | 'unrolled'>,
  index: number,
  through: number,
): Tune {
  const { pitch } = unrolled.notes[index]!.note;
  const under = new Set(unrolled.notes.slice(index + 1, through + 1).map(({ note }) => note.id));
  return mapNotes(tune, under, (note) => {
    const { drone: _drone, ...bare } = note;
    return { ...bare, stops: [pitch] };
  });
}

function withChoice(note: NoteEvent, choice: DroneChoice): NoteEvent {
  const { drone: before, ...bare } = note;
  if (choice.kind === 'none') return before === undefined ? note : bare;
  if (choice.kind === 'stopped') return { ...bare, stops: [choice.double.pitch] };
  return before === choice.kind ? note : { ...bare, drone: choice.kind };
}
