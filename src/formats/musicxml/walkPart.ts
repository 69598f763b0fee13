import { type Fraction, ZERO, add, compare, fraction, multiply, subtract, toNumber } from '#core/base';
import { joiningLink } from '#core/bowing';
import {
  type Key,
  LETTERS,
  type Letter,
  type Pitch,
  keyFifths,
  midiOf,
  pitchSpelled,
  sameKey,
  staffStep,
} from '#core/pitch';
import {
  LengthGuard,
  type Meter,
  type NoteEvent,
  type NoteMark,
  PLACES,
  type RestEvent,
  type TupletMark,
  sameMeter,
} from '#core/tune';
import type { Tuning } from '#core/tuning';
import { type RawBar } from '../score';
import { type ImportMessage, OutOfBounds, type TextPositions, importMessage, tuningFault } from '../text';
import { CHORD_KINDS, JOINED, MARKS_READ, MODES_READ, NOTE_TYPES } from './names';
import { voiceOf } from './voices';
import { type XmlElement, child, childText, childrenOf } from './xml';

/** Measures beyond this are not read. */
const MAX_MEASURES = 10_000;

/** Everything that the walk over a part gathers of one voice. */
export interface PartRead {
  readonly bars: RawBar[];
  readonly offsets: Map<string, number>;
  readonly messages: ImportMessage[];
  meter: Meter;
  key: Key;
  /** In quarters a minute, as a player is told it. */
  quarterTempo: number | null;
  tuning: Tuning | null;
}

type Sounding = NoteEvent | RestEvent;

/** Walks the measures of a part and gathers one voice of it as bars with their signs. */
export function walkPart(part: XmlElement, voice: string, positions: TextPositions, hasOwnLabels: boolean): PartRead {
  const walk = new PartWalk(voice, positions, hasOwnLabels);
  const measures = childrenOf(part, 'measure');
  for (const measure of measures.slice(0, MAX_MEASURES)) walk.measure(measure);
  if (measures.length > MAX_MEASURES)
    walk.say(measures[MAX_MEASURES]!, 'error', 'too-long', `Only the first ${MAX_MEASURES} measures are read.`);
  return walk.read;
}

class PartWalk {
  readonly read: PartRead = {
    bars: [],
    offsets: new Map(),
    messages: [],
    meter: { num: 4, den: 4 },
    key: { letter: 'C', alter: 0, mode: 'major' },
    quarterTempo: null,
    tuning: null,
  };
  private isFirst = true;
  private divisions = 1;
  private transposition = { steps: 0, semitones: 0 };
  private meter: Meter = this.read.meter;
  private key: Key = this.read.key;
  private counts = { note: 0, rest: 0 };
  private lastNote: NoteEvent | null = null;
  private restBetween = false;
  private readonly guard = new LengthGuard();
  /** Where the reading is. */
  private offset = 0;
  /** Slurs open after the last note, by number; those that open at a grace note are passed over. */
  private readonly openSlurs = new Set<string>();
  private readonly graceSlurs = new Set<string>();
  private readonly told = new Set<string>();
  private pendingLabel: string | undefined;
  private graces: Pitch[] = [];
  private chordName: string | undefined;

  constructor(
    private readonly voice: string,
    private readonly positions: TextPositions,
    private readonly hasOwnLabels: boolean,
  ) {}

  say(at: XmlElement, severity: ImportMessage['severity'], code: ImportMessage['code'], words: string): void {
    const { line, column } = this.positions.at(at.offset);
    this.read.messages.push(importMessage(line, column, severity, code, words));
  }

  private sayOnce(
    at: XmlElement,
    key: string,
    severity: ImportMessage['severity'],
    code: ImportMessage['code'],
    words: string,
  ) {
    if (this.told.has(key)) return;
    this.told.add(key);
    this.say(at, severity, code, words);
  }

