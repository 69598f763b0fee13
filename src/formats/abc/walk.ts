import type { AbcElement } from 'abcjs/src/parse/abc_parse.js';
import type { Fraction } from '#core/base';
import { midiOf } from '#core/pitch';
import { barLength, type Meter, type NoteMark, type TupletMark } from '#core/tune';
import { type OpenNote, PartBuilder } from '../score';
import { type ImportMatter, type ImportMessage, importMessage, type TextPositions } from '../text';
import { chordOf, endingNumbers, keyOf, lengthOf, meterOf, pitchOf, tupletOf } from './elements';
import type { PreparedText } from './prepare';
import type { VoiceLine } from './voices';

/** Bars beyond this are not read: 10,000 bars are far more than any tune has. */
const MAX_BARS = 10_000;

const MARKS: Record<string, NoteMark> = {
  staccato: 'staccato',
  accent: 'accent',
  emphasis: 'accent',
  fermata: 'fermata',
  tenuto: 'tenuto',
  trill: 'trill',
  irishroll: 'roll',
  roll: 'roll',
  turn: 'turn',
  mordent: 'mordent',
  lowermordent: 'mordent',
  slide: 'slide',
};
/** Signs that change the playing order in ways that are not followed. */
const JUMPS = ['D.C.', 'D.S.', 'D.C.alfine', 'D.C.alcoda', 'D.S.alfine', 'D.S.alcoda', 'coda', 'segno', 'fine'];
/** What a walk over a voice needs beside its lines. */
export interface WalkOptions {
  readonly positions: TextPositions;
  readonly messages: ImportMessage[];
  /** Letters before the tune's own text in what the parser was given. */
  readonly leadLength: number;
  readonly prepared: Omit<PreparedText, 'text' | 'messages'>;
  /** How far an accidental in a bar holds. */
  readonly propagate: string;
}

/** Finds the value at the first of some places from one to another, both among them. O(log n) by halving. */
function firstWithin<T>(values: ReadonlyMap<number, T>): (from: number, to: number) => T | undefined {
  const places = [...values.keys()].sort((a, b) => a - b);
  return (from, to) => {
    let [low, high] = [0, places.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (places[middle]! < from) low = middle + 1;
      else high = middle;
    }
    const place = places[low];
    return place !== undefined && place <= to ? values.get(place) : undefined;
  };
}

/** Walks the melody voice and gathers its bars. */
export function walkLines(builder: PartBuilder, lines: readonly VoiceLine[], options: WalkOptions): void {
  const walk = new VoiceWalk(builder, options);
  for (const line of lines) if (!walk.line(line)) return;
}

class VoiceWalk {
  /** Slurs open after the last note, and whether the next note is joined although none is. */
  private openSlurs = 0;
  private runsOn = false;
  private openBeforeEndings: number | null = null;
  private readonly accidentals = new Map<string, number>();
  private readonly told = new Set<string>();
  private readonly playsIn;
  private readonly slursIn;

  constructor(
    private readonly builder: PartBuilder,
    private readonly options: WalkOptions,
  ) {
    this.playsIn = firstWithin(options.prepared.playsAt);
    this.slursIn = firstWithin(options.prepared.endings);
  }

  /** @returns false where no more is read */
  line({ staff, elements }: VoiceLine): boolean {
    if (staff.key) this.builder.changeKey(keyOf(staff.key));
    if (staff.meter) this.meter(meterOf(staff.meter), this.offsetOf(staff.meter));
    return elements.every((element) => this.element(element));
  }

  private element(element: AbcElement): boolean {
    switch (element.el_type) {
      case 'key':
        this.builder.changeKey(keyOf(element));
        this.accidentals.clear();
        return true;
      case 'meter':
        this.meter(meterOf(element), this.offsetOf(element));
        return true;
      case 'part':
        this.builder.label(element.title?.trim().slice(0, 12) || undefined);
        this.builder.endBar();
        return true;
      case 'bar':
        this.barLine(element);
        return true;
      case 'note':
        return this.note(element);
      default:
        return true;
    }
  }

