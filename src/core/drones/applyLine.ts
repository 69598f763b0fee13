import { mapChosen } from '#core/editing';
import { mapNotes, type NoteEvent, type Tune } from '#core/tune';
import type { DroneScene } from './candidates';
import type { DroneChoice } from './droneLine';

/** The tune with what was chosen set on its notes, by id: an open drone, a stopped second note, or neither. */
export function applyDrones(tune: Tune, choices: ReadonlyMap<string, DroneChoice>): Tune {
  return mapNotes(tune, (note) => {
    const choice = choices.get(note.id);
    return choice ? withChoice(note, choice) : note;
  });
}

/** A note's pitch held by its finger and sounding on beside the notes after it, up to the last of them. */
export function holdFinger(
  { tune, unrolled }: Pick<DroneScene, 'tune' | 'unrolled'>,
  index: number,
  through: number,
): Tune {
  const { pitch } = unrolled.notes[index]!.note;
  const under = new Set(unrolled.notes.slice(index + 1, through + 1).map(({ note }) => note.id));
  return mapChosen(tune, under, (note) => {
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
