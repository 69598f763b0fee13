import type { AbcElement } from 'abcjs/src/parse/abc_parse.js';
import { joiningLink } from '#core/bowing';
import { type Key, midiOf, sameKey } from '#core/pitch';
import {
  LengthGuard,
  type Meter,
  type NoteEvent,
  type NoteMark,
  type RestEvent,
  barLength,
  sameMeter,
} from '#core/tune';
import { type ImportMessage, OutOfBounds, type TextPositions, importMessage } from '../text';
import type { RawBar } from '../score';
import {
  type Tuplet,
  chordOf,
  consumed,
  endingNumbers,
  keyOf,
  lengthOf,
  meterOf,
  pitchOf,
  startTuplet,
} from './elements';
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
type Writable<T> = { -readonly [K in keyof T]: T[K] };

/** Everything the walk over the parser's tree gathers. */
export interface Walk {
  readonly positions: TextPositions;
  readonly messages: ImportMessage[];
  readonly bars: RawBar[];
  readonly offsets: Map<string, number>;
  meter: Meter;
  key: Key;
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

/** Walks the melody voice and gathers its bars; `propagate` is how far an accidental in a bar holds. */
export function walkLines(
  walk: Walk,
  lines: readonly VoiceLine[],
  leadLength: number,
  { playsAt, openSlurs: openSlurOffsets, endings }: Omit<PreparedText, 'text' | 'messages'>,
  propagate: string,
): void {
  const { bars, messages, positions } = walk;
  const say = (offset: number, severity: ImportMessage['severity'], code: ImportMessage['code'], words: string) => {
    const { line, column } = positions.at(Math.max(0, offset));
    messages.push(importMessage(line, column, severity, code, words));
  };
  const [playsIn, slursIn] = [firstWithin(playsAt), firstWithin(endings)];
  const guard = new LengthGuard();
  const lengthAt = (offset: number, element: AbcElement, inTuplet: Tuplet | null) => {
    const length = lengthOf(element, inTuplet);
    const fault = length ? guard.fault(length.duration) : ({ code: 'too-long', found: Infinity } as const);
    if (!length || fault) throw new OutOfBounds(offset, fault!);
    return length;
  };
  let openSlurs = 0;
  const accidentals = new Map<string, number>();
  let pendingMeter: Meter | undefined;
  let pendingKey: Key | undefined;
  let pendingLabel: string | undefined;
  let pendingEnding: readonly number[] | undefined;
  let opensRepeat = false;
  let bar: RawBar | null = null;
  let tuplet: Tuplet | null = null;
  let lastNote: NoteEvent | null = null;
  let restBetween = false;
  /** What every ending follows: it stands before the first one. */
  let beforeEndings: { lastNote: NoteEvent | null; restBetween: boolean; openSlurs: number } | null = null;
  /** The next note is joined although no slur is open after it. */
  let runsOn = false;
  let noteCount = 0;
  let restCount = 0;
  const unkept = new Set<string>();

  const openBar = (offset: number): RawBar => {
    const id = `b${bars.length + 1}`;
    walk.offsets.set(id, offset);
    const opened: RawBar = {
      id,
      offset,
      events: [],
      meterInForce: walk.meter,
      meter: pendingMeter,
      key: pendingKey,
      endingOpens: pendingEnding,
      label: pendingLabel,
      endingCloses: false,
      opensRepeat,
      plays: 0,
      closesDouble: false,
    };
    pendingMeter = pendingKey = pendingLabel = pendingEnding = undefined;
    opensRepeat = false;
    bars.push(opened);
    return opened;
  };
  const changeKey = (key: Key) => {
    if (sameKey(key, walk.key)) return;
    walk.key = key;
    pendingKey = key;
  };
  const changeMeter = (meter: Meter | null, offset: number) => {
    if (!meter) say(offset, 'warning', 'not-kept', 'This meter cannot be kept; the meter before it stays.');
    else if (!sameMeter(meter, walk.meter)) {
      walk.meter = meter;
      pendingMeter = meter;
    }
  };

  for (const { staff, elements } of lines) {
    if (staff.key) changeKey(keyOf(staff.key));
    if (staff.meter) changeMeter(meterOf(staff.meter), staff.meter.startChar - leadLength);
    for (const element of elements) {
      const offset = element.startChar - leadLength;
      switch (element.el_type) {
        case 'key':
          changeKey(keyOf(element));
          accidentals.clear();
          break;
        case 'meter':
          changeMeter(meterOf(element), offset);
          break;
        case 'part':
          pendingLabel = element.title?.trim().slice(0, 12) || undefined;
          bar = null;
          break;
        case 'bar': {
          accidentals.clear();
          if (tuplet) {
            say(
              tuplet.offset,
              'warning',
              'unclosed-tuplet',
              `A tuplet of ${tuplet.notes} is not full: ${tuplet.left} more expected before the bar line.`,
            );
            tuplet = null;
          }
          const last = bars[bars.length - 1];
          const type = element.type ?? '';
          const closesRepeat = type === 'bar_right_repeat' || type === 'bar_dbl_repeat';
          if (last) {
            const asked = playsIn(offset - 1, element.endChar - leadLength - 1);
            if (closesRepeat) last.plays = Math.max(last.plays, asked ?? 2);
            if (/bar_(thin_thin|thin_thick|thick_thin)/.test(type)) last.closesDouble = true;
            if (element.endEnding) last.endingCloses = true;
          }
          if (type === 'bar_left_repeat' || type === 'bar_dbl_repeat') {
            opensRepeat = true;
            beforeEndings = null;
          }
          if (element.startEnding) {
            const numbers = endingNumbers(element.startEnding);
            if (numbers?.includes(1)) beforeEndings = null;
            beforeEndings ??= { lastNote, restBetween, openSlurs };
            ({ lastNote, restBetween } = beforeEndings);
            runsOn = beforeEndings.openSlurs > 0;
            openSlurs = slursIn(offset - 1, element.endChar - leadLength) ?? openSlurs;
            if (numbers) pendingEnding = numbers;
            else
              say(
                offset,
                'warning',
                'not-kept',
                `The ending "${element.startEnding}" is not a number; its bars are played every time.`,
              );
          }
          bar = null;
          break;
        }
        case 'note': {
          const rest = element.rest;
          if (bar === null && bars.length >= MAX_BARS) {
            say(offset, 'error', 'too-long', `Only the first ${MAX_BARS} bars are read.`);
            return;
          }
          if (rest?.type === 'spacer') {
            // Room without sound: a bar of nothing else is empty.
            bar ??= openBar(offset);
            break;
          }
          if (rest) {
            tuplet = startTuplet(element, offset) ?? tuplet;
            if (rest.type === 'multimeasure') {
              for (let k = 0; k < Math.min(rest.text ?? 1, 256); k++) {
                bar = openBar(offset);
                bar.events.push({ kind: 'rest', id: `r${++restCount}`, duration: barLength(walk.meter) });
              }
              restBetween = true;
              break;
            }
            bar ??= openBar(offset);
            const { duration, mark } = lengthAt(offset, element, tuplet);
            const event: RestEvent = {
              kind: 'rest',
              id: `r${++restCount}`,
              duration,
              ...(mark ? { tuplet: mark } : {}),
              ...(chordOf(element) ? { chord: chordOf(element) } : {}),
            };
            bar.events.push(event);
            if (tuplet) tuplet = consumed(tuplet);
            restBetween = true;
            break;
          }
          if (!element.pitches || element.pitches.length === 0) break;
          bar ??= openBar(offset);
          tuplet = startTuplet(element, offset) ?? tuplet;
          const { duration, mark } = lengthAt(offset, element, tuplet);
          if (duration.n <= 0) break;
          // As they stand in the text: an accidental of a grace note holds for its main note.
          const graceNotes = element.gracenotes?.map((grace) => pitchOf(grace, walk.key, accidentals, propagate, null));
          const sounding = element.pitches.map((pitch) => ({
            pitch: pitchOf(pitch, walk.key, accidentals, propagate, lastNote),
            isTied: pitch.startTie !== undefined,
          }));
          const [top, ...under] = sounding.sort((a, b) => midiOf(b.pitch) - midiOf(a.pitch));
          for (const decoration of element.decoration ?? []) {
            if (JUMPS.includes(decoration))
              say(
                offset,
                'warning',
                'not-followed',
                `${decoration} is not followed: the tune is read in its written order.`,
              );
            else if (!isKept(decoration) && !unkept.has(decoration)) {
              unkept.add(decoration);
              say(
                offset,
                'info',
                'not-kept',
                `The mark "${decoration}" has no place in a plan yet; the original text keeps it.`,
              );
            }
          }
          if (
            element.chord?.some(({ position }) => position !== undefined && position !== 'default') &&
            !unkept.has('"')
          ) {
            unkept.add('"');
            say(
              offset,
              'info',
              'not-kept',
              'Written remarks over notes have no place in a plan yet; the original text keeps them.',
            );
          }
          const decorations = element.decoration ?? [];
          const finger = decorations.find((decoration) => /^[0-4]$/.test(decoration));
          const marks = decorations.flatMap((decoration) => MARKS[decoration] ?? []);
          // Filled field by field: a text may hold a million notes.
          const note: Writable<NoteEvent> = {
            kind: 'note',
            id: `n${++noteCount}`,
            duration,
            pitch: top!.pitch,
            link: 'change',
          };
          if (under.length > 0) note.stops = under.map(({ pitch }) => pitch);
          if (graceNotes && graceNotes.length > 0) note.graceNotes = graceNotes;
          // A lower note that is held while the top one is struck anew is a new note to the bow.
          if (top!.isTied) note.tie = true;
          if (decorations.includes('upbow')) note.lock = 'up';
          else if (decorations.includes('downbow')) note.lock = 'down';
          if (finger !== undefined) note.finger = Number(finger);
          if (mark) note.tuplet = mark;
          const chord = chordOf(element);
          if (chord) note.chord = chord;
          if (marks.length > 0) note.marks = marks;
          if (noteCount === 1) note.link = 'start';
          else if ((openSlurs > 0 || runsOn) && lastNote) note.link = joiningLink(lastNote, note, restBetween);
          runsOn = false;
          bar.events.push(note);
          lastNote = note;
          restBetween = false;
          openSlurs = slursAfter(element, offset, openSlurs, openSlurOffsets);
          if (tuplet) tuplet = consumed(tuplet);
          break;
        }
        default:
          break;
      }
    }
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
