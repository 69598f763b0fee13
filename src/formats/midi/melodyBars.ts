import { type Fraction, ZERO, add, compare, divide, fraction, multiply, subtract, toNumber } from '#core/base';
import { type Key, LETTERS, type Pitch, alterInKey, keyFifths, midiOf } from '#core/pitch';
import type { NoteEvent, RestEvent, TupletMark } from '#core/tune';
import { splitLength } from '../score';
import type { GridNote } from './quantise';

/** A time signature from a place on, in quarters. */
export interface MidiMeter {
  readonly at: number;
  readonly num: number;
  readonly den: number;
}

/** A bar of a melody: its events, and how long it is. */
export interface MelodyBar {
  readonly length: Fraction;
  readonly num: number;
  readonly den: number;
  readonly events: readonly (NoteEvent | RestEvent)[];
}

const MAX_BARS = 10_000;

/**
 * Quantised notes as bars: cut at bar lines and tied over them, gaps filled with rests, lengths that no note has written
 * as tied notes, thirds of a beat as triplets. Pitches are spelled in the key, others sharp in keys of sharps and flat in
 * those of flats.
 */
export function barsOfMelody(notes: readonly GridNote[], meters: readonly MidiMeter[], key: Key): MelodyBar[] {
  const end = notes[notes.length - 1]?.end ?? ZERO;
  const names = spelling(key);
  const ids = { note: 0, rest: 0 };
  const bars: MelodyBar[] = [];
  let at = 0;
  let onset = ZERO;
  while (compare(onset, end) < 0 && bars.length < MAX_BARS) {
    const quarters = toNumber(onset) * 4;
    const { num, den } = [...meters].reverse().find((meter) => meter.at <= quarters + 1e-6) ?? meters[0]!;
    const length = fraction(num, den);
    const close = add(onset, length);
    const events: (NoteEvent | RestEvent)[] = [];
    let cursor = onset;
    while (at < notes.length && compare(notes[at]!.onset, close) < 0) {
      const note = notes[at]!;
      const from = compare(note.onset, onset) > 0 ? note.onset : onset;
      events.push(...restsOf(cursor, from, ids));
      const to = compare(note.end, close) < 0 ? note.end : close;
      const isTiedOn = compare(note.end, close) > 0;
      const isTiedFrom = compare(note.onset, onset) < 0;
      events.push(...notesOf(note, subtract(to, from), names, ids, isTiedOn, isTiedFrom));
      cursor = to;
      if (isTiedOn) break;
      at += 1;
    }
    if (compare(cursor, close) < 0) events.push(...restsOf(cursor, close, ids));
    bars.push({ length, num, den, events: withTripletStarts(events) });
    onset = close;
  }
  return bars;
}

const TRIPLET: TupletMark = { notes: 3, inTimeOf: 2 };

/** Whether a length is counted in thirds of a beat. */
const isThird = ({ d }: Fraction) => d % 3 === 0;

function lengthsOf(length: Fraction): { duration: Fraction; tuplet?: TupletMark }[] {
  if (!isThird(length)) return splitLength(length).map((duration) => ({ duration }));
  const written = multiply(length, fraction(3, 2));
  return splitLength(written).map((part) => ({ duration: divide(part, fraction(3, 2)), tuplet: TRIPLET }));
}

function restsOf(from: Fraction, to: Fraction, ids: { rest: number }): RestEvent[] {
  if (compare(to, from) <= 0) return [];
  return lengthsOf(subtract(to, from)).map((length) => ({ kind: 'rest', id: `r${++ids.rest}`, ...length }));
}

function notesOf(
  { midi, stops }: GridNote,
  length: Fraction,
  names: readonly Pitch[],
  ids: { note: number },
  isTiedOn: boolean,
  isTiedFrom: boolean,
): NoteEvent[] {
  const parts = lengthsOf(length);
  const pitchOf = (height: number) => spelled(height, names);
  return parts.map((part, i): NoteEvent => {
    const tie = i < parts.length - 1 || isTiedOn;
    ids.note += 1;
    return {
      kind: 'note',
      id: `n${ids.note}`,
      ...part,
      pitch: pitchOf(midi),
      ...(stops.length > 0 ? { stops: stops.map(pitchOf) } : {}),
      ...(tie ? { tie: true as const } : {}),
      link: ids.note === 1 ? 'start' : i > 0 || isTiedFrom ? 'slur' : 'change',
    };
  });
}

/** Marks the first event of each group that fills the time of a triplet. */
function withTripletStarts(events: readonly (NoteEvent | RestEvent)[]): (NoteEvent | RestEvent)[] {
  let filled = ZERO;
  return events.map((event) => {
    if (!event.tuplet) {
      filled = ZERO;
      return event;
    }
    const isFirst = filled.n === 0;
    filled = add(filled, event.duration);
    // A group ends where it makes a length that needs no thirds.
    if (!isThird(filled)) filled = ZERO;
    return isFirst ? { ...event, tuplet: { ...event.tuplet, first: true as const } } : event;
  });
}

/** How each of the twelve tones is written in a key, in the octave of middle C. */
function spelling(key: Key): Pitch[] {
  const names = new Map<number, Pitch>();
  for (const letter of LETTERS) {
    const pitch: Pitch = { letter, alter: alterInKey(key, letter), octave: 4 };
    names.set(((midiOf(pitch) % 12) + 12) % 12, pitch);
  }
  const way = keyFifths(key) < 0 ? -1 : 1;
  return Array.from({ length: 12 }, (_, tone) => {
    const own = names.get(tone);
    if (own) return own;
    const natural = LETTERS.find((letter) => midiOf({ letter, alter: 0, octave: 4 }) % 12 === tone);
    if (natural) return { letter: natural, alter: 0, octave: 4 };
    const altered = LETTERS.find((letter) => (midiOf({ letter, alter: way, octave: 4 }) + 12) % 12 === tone)!;
    return { letter: altered, alter: way, octave: 4 };
  });
}

function spelled(midi: number, names: readonly Pitch[]): Pitch {
  const name = names[midi % 12]!;
  const octaves = Math.round((midi - midiOf(name)) / 12);
  return { ...name, octave: name.octave + octaves };
}
