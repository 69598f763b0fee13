import { midiOf, type Pitch, samePitch } from '#core/pitch';
import { mapEvents, type NoteEvent, type NoteMark, type Place, type Tune, unpinned } from '#core/tune';
import { mapChosen } from './document';

/** Sets a mark on all notes, or takes it away where all have it. */
export function toggleMark(tune: Tune, ids: ReadonlySet<string>, mark: NoteMark): Tune {
  const chosen = tune.parts.flatMap(({ events }) => events).filter(({ kind, id }) => kind === 'note' && ids.has(id));
  const all = chosen.every((event) => event.kind === 'note' && event.marks?.includes(mark));
  return mapChosen(tune, ids, (note) => {
    const { marks = [], ...bare } = note;
    const kept = marks.filter((other) => other !== mark);
    const next = all ? kept : [...kept, mark];
    return next.length > 0 ? { ...bare, marks: next } : bare;
  });
}

/** Whether a note may be tied to the next: both have the same pitch. */
export function canTie(note: NoteEvent, next: NoteEvent | null): boolean {
  return next !== null && samePitch(note.pitch, next.pitch);
}

/** Ties notes to the next of their pitch, or unties those that are. */
export function toggleTies(tune: Tune, ids: ReadonlySet<string>): Tune {
  const notes = tune.parts.flatMap(({ events }) => events).filter((event) => event.kind === 'note');
  const next = new Map(notes.map((note, i) => [note.id, notes[i + 1] ?? null]));
  return mapChosen(tune, ids, (note) => {
    const { tie, ...bare } = note;
    if (tie) return bare;
    return canTie(note, next.get(note.id) ?? null) ? { ...bare, tie: true } : note;
  });
}

/** Most pitches of a chord. */
const MAX_PITCHES = 6;

/** Adds a pitch to a note's chord, or takes it out; the highest is the melody. */
export function toggleStop(tune: Tune, id: string, pitch: Pitch): Tune {
  return mapChosen(tune, new Set([id]), (note) => {
    const pitches = [note.pitch, ...(note.stops ?? [])];
    const without = pitches.filter((other) => !samePitch(other, pitch));
    const next = without.length < pitches.length && without.length > 0 ? without : [...without, pitch];
    if (next.length > MAX_PITCHES) return note;
    next.sort((a, b) => midiOf(b) - midiOf(a));
    const { stops: _stops, ...bare } = unpinned(note);
    const [top, ...stops] = next as [Pitch, ...Pitch[]];
    return { ...bare, pitch: top, ...(stops.length > 0 ? { stops } : {}) };
  });
}

/** The grace notes before a note; an empty list takes them away. */
export function setGraceNotes(tune: Tune, id: string, graceNotes: readonly Pitch[]): Tune {
  return mapChosen(tune, new Set([id]), ({ graceNotes: _old, ...note }) =>
    graceNotes.length > 0 ? { ...note, graceNotes } : note,
  );
}

/** The chord symbol over a note or rest; empty takes it away. */
export function setChord(tune: Tune, id: string, chord: string): Tune {
  return mapEvents(tune, (event) => {
    if (event.kind === 'bar' || event.id !== id) return event;
    const { chord: _old, ...bare } = event;
    return chord.trim() === '' ? bare : { ...bare, chord: chord.trim().slice(0, 40) };
  });
}

/** Pins notes to a string, with the finger left to the rule, or leaves both to the rule with null. */
export function pinPlace(tune: Tune, ids: ReadonlySet<string>, place: Place | null): Tune {
  return mapChosen(tune, ids, (note) => {
    if (place) return { ...unpinned(note), place };
    return note.place === undefined && note.finger === undefined ? note : unpinned(note);
  });
}

/** Sounds the open neighbour string along with notes, on one side, or takes it away with null. */
export function setDrone(tune: Tune, ids: ReadonlySet<string>, side: NoteEvent['drone'] | null): Tune {
  return mapChosen(tune, ids, ({ drone: _old, ...bare }) => (side ? { ...bare, drone: side } : bare));
}

/** How a note is played where a tune is played freely; what is left out stays, null takes it away. */
export interface Freedom {
  readonly hold?: number | null;
  readonly breath?: number | null;
  readonly pace?: number | null;
}

/** Sets holds, breaths and paces. */
export function setFreedom(tune: Tune, ids: ReadonlySet<string>, { hold, breath, pace }: Freedom): Tune {
  return mapChosen(tune, ids, (note) => {
    const { hold: oldHold, breath: oldBreath, pace: oldPace, ...bare } = note;
    const next = {
      hold: hold === undefined ? oldHold : hold,
      breath: breath === undefined ? oldBreath : breath,
      pace: pace === undefined ? oldPace : pace,
    };
    return {
      ...bare,
      ...(next.hold == null ? {} : { hold: next.hold }),
      ...(next.breath == null ? {} : { breath: next.breath }),
      ...(next.pace == null ? {} : { pace: next.pace }),
    };
  });
}
