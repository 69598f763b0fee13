import { add, compare, divide, type Fraction, fraction, multiply, subtract, toNumber, ZERO } from '#core/base';
import { alterInKey, type Key, keyFifths, LETTERS, midiOf, type Pitch } from '#core/pitch';
import type { NoteEvent, RestEvent, TupletMark } from '#core/tune';
import { PartBuilder, type RawBar, splitLength } from '../score';
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
  const builder = new PartBuilder({ num: 4, den: 4 }, key);
  const names = spelling(key);
  const bars: MelodyBar[] = [];
  let at = 0;
  let onset = ZERO;
  while (compare(onset, end) < 0 && bars.length < MAX_BARS) {
    const quarters = toNumber(onset) * 4;
    const { num, den } = [...meters].reverse().find((meter) => meter.at <= quarters + 1e-6) ?? meters[0]!;
    const length = fraction(num, den);
    const close = add(onset, length);
    const bar = builder.beginBar(0);
    let cursor = onset;
    while (at < notes.length && compare(notes[at]!.onset, close) < 0) {
      const note = notes[at]!;
      const from = later(note.onset, onset);
      restTo(builder, bar, cursor, from);
      cursor = earlier(note.end, close);
      const isTiedOn = compare(note.end, close) > 0;
      const isTiedFrom = compare(note.onset, onset) < 0;
      playTo(builder, bar, { note, names, from, to: cursor, isTiedOn, isTiedFrom });
      if (isTiedOn) break;
      at += 1;
    }
    restTo(builder, bar, cursor, close);
    bars.push({ length, num, den, events: withTripletStarts(bar.events) });
    onset = close;
  }
  return bars;
}

const earlier = (a: Fraction, b: Fraction) => (compare(a, b) < 0 ? a : b);
const later = (a: Fraction, b: Fraction) => (compare(a, b) > 0 ? a : b);

const TRIPLET: TupletMark = { notes: 3, inTimeOf: 2 };

/** Whether a length is counted in thirds of a beat. */
const isThird = ({ d }: Fraction) => d % 3 === 0;

function lengthsOf(length: Fraction): { duration: Fraction; tuplet?: TupletMark }[] {
  if (!isThird(length)) return splitLength(length).map((duration) => ({ duration }));
  const written = multiply(length, fraction(3, 2));
  return splitLength(written).map((part) => ({ duration: divide(part, fraction(3, 2)), tuplet: TRIPLET }));
}

function restTo(builder: PartBuilder, bar: RawBar, from: Fraction, to: Fraction): void {
  if (compare(to, from) <= 0) return;
  for (const { duration, tuplet } of lengthsOf(subtract(to, from)))
    builder.rest(duration, bar, tuplet ? { tuplet } : {});
}

interface Stretch {
  readonly note: GridNote;
  readonly names: readonly Pitch[];
  readonly from: Fraction;
  readonly to: Fraction;
  /** The note goes on over the bar line, or comes over it. */
  readonly isTiedOn: boolean;
  readonly isTiedFrom: boolean;
}

/** A note, or what of it lies in one bar, as tied notes of lengths that can be written. */
function playTo(builder: PartBuilder, bar: RawBar, stretch: Stretch): void {
  const { note: played, names, isTiedOn, isTiedFrom } = stretch;
  const parts = lengthsOf(subtract(stretch.to, stretch.from));
  for (const [i, { duration, tuplet }] of parts.entries()) {
    const note = builder.newNote(duration, spelled(played.midi, names));
    if (tuplet) note.tuplet = tuplet;
    if (played.stops.length > 0) note.stops = played.stops.map((midi) => spelled(midi, names));
    if (i < parts.length - 1 || isTiedOn) note.tie = true;
    builder.place(note, bar, i > 0 || isTiedFrom);
  }
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
