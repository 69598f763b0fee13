import { midiOf } from '#core/pitch';
import { mapNotes, type NoteEvent, type Tune, unpinned, writtenNotes } from '#core/tune';
import { fingerNote } from './firstPosition';

/** A fold costs as much as a leap of this many semitones, so that none is made for smoothness alone. A guess. */
const FOLD_COST = 9;
/** A note set in another octave: folding as little as possible. A guess. */
const FOLDED_NOTE_COST = 1;
/** After a long note a fold is less of a break. A guess. */
const AFTER_LONG_SHARE = 0.5;

const OCTAVES = [0, -1, 1] as const;

/**
 * The tune with what lies beyond first position set an octave lower or higher, the joins as smooth as can be.
 *
 * Least sum over each part's notes of the leap in semitones and a charge where the octave changes, halved after a note
 * longer than the one that follows, and a charge for each folded note. Chords fold whole. Notes that no octave brings
 * within reach stay. Time O(n).
 * @returns the tune and the ids of the notes that moved
 */
export function foldIntoFirstPosition(tune: Tune): { readonly tune: Tune; readonly moved: readonly string[] } {
  const octaveOf = new Map<string, number>();
  for (const part of tune.parts) {
    const notes = writtenNotes({ ...tune, parts: [part] });
    for (const [i, octave] of octavesOf(notes, tune).entries()) if (octave !== 0) octaveOf.set(notes[i]!.id, octave);
  }
  if (octaveOf.size === 0) return { tune, moved: [] };
  const folded = mapNotes(tune, (note) => {
    const octave = octaveOf.get(note.id);
    return octave === undefined ? note : atOctave(note, octave);
  });
  return { tune: folded, moved: [...octaveOf.keys()] };
}

function octavesOf(notes: readonly NoteEvent[], tune: Tune): number[] {
  const choices = notes.map((note) => {
    const fitting = OCTAVES.filter((octave) => fingerNote(atOctave(note, octave), tune.tuning).reachable);
    return fitting.length > 0 ? fitting : [0];
  });
  const costs: number[][] = [];
  const from: number[][] = [];
  for (const [i, options] of choices.entries()) {
    costs.push([]);
    from.push([]);
    for (const octave of options) {
      let [best, least] = [0, i === 0 ? 0 : Infinity];
      for (const [s, before] of (choices[i - 1] ?? []).entries()) {
        const cost = costs[i - 1]![s]! + joinCost(notes[i - 1]!, before, notes[i]!, octave);
        if (cost < least) [best, least] = [s, cost];
      }
      costs[i]!.push(least + FOLDED_NOTE_COST * Math.abs(octave));
      from[i]!.push(best);
    }
  }
  const picked: number[] = [];
  let at = costs.length > 0 ? costs[costs.length - 1]!.indexOf(Math.min(...costs[costs.length - 1]!)) : 0;
  for (let i = notes.length - 1; i >= 0; i--) {
    picked[i] = choices[i]![at]!;
    at = from[i]![at]!;
  }
  return picked;
}

function joinCost(before: NoteEvent, octaveBefore: number, note: NoteEvent, octave: number): number {
  const leap = Math.abs(midiOf(note.pitch) + 12 * octave - midiOf(before.pitch) - 12 * octaveBefore);
  if (octave === octaveBefore) return leap;
  const isLong = before.duration.n * note.duration.d > note.duration.n * before.duration.d;
  return leap + FOLD_COST * (isLong ? AFTER_LONG_SHARE : 1);
}

function atOctave(note: NoteEvent, octave: number): NoteEvent {
  if (octave === 0) return note;
  const move = <P extends { readonly octave: number }>(pitch: P): P => ({ ...pitch, octave: pitch.octave + octave });
  return unpinned({
    ...note,
    pitch: move(note.pitch),
    ...(note.stops ? { stops: note.stops.map(move) } : {}),
    ...(note.graceNotes ? { graceNotes: note.graceNotes.map(move) } : {}),
  });
}