  private offsetOf({ startChar }: AbcElement): number {
    return startChar - this.options.leadLength;
  }

  private say(offset: number, matter: ImportMatter): void {
    this.options.messages.push(importMessage(this.options.positions.at(Math.max(0, offset)), matter));
  }

  private meter(meter: Meter | null, offset: number): void {
    if (meter) this.builder.changeMeter(meter);
    else this.say(offset, { what: 'meter-not-kept' });
  }

  private barLine(element: AbcElement): void {
    const { builder } = this;
    this.accidentals.clear();
    this.closeTuplet();
    const type = element.type ?? '';
    const last = builder.lastBar;
    if (last) {
      const offset = this.offsetOf(element);
      const asked = this.playsIn(offset - 1, element.endChar - this.options.leadLength - 1);
      if (type === 'bar_right_repeat' || type === 'bar_dbl_repeat') last.plays = Math.max(last.plays, asked ?? 2);
      if (/bar_(thin_thin|thin_thick|thick_thin)/.test(type)) last.closesDouble = true;
      if (element.endEnding) last.endingCloses = true;
    }
    if (type === 'bar_left_repeat' || type === 'bar_dbl_repeat') {
      builder.openRepeat();
      this.openBeforeEndings = null;
    }
    if (element.startEnding) this.ending(element, element.startEnding);
    builder.endBar();
  }

  private closeTuplet(): void {
    const { tuplet } = this.builder;
    if (!tuplet) return;
    this.say(tuplet.offset, { what: 'tuplet-not-full', notes: tuplet.notes, left: tuplet.left });
    this.builder.tuplet = null;
  }

  private ending(element: AbcElement, text: string): void {
    const offset = this.offsetOf(element);
    const numbers = endingNumbers(text);
    if (numbers?.includes(1)) this.openBeforeEndings = null;
    this.openBeforeEndings ??= this.openSlurs;
    this.builder.openEnding(numbers);
    this.runsOn = this.openBeforeEndings > 0;
    this.openSlurs = this.slursIn(offset - 1, element.endChar - this.options.leadLength) ?? this.openSlurs;
    if (!numbers) this.say(offset, { what: 'ending-not-number', text });
  }

  /** A note, a chord or a rest. */
  private note(element: AbcElement): boolean {
    const { builder } = this;
    const offset = this.offsetOf(element);
    if (!builder.isBarOpen && builder.bars.length >= MAX_BARS) {
      this.say(offset, { what: 'too-many-bars', max: MAX_BARS });
      return false;
    }
    if (element.rest) this.rest(element, element.rest);
    else if (element.pitches && element.pitches.length > 0) this.pitched(element, element.pitches);
    return true;
  }

  private rest(element: AbcElement, rest: NonNullable<AbcElement['rest']>): void {
    const { builder } = this;
    const offset = this.offsetOf(element);
    // Room without sound: a bar of nothing else is empty.
    if (rest.type === 'spacer') {
      builder.bar(offset);
      return;
    }
    builder.tuplet = tupletOf(element, offset) ?? builder.tuplet;
    if (rest.type === 'multimeasure') {
      for (let k = 0; k < Math.min(rest.text ?? 1, 256); k++)
        builder.rest(barLength(builder.meter), builder.beginBar(offset));
      return;
    }
    const bar = builder.bar(offset);
    const { duration, mark } = this.length(element);
    const chord = chordOf(element);
    builder.rest(duration, bar, { ...(mark ? { tuplet: mark } : {}), ...(chord ? { chord } : {}) });
    builder.countTuplet();
  }

  private length(element: AbcElement): { readonly duration: Fraction; readonly mark?: TupletMark } {
    const written = lengthOf(element);
    const length = written && this.builder.inTuplet(written, element.startTriplet !== undefined);
    this.builder.within(length && length.duration, this.offsetOf(element));
    return length!;
  }