  measure(element: XmlElement): void {
    const id = `b${this.read.bars.length + 1}`;
    const bar: RawBar = {
      id,
      offset: element.offset,
      events: [],
      meterInForce: this.meter,
      endingCloses: false,
      opensRepeat: false,
      plays: 0,
      closesDouble: false,
    };
    this.read.offsets.set(id, element.offset);
    let cursor: Fraction = ZERO;
    let end: Fraction = ZERO;
    let voiceEnd: Fraction = ZERO;
    let hasOther = false;
    const fillTo = (to: Fraction) => {
      if (compare(to, voiceEnd) <= 0) return;
      bar.events.push(this.newRest(subtract(to, voiceEnd)));
      voiceEnd = to;
    };
    for (const item of element.children) {
      this.offset = item.offset;
      switch (item.name) {
        case 'attributes':
          this.attributes(item, bar);
          break;
        case 'backup':
          cursor = subtract(cursor, this.duration(item));
          if (cursor.n < 0) cursor = ZERO;
          break;
        case 'forward':
          cursor = add(cursor, this.duration(item));
          break;
        case 'direction':
          this.direction(item);
          break;
        case 'sound':
          this.sound(item);
          break;
        case 'harmony':
          this.chordName = harmonyName(item) ?? this.chordName;
          break;
        case 'barline':
          this.barline(item, bar);
          if (bar.endingOpens && !bar.endingOpens.includes(1) && bar.events.length === 0) this.resumeSlurs(element);
          break;
        case 'note': {
          const isChord = child(item, 'chord') !== undefined;
          const isOwn = voiceOf(item) === this.voice;
          if (child(item, 'grace')) {
            if (isOwn) this.grace(item);
            break;
          }
          if (isChord) {
            if (isOwn && !isJoined(item)) this.chordNote(item, bar.events);
            break;
          }
          const length = this.noteLength(item);
          if (length.n <= 0) break;
          if (isOwn && !child(item, 'cue')) {
            fillTo(cursor);
            const before = bar.events[bar.events.length - 1];
            if (before && isJoined(item)) {
              bar.events[bar.events.length - 1] = this.joined(item, before, length);
              voiceEnd = add(voiceEnd, length);
              cursor = add(cursor, length);
              break;
            }
            // A voice that overlaps itself is read in its written order.
            bar.events.push(this.event(item, length));
            voiceEnd = add(voiceEnd, length);
          } else hasOther = true;
          cursor = add(cursor, length);
          break;
        }
        default:
          break;
      }
      if (compare(cursor, end) > 0) end = cursor;
    }
    if (hasOther || bar.events.length > 0) fillTo(end);
    if (this.pendingLabel !== undefined) {
      bar.label = this.pendingLabel;
      this.pendingLabel = undefined;
    }
    this.read.bars.push({ ...bar, meterInForce: this.meter });
    this.isFirst = false;
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
    const type = NOTE_TYPES.find(([name]) => name === childText(note, 'type'));
    if (!type) return stated;
    const dots = childrenOf(note, 'dot').length;
    let written = fraction(type[1], 256);
    for (let dot = 1, part = written; dot <= Math.min(dots, 4); dot++) {
      part = multiply(part, fraction(1, 2));
      written = add(written, part);
    }
    const mark = tupletOf(note);
    const exact = mark ? multiply(written, fraction(mark.inTimeOf, mark.notes)) : written;
    if (stated.n === 0) return child(note, 'rest') ? stated : exact;
    const tolerance = 1 / (4 * this.divisions) + 1e-9;
    return Math.abs(toNumber(exact) - toNumber(stated)) < tolerance ? exact : stated;
  }

  private attributes(item: XmlElement, bar: RawBar): void {
    const divisions = Number(childText(item, 'divisions'));
    if (Number.isFinite(divisions) && divisions > 0 && divisions <= 1e6) this.divisions = divisions;
    const key = child(item, 'key');
    const readKey = key && keyOf(key);
    if (readKey && !sameKey(readKey, this.key)) {
      this.key = readKey;
      if (this.isFirst) this.read.key = readKey;
      else bar.key = readKey;
    } else if (key && !readKey)
      this.sayOnce(key, 'key', 'warning', 'not-kept', 'This key signature cannot be kept; the key before it stays.');
    const time = child(item, 'time');
    const meter = time && meterOf(time);
    if (meter && !sameMeter(meter, this.meter)) {
      this.meter = meter;
      if (this.isFirst) this.read.meter = meter;
      else bar.meter = meter;
    } else if (time && !meter)
      this.sayOnce(time, 'time', 'warning', 'not-kept', 'This meter cannot be kept; the meter before it stays.');
    const transpose = child(item, 'transpose');
    if (transpose) {
      const octaves = Number(childText(transpose, 'octave-change') ?? 0) || 0;
      this.transposition = {
        steps: (Number(childText(transpose, 'diatonic') ?? 0) || 0) + 7 * octaves,
        semitones: (Number(childText(transpose, 'chromatic') ?? 0) || 0) + 12 * octaves,
      };
      if (this.transposition.semitones !== 0)
        this.sayOnce(
          transpose,
          'transpose',
          'info',
          'not-kept',
          'The part is written for a transposing instrument; pitches are read as they sound.',
        );
    }
  }

