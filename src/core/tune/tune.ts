import type { Fraction } from '#core/base';
import type { Key, Pitch } from '#core/pitch';
import type { Meter } from './meter';

/** The four string places, lowest first. They keep their names however the strings are tuned. */
export const PLACES = ['G', 'D', 'A', 'E'] as const;
export type Place = (typeof PLACES)[number];

export const DANCE_TYPES = [
  'reel',
  'hoedown',
  'breakdown',
  'hornpipe',
  'schottische',
  'jig',
  'slip jig',
  'slide',
  'polka',
  'march',
  'waltz',
  'mazurka',
  'strathspey',
  'air',
] as const;
export type DanceType = (typeof DANCE_TYPES)[number];

export type Direction = 'down' | 'up';

/**
 * How a note is joined to the note played before it.
 * `start`: the tune's first note. `change`: a stroke the other way. `slur`: same stroke, no stop.
 * `hook`: same stroke, after a stop. `retake`: the bow is lifted, a new stroke in the same direction.
 */
export const LINKS = ['start', 'change', 'slur', 'hook', 'retake'] as const;
export type Link = (typeof LINKS)[number];

/** A written note or chord. */
export interface NoteEvent {
  readonly kind: 'note';
  readonly id: string;
  /** Sounding length in whole notes, a tuplet's factor already in it. */
  readonly duration: Fraction;
  /** The melody: the top note of a chord, unless a drone is stopped above it. */
  readonly pitch: Pitch;
  /** The other notes of a chord, highest first, on the strings below; one higher than the melody lies on the string above. */
  readonly stops?: readonly Pitch[];
  readonly graceNotes?: readonly Pitch[];
  /** Tied to the next note: both are one note to the bow. */
  readonly tie?: true;
  readonly link: Link;
  /** Links that replace `link` on single passes of the part, by pass number. */
  readonly linkOnPass?: { readonly [pass: number]: Link };
  /** The direction a player insists on. Links win; a contradicted lock is reported. */
  readonly lock?: Direction;
  /** Pinned by the player or the source; left out where the finger rule decides. */
  readonly place?: Place;
  readonly finger?: number;
  /** Hand position pinned with them: 0.5 is half position. */
  readonly position?: number;
  readonly tuplet?: TupletMark;
  readonly chord?: string;
  readonly marks?: readonly NoteMark[];
  /** Wished length of the stroke that begins here, against the length it would have by itself. */
  readonly bowLength?: number;
  /** The open neighbour string that sounds along, on the lower or the upper side: the bow lies on both. */
  readonly drone?: 'lower' | 'upper';
  /** Played freely: the note lasts so many times its length. */
  readonly hold?: number;
  /** Played freely: a silence after it, in whole notes. */
  readonly breath?: number;
  /** Played freely: the pace from here, 1 is steady; it glides between notes that name one. */
  readonly pace?: number;
}

/** `notes` written notes sound in the time of `inTimeOf`. `first` stands on the tuplet's first event. */
export interface TupletMark {
  readonly notes: number;
  readonly inTimeOf: number;
  readonly first?: true;
}

export const NOTE_MARKS = [
  'staccato',
  'accent',
  'fermata',
  'tenuto',
  'trill',
  'roll',
  'turn',
  'mordent',
  'pulse',
  'bowed-triplet',
  'cut',
  'flick',
  'passing-triplet',
  'brushed-run',
  'pressed-in',
  'slide',
  'snap',
  'vibrato',
  'vibrato-growing',
  'closing-swell',
  'fade',
  'barre',
  /** The string was not said when the note was called out: guessed, until the player confirms it. */
  'inferred-string',
] as const;
export type NoteMark = (typeof NOTE_MARKS)[number];

export interface RestEvent {
  readonly kind: 'rest';
  readonly id: string;
  readonly duration: Fraction;
  readonly tuplet?: TupletMark;
  readonly chord?: string;
}

/** Begins a bar. Every part starts with one. */
export interface BarEvent {
  readonly kind: 'bar';
  readonly id: string;
  /** Plays of the part in which this bar sounds, counted from 1; left out: in all. */
  readonly onPlays?: readonly number[];
  /** The bar stands under an ending bracket (and so has `onPlays`). */
  readonly ending?: true;
  /** Changes that hold from here on. */
  readonly meter?: Meter;
  readonly key?: Key;
  /** Id of the bar whose notes stand here too: an edit of either is made in both. Links and locks are its own. */
  readonly reuses?: string;
}

export type TuneEvent = NoteEvent | RestEvent | BarEvent;

export interface Part {
  readonly name: string;
  readonly events: readonly TuneEvent[];
}

/** The document: everything else on screen, in sound and in files is derived from it. */
export interface Tune {
  readonly schemaVersion: 1;
  readonly title: string;
  readonly composer?: string;
  readonly source?: string;
  readonly notes?: readonly string[];
  /** null: the type was not given. */
  readonly danceType: DanceType | null;
  readonly meter: Meter;
  readonly key: Key;
  /** Open strings by place, lowest place first. */
  readonly tuning: readonly [Pitch, Pitch, Pitch, Pitch];
  /** The tempo wished for, in dance beats a minute; null: the middle of the dance's band. */
  readonly tempoBpm: number | null;
  /** Name of the lilt it is danced to; left out: straight. */
  readonly lilt?: string;
  /** null: the direction that lets the first full bar begin on a down-bow. */
  readonly start: Direction | null;
  readonly parts: readonly Part[];
  /** Part names in playing order: total plays are counted here and nowhere else. */
  readonly form: readonly string[];
}

/** All written notes of a tune, in the order of its parts. */
export function writtenNotes(tune: Tune): NoteEvent[] {
  return tune.parts.flatMap((part) => part.events.filter((event) => event.kind === 'note'));
}

/** A note without the string and finger that were pinned for its old pitch. */
export function unpinned(note: NoteEvent): NoteEvent {
  const { place: _place, finger: _finger, position: _position, marks, ...rest } = note;
  const kept = marks?.filter((mark) => mark !== 'inferred-string') ?? [];
  return kept.length > 0 ? { ...rest, marks: kept } : rest;
}
