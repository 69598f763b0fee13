import type { Semitones } from '#core/base';
import { midiOf, type Pitch, staffStep } from '#core/pitch';
import { type NoteEvent, type Place, PLACES } from '#core/tune';
import type { Tuning } from '#core/tuning';
import { nextString, type Position } from './positions';

/** One note on one string in first position. `finger` 0 is the open string. */
export interface Stop {
  readonly place: Place;
  readonly finger: number;
  readonly semitones: number;
}

export type FingerRule = 'open' | 'fourth';

/** Semitones above the open string that the hand covers in first position. */
export const REACH_SEMITONES = 7;
/** One more with the fourth finger stretched, which is reported. */
export const EXTENDED_REACH_SEMITONES = 8;

/** How a written note is fingered. */
export interface Fingering {
  readonly reachable: boolean;
  /** Nearest string where the note is out of reach. */
  readonly place: Place;
  readonly finger: number | null;
  /** Semitones above the open string. */
  readonly semitones: Semitones;
  /** Where the hand is, also while a string sounds open; null where the note is out of reach. */
  readonly position: Position | null;
  readonly extended: boolean;
  /** Place and finger of each other note of a chord, in the order of `note.stops`; null where no hand gets them together. */
  readonly stops: readonly (Stop | null)[];
  /** The pinned finger or place does not give the pitch. */
  readonly pinMisfits: boolean;
  /** The player keeps this finger or string from the hand, and the pin or the tune leaves nothing else. */
  readonly goesAgainst?: true;
}

/**
 * The finger that stops a pitch on a string: letter-name steps from the open string's letter to the written letter;
 * one semitone up with the same letter is a first finger. null out of the hand's reach.
 */
export function stopOnString(pitch: Pitch, place: Place, tuning: Tuning): Stop | null {
  const open = tuning[PLACES.indexOf(place)]!;
  const semitones = midiOf(pitch) - midiOf(open);
  if (semitones < 0 || semitones > EXTENDED_REACH_SEMITONES) return null;
  if (semitones === 0) return { place, finger: 0, semitones };
  const steps = staffStep(pitch) - staffStep(open);
  return { place, finger: Math.min(4, Math.max(1, steps)), semitones };
}

/**
 * First-position fingering of a note or chord in a tuning: the highest string that has the pitch, so the lowest
 * finger; with the rule `fourth` an open string gives way to a fourth finger on the next lower one. Pinned places and
 * fingers are kept. An extended fourth is taken only where nothing else reaches.
 */
export function fingerNote(note: NoteEvent, tuning: Tuning, rule: FingerRule = 'open'): Fingering {
  const options = stopOptions(note.pitch, tuning);
  const fitting = options.filter(
    (stop) =>
      (note.place === undefined || stop.place === note.place) &&
      (note.finger === undefined || stop.finger === note.finger),
  );
  const isPinned = note.place !== undefined || note.finger !== undefined;
  const pinMisfits = isPinned && options.length > 0 && fitting.length === 0;
  const candidates = fitting.length > 0 ? fitting : options;
  const stops = note.stops ?? [];

  if (stops.length > 0) {
    const chord = chordStops(note, candidates, stops, tuning);
    if (chord) return reached(chord[0]!, chord.slice(1), pinMisfits);
  }
  const stop = preferred(candidates, rule, isPinned);
  if (!stop) return unreached(note.pitch, tuning, stops.length);
  return reached(
    stop,
    stops.map(() => null),
    pinMisfits,
  );
}

function reached(stop: Stop, stops: readonly (Stop | null)[], pinMisfits: boolean): Fingering {
  return {
    reachable: true,
    place: stop.place,
    finger: stop.finger,
    semitones: stop.semitones,
    position: 1,
    extended: stop.semitones > REACH_SEMITONES,
    stops,
    pinMisfits,
  };
}

function unreached(pitch: Pitch, tuning: Tuning, stops: number): Fingering {
  const isBelow = tuning.every((open) => midiOf(pitch) < midiOf(open));
  return {
    reachable: false,
    place: isBelow ? 'G' : 'E',
    finger: null,
    semitones: 0,
    position: null,
    extended: false,
    stops: Array.from({ length: stops }, () => null),
    pinMisfits: false,
  };
}

/** Ways to stop a pitch, highest string first, extended fourths last. */
function stopOptions(pitch: Pitch, tuning: Tuning): Stop[] {
  const found = [...PLACES].reverse().flatMap((place) => stopOnString(pitch, place, tuning) ?? []);
  const within = found.filter(({ semitones }) => semitones <= REACH_SEMITONES);
  return [...within, ...found.filter(({ semitones }) => semitones > REACH_SEMITONES)];
}

function preferred(options: readonly Stop[], rule: FingerRule, isPinned: boolean): Stop | null {
  const [first, second] = options;
  if (!first) return null;
  const offersFourth = rule === 'fourth' && !isPinned && first.finger === 0 && second?.finger === 4;
  return offersFourth && second.semitones <= REACH_SEMITONES ? second : first;
}

/** Stops for a chord's notes on neighbouring strings, the melody first; null where the hand cannot have them together. */
function chordStops(note: NoteEvent, melody: readonly Stop[], others: readonly Pitch[], tuning: Tuning): Stop[] | null {
  for (const top of melody) {
    const chord = [top];
    for (const pitch of others) {
      const place = nextString(note.pitch, pitch, chord);
      const stop = place ? stopOnString(pitch, place, tuning) : null;
      if (!stop) break;
      chord.push(stop);
    }
    if (chord.length === others.length + 1) return chord;
  }
  return null;
}
