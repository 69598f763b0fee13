import { add, compare, type Fraction, fraction, subtract, toNumber, ZERO } from '#core/base';
import { type Key, midiOf, type Pitch, pitchSpelled, sameKey, staffStep } from '#core/pitch';
import { type Meter, type NoteEvent, PLACES, sameMeter } from '#core/tune';
import type { Tuning } from '#core/tuning';
import { PartBuilder, type RawBar } from '../score';
import type { ImportMessage, TextPositions } from '../text';
import { Directions } from './directions';
import {
  endingNumbers,
  fingerOf,
  harmonyName,
  isJoined,
  isTied,
  keyOf,
  marksOf,
  meterOf,
  notationsOf,
  pitchFrom,
  tupletOf,
  writtenLength,
} from './signs';
import { Teller } from './teller';
import { voiceOf } from './voices';
import { child, childrenOf, childText, type XmlElement } from './xml';

/** Measures beyond this are not read. */
const MAX_MEASURES = 10_000;
/** Notes below the top one of a chord, and grace notes before one. */
const MAX_STOPS = 5;
const MAX_GRACES = 16;

/** Everything that the walk over a part gathers of one voice. */
export interface PartRead {
  readonly bars: readonly RawBar[];
  readonly offsets: ReadonlyMap<string, number>;
  readonly messages: readonly ImportMessage[];
  readonly meter: Meter;
  readonly key: Key;
  readonly quarterTempo: number | null;
  readonly tuning: Tuning | null;
}

export interface PartOptions {
  readonly voice: string;
  readonly positions: TextPositions;
  /** Parts have names of their own: every rehearsal mark is one. */
  readonly hasOwnLabels: boolean;
}

/** Walks the measures of a part and gathers one voice of it as bars with their signs. */
export function walkPart(part: XmlElement, options: PartOptions): PartRead {
  const teller = new Teller(options.positions);
  const directions = new Directions(teller, options.hasOwnLabels);
  const walk = new PartWalk(options.voice, teller, directions);
  const measures = childrenOf(part, 'measure');
  for (const measure of measures.slice(0, MAX_MEASURES)) walk.measure(measure);
  if (measures.length > MAX_MEASURES)
    teller.say(measures[MAX_MEASURES]!, { what: 'too-many-measures', max: MAX_MEASURES });
  const { bars, offsets } = walk.builder;
  const { quarterTempo, tuning } = directions;
  return { bars, offsets, messages: teller.messages, ...walk.head, quarterTempo, tuning };
}

/** Where the reading is within a measure: voices are written one after the other, with steps back and forth. */
interface Cursor {
  at: Fraction;
  /** As far as any voice has come, and the one that is read. */
  end: Fraction;
  ownEnd: Fraction;
  hasOther: boolean;
}

class PartWalk {
  /** What the first measure says: it holds from the beginning. */
  readonly head: { meter: Meter; key: Key } = {
    meter: { num: 4, den: 4 },
    key: { letter: 'C', alter: 0, mode: 'major' },
  };
  readonly builder = new PartBuilder(this.head.meter, this.head.key);
  private divisions = 1;
  private transposition = { steps: 0, semitones: 0 };
  /** Where the reading is in the text. */
  private offset = 0;
  /** Slurs open after the last note, by number; those that open at a grace note are passed over. */
  private readonly openSlurs = new Set<string>();
  private readonly graceSlurs = new Set<string>();
  private graces: Pitch[] = [];
  private chordName: string | undefined;

  constructor(
    private readonly voice: string,
    private readonly teller: Teller,
    private readonly directions: Directions,
  ) {}