  private direction(item: XmlElement): void {
    const sound = child(item, 'sound');
    if (sound) this.sound(sound);
    for (const type of childrenOf(item, 'direction-type'))
      for (const sign of type.children) {
        if (sign.name === 'rehearsal' && sign.text !== '') {
          // Rehearsal marks may be bar numbers; a letter names a part.
          if (this.hasOwnLabels || /^[A-Z]\d?$/.test(sign.text)) this.pendingLabel = sign.text.slice(0, 24);
        } else if (sign.name === 'metronome') this.metronome(sign);
        else if (sign.name === 'scordatura') this.scordatura(sign);
        else if (sign.name === 'segno' || sign.name === 'coda')
          this.sayOnce(
            sign,
            sign.name,
            'warning',
            'not-followed',
            `${sign.name} is not followed: the tune is read in its written order.`,
          );
        else if (sign.name === 'words' && /^(d\.?\s?[cs]\.?|fine|to coda)\b/i.test(sign.text))
          this.sayOnce(
            sign,
            sign.text,
            'warning',
            'not-followed',
            `${sign.text} is not followed: the tune is read in its written order.`,
          );
        else if (sign.name === 'dynamics' || sign.name === 'wedge')
          this.sayOnce(
            sign,
            'dynamics',
            'info',
            'not-kept',
            'Dynamics have no place in a plan; the original file keeps them.',
          );
      }
  }

  private sound({ attributes }: XmlElement): void {
    const tempo = Number(attributes.tempo);
    if (this.read.quarterTempo === null && Number.isFinite(tempo) && tempo > 0) this.read.quarterTempo = tempo;
  }

  private metronome(sign: XmlElement): void {
    const unit = NOTE_TYPES.find(([name]) => name === childText(sign, 'beat-unit'));
    const perMinute = Number(childText(sign, 'per-minute'));
    if (!unit || !Number.isFinite(perMinute) || perMinute <= 0) return;
    const dotted = childrenOf(sign, 'beat-unit-dot').length > 0 ? 1.5 : 1;
    this.read.quarterTempo = (perMinute * unit[1] * dotted) / 64;
  }

  private scordatura(sign: XmlElement): void {
    const strings = childrenOf(sign, 'accord').map((accord): [number, Pitch | null] => [
      Number(accord.attributes.string),
      pitchFrom(
        childText(accord, 'tuning-step'),
        childText(accord, 'tuning-alter'),
        childText(accord, 'tuning-octave'),
      ),
    ]);
    const byString = new Map(strings);
    const [g, d, a, e] = [4, 3, 2, 1].map((number) => byString.get(number));
    const fault = g && d && a && e ? tuningFault([g, d, a, e]) : null;
    if (g && d && a && e && !fault) this.read.tuning = [g, d, a, e];
    else
      this.sayOnce(
        sign,
        'scordatura',
        'warning',
        'not-kept',
        fault ? `The tuning stays: ${fault}.` : 'This scordatura does not name all four strings; the tuning stays.',
      );
  }

  private barline(item: XmlElement, bar: RawBar): void {
    const isLeft = item.attributes.location === 'left';
    const style = childText(item, 'bar-style');
    if (!isLeft && (style === 'light-light' || style === 'light-heavy' || style === 'heavy-heavy'))
      bar.closesDouble = true;
    for (const ending of childrenOf(item, 'ending')) {
      if (ending.attributes.type === 'start') {
        const numbers = (ending.attributes.number ?? '')
          .split(/[\s,.]+/)
          .filter((part) => part !== '')
          .map(Number);
        if (numbers.length > 0 && numbers.every((number) => Number.isInteger(number) && number >= 1 && number <= 99))
          bar.endingOpens = numbers;
        else
          this.say(
            ending,
            'warning',
            'not-kept',
            `The ending "${ending.attributes.number ?? ''}" is not a number; its bars are played every time.`,
          );
      } else bar.endingCloses = true;
    }
    const repeat = child(item, 'repeat');
    if (repeat?.attributes.direction === 'forward') bar.opensRepeat = true;
    if (repeat?.attributes.direction === 'backward') {
      const times = Number(repeat.attributes.times ?? 2);
      bar.plays = Number.isInteger(times) && times >= 2 && times <= 16 ? times : 2;
    }
    if (child(item, 'segno') || child(item, 'coda'))
      this.sayOnce(
        item,
        'jump',
        'warning',
        'not-followed',
        'Jumps are not followed: the tune is read in its written order.',
      );
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
    if (pitch && this.graces.length < 16) this.graces.push(pitch);
    for (const slur of notationsOf(note, 'slur')) {
      const number = slur.attributes.number ?? '1';
      if (slur.attributes.type === 'start') this.graceSlurs.add(number);
      else this.graceSlurs.delete(number);
    }
  }

