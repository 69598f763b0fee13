import type { Instrument } from '#core/instrument';
import { type Pitch, staffStep } from '#core/pitch';
import { type NoteEvent, PLACES, type Tune, unpinned } from '#core/tune';
import type { Tuning } from '#core/tuning';
import { type Hand, isBanned } from './hand';
import { type HandChord, stopCost } from './handCosts';
import { handGround } from './handGround';
import { type HandStop, nextString, stopsOnString } from './positions';

/** What a hand may do on a note. */
export interface Choices {
  readonly chords: readonly HandChord[];
  /** A pinned string, finger or position goes against what the player keeps from the hand: kept, and told. */
  readonly pinBanned: boolean;
  /** What is pinned does not give the pitch: passed over, and told. */
  readonly pinMisfits: boolean;
  /** The other notes of the chord are not to be had with the melody: the melody alone is fingered. */
  readonly stopsLost: boolean;
}

/** Two notes with equal keys have equal choices. */
export function choiceKey({ pitch, stops, place, finger, position, drone }: NoteEvent): string {
  const spelling = (of: Pitch) => 5 * staffStep(of) + of.alter;
  return `${spelling(pitch)}|${stops?.map(spelling).join(',') ?? ''}|${place ?? ''}|${finger ?? ''}|${position ?? ''}|${drone ?? ''}`;
}

/** Every way for a hand to have a note or chord in a tuning, as far as the player's hand allows. */
export function choicesOf(note: NoteEvent, tuning: Tuning, hand: Hand): Choices {
  const all = chordsOf(note, tuning);
  const melodyOnly = all.length === 0 && note.stops ? chordsOf({ ...note, stops: undefined }, tuning) : null;
  const found = melodyOnly ?? all;
  const pinned = found.filter(([top]) => isPinned(note, top!));
  const hasPins = note.place !== undefined || note.finger !== undefined || note.position !== undefined;
  const pinMisfits = hasPins && found.length > 0 && pinned.length === 0;
  const candidates = pinMisfits ? found : pinned;
  const allowed = candidates.filter((chord) => isAllowed(chord, hand));
  const pinBanned = hasPins && !pinMisfits && allowed.length === 0 && candidates.length > 0;
  return {
    chords: pinBanned ? candidates : droneFitting(note, allowed),
    pinBanned,
    pinMisfits,
    stopsLost: melodyOnly !== null && found.length > 0,
  };
}

/** Choices for a note without its pins, the cheapest by themselves first. */
export function choicesFor(
  note: NoteEvent,
  tune: Pick<Tune, 'tuning' | 'key'>,
  hand: Hand,
  instrument: Pick<Instrument, 'stringLengthMm'>,
): HandChord[] {
  const { chords } = choicesOf(unpinned(note), tune.tuning, hand);
  const ground = handGround(tune, instrument);
  const costs = new Map(chords.map((chord) => [chord, stopCost(chord, hand, false, ground)]));
  return [...chords].sort((a, b) => costs.get(a)! - costs.get(b)!);
}

/** Whether nothing in a chord is kept from the player's hand. */
export function isAllowed(chord: HandChord, hand: Hand): boolean {
  return chord.every((stop) => !isBanned(hand, stop) && (!hand.firstPositionOnly || stop.position === 1));
}

function isPinned({ place, finger, position }: NoteEvent, top: HandStop): boolean {
  return (
    (place === undefined || place === top.place) &&
    (finger === undefined || finger === top.finger) &&
    (position === undefined || position === top.position || top.finger === 0)
  );
}

/** A drone needs a neighbour on its side; where no choice has one, the drone waits. */
function droneFitting({ drone }: NoteEvent, chords: readonly HandChord[]): readonly HandChord[] {
  if (!drone) return chords;
  const missing = drone === 'lower' ? PLACES[0] : PLACES[PLACES.length - 1];
  const fitting = chords.filter(([top]) => top!.place !== missing);
  return fitting.length > 0 ? fitting : chords;
}

function chordsOf(note: NoteEvent, tuning: Tuning): HandChord[] {
  const tops = PLACES.flatMap((place) => stopsOnString(note.pitch, place, tuning));
  let chords: HandStop[][] = tops.map((top) => [top]);
  for (const pitch of note.stops ?? []) {
    chords = chords.flatMap((chord) => {
      const next = nextString(note.pitch, pitch, chord);
      if (!next) return [];
      return stopsOnString(pitch, next, tuning)
        .filter((stop) => goTogether(stop, chord))
        .map((stop) => [...chord, stop]);
    });
  }
  return chords;
}

/** One hand: one position, and a finger in two places only where it lies across both strings. */
function goTogether(stop: HandStop, chord: readonly HandStop[]): boolean {
  return chord.every(
    (other) =>
      stop.position === other.position &&
      (stop.finger === 0 || stop.finger !== other.finger || stop.semitones === other.semitones),
  );
}