  private pitched(element: AbcElement, pitches: NonNullable<AbcElement['pitches']>): void {
    const { builder, accidentals } = this;
    const { propagate, prepared } = this.options;
    const offset = this.offsetOf(element);
    const bar = builder.bar(offset);
    builder.tuplet = tupletOf(element, offset) ?? builder.tuplet;
    const { duration, mark } = this.length(element);
    if (duration.n <= 0) return;
    // As they stand in the text: an accidental of a grace note holds for its main note.
    const graceNotes = element.gracenotes?.map((grace) => pitchOf(grace, builder.key, { accidentals, propagate }));
    const before = builder.lastNote;
    const sounding = pitches.map((pitch) => ({
      pitch: pitchOf(pitch, builder.key, { accidentals, propagate, before }),
      isTied: pitch.startTie !== undefined,
    }));
    const [top, ...under] = sounding.sort((a, b) => midiOf(b.pitch) - midiOf(a.pitch));
    const note = builder.newNote(duration, top!.pitch);
    if (under.length > 0) note.stops = under.map(({ pitch }) => pitch);
    if (graceNotes && graceNotes.length > 0) note.graceNotes = graceNotes;
    // A lower note that is held while the top one is struck anew is a new note to the bow.
    if (top!.isTied) note.tie = true;
    if (mark) note.tuplet = mark;
    this.signs(note, element);
    builder.place(note, bar, this.openSlurs > 0 || this.runsOn);
    this.runsOn = false;
    this.openSlurs = slursAfter(element, offset, this.openSlurs, prepared.openSlurs);
    builder.countTuplet();
  }

  /** Decorations and what stands over a note; what has no place in a plan is told once. */
  private signs(note: OpenNote, element: AbcElement): void {
    const offset = this.offsetOf(element);
    const decorations = element.decoration ?? [];
    for (const decoration of decorations)
      if (JUMPS.includes(decoration)) this.say(offset, { what: 'jump', name: decoration });
      else if (!isKept(decoration)) this.sayOnce(decoration, offset, { what: 'mark-not-kept', name: decoration });
    if (element.chord?.some(({ position }) => position !== undefined && position !== 'default'))
      this.sayOnce('"', offset, { what: 'remarks-not-kept' });
    const finger = decorations.find((decoration) => /^[0-4]$/.test(decoration));
    const marks = decorations.flatMap((decoration) => MARKS[decoration] ?? []);
    if (decorations.includes('upbow')) note.lock = 'up';
    else if (decorations.includes('downbow')) note.lock = 'down';
    if (finger !== undefined) note.finger = Number(finger);
    const chord = chordOf(element);
    if (chord) note.chord = chord;
    if (marks.length > 0) note.marks = marks;
  }

  private sayOnce(key: string, offset: number, matter: ImportMatter): void {
    if (this.told.has(key)) return;
    this.told.add(key);
    this.say(offset, matter);
  }
}

function isKept(decoration: string): boolean {
  return decoration in MARKS || decoration === 'upbow' || decoration === 'downbow' || /^[0-4]$/.test(decoration);
}

/**
 * How many slurs are open after a note. A slur that opens and closes at one note joins it to nothing. Those never closed
 * in the text are passed over: an element's text begins with its slur signs, outermost first.
 */
function slursAfter(element: AbcElement, offset: number, open: number, unclosed: ReadonlySet<number>): number {
  let starts = element.startSlur?.length ?? 0;
  let ends = element.endSlur?.length ?? 0;
  for (const { startSlur, endSlur } of element.pitches ?? []) {
    starts += startSlur?.length ?? 0;
    ends += endSlur?.length ?? 0;
  }
  if (starts === 0 && ends === 0) return open;
  const dropped = [...unclosed].filter((at) => at >= offset && at < element.endChar).length;
  return Math.max(0, open + Math.max(0, starts - dropped) - ends);
}