  private within(length: Fraction): Fraction {
    const fault = this.guard.fault(length);
    if (fault) throw new OutOfBounds(this.offset, fault);
    return length;
  }

  private newRest(duration: Fraction, more: Partial<RestEvent> = {}): RestEvent {
    this.within(duration);
    this.restBetween = true;
    const chord = this.takeChord();
    return { kind: 'rest', id: `r${++this.counts.rest}`, duration, ...more, ...(chord ? { chord } : {}) };
  }

  private takeChord(): string | undefined {
    const name = this.chordName;
    this.chordName = undefined;
    return name;
  }

  private event(note: XmlElement, duration: Fraction): Sounding {
    const tuplet = tupletOf(note);
    const pitch = this.pitch(note);
    if (!pitch) {
      if (child(note, 'unpitched'))
        this.sayOnce(note, 'unpitched', 'warning', 'not-kept', 'Notes without a pitch are read as rests.');
      return this.newRest(duration, tuplet ? { tuplet } : {});
    }
    this.within(duration);
    const technical = (name: string) => notationsOf(note, 'technical').flatMap((group) => childrenOf(group, name));
    const finger = technical('open-string').length > 0 ? 0 : fingerOf(technical('fingering')[0]?.text);
    const string = Number(technical('string')[0]?.text);
    const marks = marksOf(note);
    const ties = isTied(note);
    const lock = technical('up-bow').length > 0 ? 'up' : technical('down-bow').length > 0 ? 'down' : null;
    const chord = this.takeChord();
    this.counts.note += 1;
    const plain: NoteEvent = {
      kind: 'note',
      id: `n${this.counts.note}`,
      duration,
      pitch,
      ...(this.graces.length > 0 ? { graceNotes: this.graces } : {}),
      ...(ties ? { tie: true as const } : {}),
      link: 'change',
      ...(lock ? { lock } : {}),
      ...(PLACES[PLACES.length - string] ? { place: PLACES[PLACES.length - string]! } : {}),
      ...(finger === null ? {} : { finger }),
      ...(tuplet ? { tuplet } : {}),
      ...(chord ? { chord } : {}),
      ...(marks.length > 0 ? { marks } : {}),
    };
    this.graces = [];
    const isJoined = this.openSlurs.size > 0 && this.lastNote !== null;
    const link =
      this.counts.note === 1 ? 'start' : isJoined ? joiningLink(this.lastNote!, plain, this.restBetween) : 'change';
    this.followSlurs(note);
    if (childrenOf(note, 'lyric').length > 0)
      this.sayOnce(
        note,
        'lyric',
        'info',
        'not-kept',
        'Words to be sung have no place in a plan; the original file keeps them.',
      );
    const linked: NoteEvent = { ...plain, link };
    this.lastNote = linked;
    this.restBetween = false;
    return linked;
  }