  measure(element: XmlElement): void {
    const { builder, directions } = this;
    const bar = builder.beginBar(element.offset);
    const cursor: Cursor = { at: ZERO, end: ZERO, ownEnd: ZERO, hasOther: false };
    for (const item of element.children) {
      this.offset = item.offset;
      if (item.name === 'note') this.note(item, bar, cursor);
      else if (item.name === 'backup') cursor.at = notBefore(ZERO, subtract(cursor.at, this.duration(item)));
      else if (item.name === 'forward') cursor.at = add(cursor.at, this.duration(item));
      else this.sign(item, bar, element);
      cursor.end = notBefore(cursor.end, cursor.at);
    }
    if (cursor.hasOther || bar.events.length > 0) this.fillTo(cursor.end, bar, cursor);
    if (directions.label !== undefined) bar.label = directions.label;
    directions.label = undefined;
    bar.meterInForce = builder.meter;
  }

  /** What stands between the notes. */
  private sign(item: XmlElement, bar: RawBar, measure: XmlElement): void {
    switch (item.name) {
      case 'attributes':
        this.attributes(item, bar);
        break;
      case 'direction':
        this.directions.direction(item);
        break;
      case 'sound':
        this.directions.sound(item);
        break;
      case 'harmony':
        this.chordName = harmonyName(item) ?? this.chordName;
        break;
      case 'barline':
        this.barline(item, bar);
        if (bar.endingOpens && !bar.endingOpens.includes(1) && bar.events.length === 0) this.resumeSlurs(measure);
        break;
    }
  }

  private note(item: XmlElement, bar: RawBar, cursor: Cursor): void {
    const isOwn = voiceOf(item) === this.voice;
    if (child(item, 'grace')) {
      if (isOwn) this.grace(item);
      return;
    }
    if (child(item, 'chord')) {
      if (isOwn && !isJoined(item)) this.chordNote(item, bar);
      return;
    }
    const length = this.noteLength(item);
    if (length.n <= 0) return;
    if (isOwn && !child(item, 'cue')) {
      this.fillTo(cursor.at, bar, cursor);
      // A voice that overlaps itself is read in its written order.
      if (bar.events.length > 0 && isJoined(item)) this.join(item, bar, length);
      else this.event(item, bar, length);
      cursor.ownEnd = add(cursor.ownEnd, length);
    } else cursor.hasOther = true;
    cursor.at = add(cursor.at, length);
  }

  /** Where the voice is silent in the file it rests. */
  private fillTo(to: Fraction, bar: RawBar, cursor: Cursor): void {
    if (compare(to, cursor.ownEnd) <= 0) return;
    this.rest(subtract(to, cursor.ownEnd), bar);
    cursor.ownEnd = to;
  }

  private duration(item: XmlElement): Fraction {
    const value = Number(childText(item, 'duration') ?? 0);
    if (!Number.isFinite(value) || value <= 0 || value > 1e9) return ZERO;
    // Divisions may be broken numbers in files of old; a thousandth of one is near enough.
    const scale = Number.isInteger(value) && Number.isInteger(this.divisions) ? 1 : 1000;
    return fraction(Math.round(value * scale), Math.max(1, Math.round(this.divisions * 4 * scale)));
  }

  /** The length by its type and tuplet where those say the same as its duration, which may be rounded; else its duration. */
  private noteLength(note: XmlElement): Fraction {
    const stated = this.duration(note);
    const exact = writtenLength(note);
    if (!exact) return stated;
    if (stated.n === 0) return child(note, 'rest') ? stated : exact;
    const tolerance = 1 / (4 * this.divisions) + 1e-9;
    return Math.abs(toNumber(exact) - toNumber(stated)) < tolerance ? exact : stated;
  }

  private attributes(item: XmlElement, bar: RawBar): void {
    const divisions = Number(childText(item, 'divisions'));
    if (Number.isFinite(divisions) && divisions > 0 && divisions <= 1e6) this.divisions = divisions;
    const key = child(item, 'key');
    if (key) this.key(key, bar);
    const time = child(item, 'time');
    if (time) this.time(time, bar);
    const transpose = child(item, 'transpose');
    if (transpose) this.transpose(transpose);
  }

