import type { Semitones } from '#core/base';
import { alterInKey, type Key, midiOf, type Pitch, pitchAtStep, pitchSpelled, staffStep } from '#core/pitch';
import { mapEvents, type NoteEvent, type Tune, unpinned, writtenBars } from '#core/tune';
import { mapChosen } from './document';

const LOWEST_OCTAVE = -1;
const HIGHEST_OCTAVE = 9;

/** Moves notes by letter names within the key in force; an accidental keeps its distance from the key's own note. */
export function transposeBySteps(tune: Tune, ids: ReadonlySet<string>, steps: number): Tune {
  const keys = keysInForce(tune);
  return mapChosen(tune, ids, (note) =>
    withPitches(note, (pitch) => {
      const key = keys.get(note.id)!;
      const moved = pitchAtStep(staffStep(pitch) + steps);
      const off = pitch.alter - alterInKey(key, pitch.letter);
      return { ...moved, alter: clampAlter(alterInKey(key, moved.letter) + off) };
    }),
  );
}

export function transposeByOctaves(tune: Tune, ids: ReadonlySet<string>, octaves: number): Tune {
  return mapChosen(tune, ids, (note) => withPitches(note, (pitch) => ({ ...pitch, octave: pitch.octave + octaves })));
}

/** Raises or lowers notes by semitones on the same letter; a double accidental is as far as it goes. */
export function alterNotes(tune: Tune, ids: ReadonlySet<string>, semitones: Semitones): Tune {
  return mapChosen(tune, ids, (note) => {
    const alter = clampAlter(note.pitch.alter + semitones);
    return alter === note.pitch.alter ? note : unpinned({ ...note, pitch: { ...note.pitch, alter } });
  });
}

/** The whole tune in another key of the same mode, by the nearer way up or down; keys within it move alike. */
export function transposeToKey(tune: Tune, tonic: Pick<Key, 'letter' | 'alter'>): Tune {
  const from: Pitch = { letter: tune.key.letter, alter: tune.key.alter, octave: 4 };
  const up: Pitch = { ...tonic, octave: 4 };
  const ways = [-1, 0, 1].map((octave) => ({ ...up, octave: 4 + octave }));
  const to = ways.reduce((best, way) =>
    Math.abs(midiOf(way) - midiOf(from)) < Math.abs(midiOf(best) - midiOf(from)) ? way : best,
  );
  const steps = staffStep(to) - staffStep(from);
  const semitones = midiOf(to) - midiOf(from);
  const move = (pitch: Pitch) => pitchSpelled(staffStep(pitch) + steps, midiOf(pitch) + semitones);
  const moveKey = (key: Key): Key => {
    const place: Pitch = { letter: key.letter, alter: key.alter, octave: 4 };
    // A key's tonic has one sharp or flat at the most.
    const moved = pitchSpelled(staffStep(place) + steps, midiOf(place) + semitones, 1);
    const { extra: _extra, ...plain } = key;
    return { ...plain, letter: moved.letter, alter: moved.alter };
  };
  const moved = mapEvents(tune, (event) => {
    if (event.kind === 'bar') return event.key ? { ...event, key: moveKey(event.key) } : event;
    return event.kind === 'note' ? withPitches(event, move) : event;
  });
  return { ...moved, key: moveKey(tune.key) };
}

/** The key in force at each note, by id. */
export function keysInForce(tune: Tune): Map<string, Key> {
  const keys = new Map<string, Key>();
  for (const bars of writtenBars(tune).values())
    for (const { events, key } of bars) for (const { id } of events) keys.set(id, key);
  return keys;
}

/** A note with every pitch moved; as it is where one would leave the octaves that are written. */
function withPitches(note: NoteEvent, move: (pitch: Pitch) => Pitch): NoteEvent {
  const pitches = [note.pitch, ...(note.stops ?? []), ...(note.graceNotes ?? [])].map(move);
  if (pitches.some(({ octave }) => octave < LOWEST_OCTAVE || octave > HIGHEST_OCTAVE)) return note;
  return unpinned({
    ...note,
    pitch: move(note.pitch),
    ...(note.stops ? { stops: note.stops.map(move) } : {}),
    ...(note.graceNotes ? { graceNotes: note.graceNotes.map(move) } : {}),
  });
}

function clampAlter(alter: number): number {
  return Math.min(2, Math.max(-2, alter));
}