  /** A note together with its rest, which stands on the page as a note tied to it. */
  private joined(item: XmlElement, before: Sounding, length: Fraction): Sounding {
    const duration = this.within(add(before.duration, length));
    if (before.kind === 'rest') return { ...before, duration };
    const { tie: _tie, ...rest } = before;
    const whole: NoteEvent = { ...rest, duration, ...(isTied(item) ? { tie: true as const } : {}) };
    if (this.lastNote?.id === before.id) this.lastNote = whole;
    this.followSlurs(item);
    return whole;
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
  private chordNote(note: XmlElement, events: Sounding[]): void {
    const last = events[events.length - 1];
    const pitch = this.pitch(note);
    if (last?.kind !== 'note' || !pitch || (last.stops?.length ?? 0) >= 5) return;
    const [top, ...stops] = [last.pitch, ...(last.stops ?? []), pitch].sort((a, b) => midiOf(b) - midiOf(a));
    const { tie, ...rest } = last;
    // The bow holds over what the top note holds over.
    const ties = top === pitch ? isTied(note) : tie === true;
    const chord: NoteEvent = { ...rest, ...(ties ? { tie: true as const } : {}), pitch: top!, stops };
    events[events.length - 1] = chord;
    if (this.lastNote === last) this.lastNote = chord;
  }
}

function notationsOf(note: XmlElement, name: string): XmlElement[] {
  return childrenOf(note, 'notations').flatMap((notations) => childrenOf(notations, name));
}

function isTied(note: XmlElement): boolean {
  return [...childrenOf(note, 'tie'), ...notationsOf(note, 'tied')].some(
    ({ attributes }) => attributes.type === 'start',
  );
}

/** Whether a note is only the rest of the one before. */
function isJoined(note: XmlElement): boolean {
  return notationsOf(note, 'other-notation').some(({ text }) => text === JOINED);
}

function tupletOf(note: XmlElement): TupletMark | null {
  const element = child(note, 'time-modification');
  if (!element) return null;
  const notes = Number(childText(element, 'actual-notes'));
  const inTimeOf = Number(childText(element, 'normal-notes'));
  const isTuplet =
    Number.isInteger(notes) &&
    Number.isInteger(inTimeOf) &&
    notes >= 2 &&
    notes <= 64 &&
    inTimeOf >= 1 &&
    inTimeOf <= 64;
  if (!isTuplet) return null;
  const starts = notationsOf(note, 'tuplet').some(({ attributes }) => attributes.type === 'start');
  return { notes, inTimeOf, ...(starts ? { first: true as const } : {}) };
}

function fingerOf(text: string | undefined): number | null {
  return text !== undefined && /^[0-4]$/.test(text) ? Number(text) : null;
}

function marksOf(note: XmlElement): NoteMark[] {
  const found = ['ornaments', 'articulations'].flatMap((group) =>
    notationsOf(note, group).flatMap(({ children }) => children.flatMap(({ name }) => MARKS_READ[name] ?? [])),
  );
  if (notationsOf(note, 'fermata').length > 0) found.push('fermata');
  return [...new Set(found)];
}

function pitchFrom(step: string | undefined, alter: string | undefined, octave: string | undefined): Pitch | null {
  const letter = LETTERS.find((known): known is Letter => known === step?.toUpperCase());
  const [sign, height] = [Math.round(Number(alter ?? 0)), Number(octave)];
  if (!letter || !Number.isInteger(height) || octave === '' || height < -1 || height > 9 || !(Math.abs(sign) <= 2))
    return null;
  return { letter, alter: sign + 0, octave: height };
}

function meterOf(time: XmlElement): Meter | null {
  const beats = childText(time, 'beats') ?? '';
  const num = beats.split('+').reduce((sum, term) => sum + Number(term), 0);
  const den = Number(childText(time, 'beat-type'));
  if (!Number.isInteger(num) || num < 1 || num > 64 || ![1, 2, 4, 8, 16, 32].includes(den)) return null;
  const { symbol } = time.attributes;
  return symbol === 'common' || symbol === 'cut' ? { num, den, symbol } : { num, den };
}

/** The key of a signature: the tonic whose mode has so many sharps. */
function keyOf(element: XmlElement): Key | null {
  const fifths = Number(childText(element, 'fifths') ?? NaN);
  if (!Number.isInteger(fifths) || Math.abs(fifths) > 7) return null;
  const mode = MODES_READ[(childText(element, 'mode') ?? 'major').toLowerCase()] ?? 'major';
  for (const alter of [0, 1, -1])
    for (const letter of LETTERS) {
      const key: Key = { letter, alter, mode };
      if (keyFifths(key) === fifths) return key;
    }
  return null;
}

const SUFFIX_OF_KIND = new Map(Object.entries(CHORD_KINDS).map(([suffix, kind]) => [kind, suffix]));

function harmonyName(harmony: XmlElement): string | null {
  const root = child(harmony, 'root');
  const kind = child(harmony, 'kind');
  const step = root && childText(root, 'root-step');
  if (!root || !step || !/^[A-G]$/.test(step)) return null;
  const sign = (value: string | undefined) => (value === '1' ? '#' : value === '-1' ? 'b' : '');
  const suffix = kind?.attributes.text ?? SUFFIX_OF_KIND.get(kind?.text ?? 'major') ?? '';
  const bass = child(harmony, 'bass');
  const bassStep = bass && childText(bass, 'bass-step');
  const under = bassStep ? `/${bassStep}${sign(childText(bass, 'bass-alter'))}` : '';
  return `${step}${sign(childText(root, 'root-alter'))}${suffix}${under}`.slice(0, 40);
}