  private key(element: XmlElement, bar: RawBar): void {
    const { builder } = this;
    const key = keyOf(element);
    if (!key) this.teller.once(element, { what: 'key-not-kept' });
    else if (!sameKey(key, builder.key)) {
      builder.key = key;
      if (builder.bars.length === 1) this.head.key = key;
      else bar.key = key;
    }
  }

  private time(element: XmlElement, bar: RawBar): void {
    const { builder } = this;
    const meter = meterOf(element);
    if (!meter) this.teller.once(element, { what: 'meter-not-kept' });
    else if (!sameMeter(meter, builder.meter)) {
      builder.meter = meter;
      if (builder.bars.length === 1) this.head.meter = meter;
      else bar.meter = meter;
    }
  }

  private transpose(element: XmlElement): void {
    const stated = (name: string) => Number(childText(element, name) ?? 0) || 0;
    const octaves = stated('octave-change');
    this.transposition = { steps: stated('diatonic') + 7 * octaves, semitones: stated('chromatic') + 12 * octaves };
    if (this.transposition.semitones !== 0) this.teller.once(element, { what: 'transposing' });
  }

  private barline(item: XmlElement, bar: RawBar): void {
    const isLeft = item.attributes.location === 'left';
    const style = childText(item, 'bar-style');
    if (!isLeft && (style === 'light-light' || style === 'light-heavy' || style === 'heavy-heavy'))
      bar.closesDouble = true;
    for (const ending of childrenOf(item, 'ending')) {
      if (ending.attributes.type === 'start') this.ending(ending, bar);
      else bar.endingCloses = true;
    }
    const repeat = child(item, 'repeat');
    if (repeat?.attributes.direction === 'forward') this.builder.openRepeat(bar);
    if (repeat?.attributes.direction === 'backward') {
      const times = Number(repeat.attributes.times ?? 2);
      bar.plays = Number.isInteger(times) && times >= 2 && times <= 16 ? times : 2;
    }
    if (child(item, 'segno') || child(item, 'coda')) this.teller.once(item, { what: 'jumps' });
  }

  private ending(element: XmlElement, bar: RawBar): void {
    const numbers = endingNumbers(element);
    this.builder.openEnding(numbers, bar);
    if (!numbers) this.teller.say(element, { what: 'ending-not-number', text: element.attributes.number ?? '' });
  }

  private pitch(note: XmlElement): Pitch | null {
    const element = child(note, 'pitch');
    if (!element) return null;
    const written = pitchFrom(childText(element, 'step'), childText(element, 'alter'), childText(element, 'octave'));
    const { steps, semitones } = this.transposition;
    if (!written || semitones === 0) return written;
    const moved = pitchSpelled(staffStep(written) + steps, midiOf(written) + semitones);
    return moved.octave >= -1 && moved.octave <= 9 ? moved : null;
  }

  private grace(note: XmlElement): void {
    const pitch = this.pitch(note);
    if (pitch && this.graces.length < MAX_GRACES) this.graces.push(pitch);
    for (const { attributes } of notationsOf(note, 'slur')) {
      const number = attributes.number ?? '1';
      if (attributes.type === 'start') this.graceSlurs.add(number);
      else this.graceSlurs.delete(number);
    }
  }

  private takeChord(): string | undefined {
    const name = this.chordName;
    this.chordName = undefined;
    return name;
  }

  private rest(length: Fraction, bar: RawBar, tuplet = null as ReturnType<typeof tupletOf>): void {
    const duration = this.builder.within(length, this.offset);
    const chord = this.takeChord();
    this.builder.rest(duration, bar, { ...(tuplet ? { tuplet } : {}), ...(chord ? { chord } : {}) });
  }

  private event(item: XmlElement, bar: RawBar, length: Fraction): void {
    const { builder } = this;
    const tuplet = tupletOf(item);
    const pitch = this.pitch(item);
    if (!pitch) {
      if (child(item, 'unpitched')) this.teller.once(item, { what: 'unpitched' });
      this.rest(length, bar, tuplet);
      return;
    }
    const note = builder.newNote(builder.within(length, this.offset), pitch);
    if (this.graces.length > 0) note.graceNotes = this.graces;
    this.graces = [];
    if (isTied(item)) note.tie = true;
    if (tuplet) note.tuplet = tuplet;
    const chord = this.takeChord();
    if (chord) note.chord = chord;
    this.hands(item, note);
    builder.place(note, bar, this.openSlurs.size > 0);
    this.followSlurs(item);
    if (childrenOf(item, 'lyric').length > 0) this.teller.once(item, { what: 'lyrics-not-kept' });
  }

  /** What a note says of bow, string and finger, and its marks. */
  private hands(item: XmlElement, note: ReturnType<PartBuilder['newNote']>): void {
    const technical = (name: string) => notationsOf(item, 'technical').flatMap((group) => childrenOf(group, name));
    if (technical('up-bow').length > 0) note.lock = 'up';
    else if (technical('down-bow').length > 0) note.lock = 'down';
    const place = PLACES[PLACES.length - Number(technical('string')[0]?.text)];
    if (place) note.place = place;
    const finger = technical('open-string').length > 0 ? 0 : fingerOf(technical('fingering')[0]?.text);
    if (finger !== null) note.finger = finger;
    const marks = marksOf(item);
    if (marks.length > 0) note.marks = marks;
  }

  /** A note together with its rest, which stands on the page as a note tied to it. */
  private join(item: XmlElement, bar: RawBar, length: Fraction): void {
    const before = bar.events[bar.events.length - 1]!;
    const duration = this.builder.within(add(before.duration, length), this.offset);
    if (before.kind === 'rest') {
      this.builder.changeLast(bar, { ...before, duration });
      return;
    }
    const { tie: _tie, ...rest } = before;
    this.builder.changeLast(bar, { ...rest, duration, ...(isTied(item) ? { tie: true as const } : {}) });
    this.followSlurs(item);
  }

  private followSlurs(note: XmlElement): void {
    const slurs = notationsOf(note, 'slur');
    for (const { attributes } of slurs) {
      const number = attributes.number ?? '1';
      if (attributes.type === 'stop' && !this.graceSlurs.delete(number)) this.openSlurs.delete(number);
    }
    for (const { attributes } of slurs) if (attributes.type === 'start') this.openSlurs.add(attributes.number ?? '1');
  }

  /** What a later ending closes without having opened it runs on from before the first one; nothing else does. */
  private resumeSlurs(measure: XmlElement): void {
    this.openSlurs.clear();
    const opened = new Set<string>();
    for (const note of childrenOf(measure, 'note'))
      for (const { attributes } of notationsOf(note, 'slur')) {
        const number = attributes.number ?? '1';
        if (attributes.type === 'start') opened.add(number);
        else if (attributes.type === 'stop' && !opened.delete(number)) this.openSlurs.add(number);
      }
  }

  /** A further note of a chord: the highest is the melody. */
  private chordNote(item: XmlElement, bar: RawBar): void {
    const last = bar.events[bar.events.length - 1];
    const pitch = this.pitch(item);
    if (last?.kind !== 'note' || !pitch || (last.stops?.length ?? 0) >= MAX_STOPS) return;
    const [top, ...stops] = [last.pitch, ...(last.stops ?? []), pitch].sort((a, b) => midiOf(b) - midiOf(a));
    const { tie, ...rest } = last;
    // The bow holds over what the top note holds over.
    const ties = top === pitch ? isTied(item) : tie === true;
    const chord: NoteEvent = { ...rest, ...(ties ? { tie: true as const } : {}), pitch: top!, stops };
    this.builder.changeLast(bar, chord);
  }
}

const notBefore = (a: Fraction, b: Fraction) => (compare(a, b) > 0 ? a : b);
