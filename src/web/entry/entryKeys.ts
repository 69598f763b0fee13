import { joiningLink } from '#core/bowing';
import {
  addPart,
  alterNotes,
  barRoom,
  beginBar,
  enterEvent,
  findEvent,
  inForce,
  joinBar,
  type NewEvent,
  setEnding,
  setGraceNotes,
  toggleMark,
  toggleStop,
  transposeByOctaves,
  withoutEvents,
} from '#core/editing';
import {
  calledNote,
  chooseGesture,
  letteredPitch,
  MAX_GRACES,
  parseCall,
  parseLetter,
  rhythmStep,
  scaleUnit,
  type StrokeGesture,
  TUPLETS,
} from '#core/entry';
import { fingerNote } from '#core/fingering';
import { alterInKey, type Key, type Pitch, pitchAtStep, pitchName } from '#core/pitch';
import type { Schools } from '#core/schools';
import { mapEvents, type NoteEvent, type Place, type Tune, type TuneEvent } from '#core/tune';
import { ENTRY_WAYS, type EntryState } from './entryState';

/** What a key did: the entry after it, and an edit where it made one. */
export interface EntryOutcome {
  readonly entry: EntryState;
  readonly tune?: Tune;
  /** What the edit did, for undo. */
  readonly label?: string;
}

const GESTURES: Record<string, StrokeGesture> = { o: 'one', p: 'pair', t: 'three', h: 'held' };
const LOWEST_PENCIL = 24;
const HIGHEST_PENCIL = 48;

/**
 * Answers a key while notes are entered; null for a key that means nothing here. Digits are fingers, letters are
 * strings or notes by the way of entry, and the keys that neither needs set the rhythm.
 */
export function pressEntryKey(
  tune: Tune,
  before: EntryState,
  key: string,
  bareFinger?: Schools['bareFinger'],
): EntryOutcome | null {
  const entry = before.fault === null ? before : { ...before, fault: null };
  const lower = key.length === 1 ? key.toLowerCase() : key;
  return (
    pitchKey(tune, entry, lower, bareFinger) ??
    rhythmKey(entry, lower) ??
    moveKey(tune, entry, lower) ??
    editKey(tune, entry, lower)
  );
}

/** Strings and fingers, letters, or the pencil on the staff. */
function pitchKey(tune: Tune, entry: EntryState, key: string, bareFinger?: Schools['bareFinger']): EntryOutcome | null {
  if (entry.way === 'calls') {
    if (/^[gdae]$/.test(key)) return { entry: { ...entry, place: key.toUpperCase() as Place } };
    if (key === ':' && entry.place) return { entry };
    const call = parseCall(`${entry.place ? `${entry.place}:` : ''}${key}`);
    if (!call) return null;
    const before = noteBefore(tune, entry.caret);
    const place = before && { pitch: before.pitch, place: fingerNote(before, tune.tuning).place };
    const note = calledNote(call, tune.tuning, keyAt(tune, entry.caret), place, bareFinger);
    // A raised open string is no longer open: its finger is left to the rule.
    const finger = call.finger === 0 && call.shift !== 0 ? {} : { finger: call.finger };
    const marks = note.inferred ? { marks: ['inferred-string' as const] } : {};
    return enterPitch(tune, { ...entry, place: null }, note.pitch, { place: note.place, ...finger, ...marks });
  }
  if (entry.way === 'letters') {
    const letter = parseLetter(key);
    if (!letter) return null;
    const before = noteBefore(tune, entry.caret)?.pitch ?? null;
    const pitch = letteredPitch({ ...letter, octaves: entry.octaves }, keyAt(tune, entry.caret), before, tune.tuning);
    return enterPitch(tune, { ...entry, octaves: 0 }, pitch);
  }
  if (key === 'ArrowUp' || key === 'ArrowDown') {
    const pencil = entry.pencil + (key === 'ArrowUp' ? 1 : -1);
    return { entry: { ...entry, pencil: Math.min(HIGHEST_PENCIL, Math.max(LOWEST_PENCIL, pencil)) } };
  }
  return key === ' ' || key === 'Enter' ? enterOnStaff(tune, entry, entry.pencil) : null;
}

/** A note where the pencil stands, with the accidental of the key. */
export function enterOnStaff(tune: Tune, entry: EntryState, step: number): EntryOutcome {
  const natural = pitchAtStep(step);
  const alter = alterInKey(keyAt(tune, entry.caret), natural.letter);
  return enterPitch(tune, { ...entry, pencil: step }, { ...natural, alter });
}

function enterPitch(
  tune: Tune,
  entry: EntryState,
  pitch: Pitch,
  pins: Pick<NoteEvent, 'place' | 'finger' | 'marks'> = {},
): EntryOutcome {
  const name = writtenName(pitch);
  if (entry.next === 'grace')
    return { entry: { ...entry, next: 'note', graces: [...entry.graces, pitch].slice(0, MAX_GRACES) } };
  if (entry.next === 'chord') {
    const here = eventAt(tune, entry.caret);
    if (here?.kind !== 'note') return { entry: { ...entry, next: 'note' } };
    return {
      entry: { ...entry, next: 'note' },
      tune: toggleStop(tune, here.id, pitch),
      label: `${name} in a chord`,
    };
  }
  const { duration, tuplet, link, next } = rhythmStep(entry.rhythm);
  const event: NewEvent = {
    kind: 'note',
    pitch,
    duration,
    link,
    ...pins,
    ...(tuplet ? { tuplet } : {}),
    ...(entry.graces.length > 0 ? { graceNotes: entry.graces } : {}),
  };
  const entered = enterEvent(tune, entry.caret, event, entry.overwrite ? 'overwrite' : 'insert');
  return {
    entry: { ...entry, caret: entered.caret, rhythm: next, graces: [] },
    tune: entered.tune,
    label: `enter ${name}`,
  };
}

function rhythmKey(entry: EntryState, key: string): EntryOutcome | null {
  const { rhythm } = entry;
  const gesture = GESTURES[key];
  if (gesture) return { entry: { ...entry, rhythm: chooseGesture(rhythm, gesture) } };
  if (key === 'l') return { entry: { ...entry, rhythm: scaleUnit(rhythm, 'longer') } };
  if (key === 'k') return { entry: { ...entry, rhythm: scaleUnit(rhythm, 'shorter') } };
  if (key === '.') return { entry: { ...entry, rhythm: { ...rhythm, dotted: !rhythm.dotted } } };
  if (key === 'u') return { entry: { ...entry, rhythm: { ...rhythm, tuplet: nextTuplet(rhythm.tuplet?.notes) } } };
  if (key === 'n') return { entry: { ...entry, next: entry.next === 'grace' ? 'note' : 'grace' } };
  if (key === '&') return { entry: { ...entry, next: entry.next === 'chord' ? 'note' : 'chord' } };
  if (key === 'i' || key === 'Insert') return { entry: { ...entry, overwrite: !entry.overwrite } };
  if (key === 'w') {
    const way = ENTRY_WAYS[(ENTRY_WAYS.indexOf(entry.way) + 1) % ENTRY_WAYS.length]!;
    return { entry: { ...entry, way, place: null } };
  }
  return null;
}

/** Three, two, four, five, and none again. */
function nextTuplet(notes: number | undefined): EntryState['rhythm']['tuplet'] {
  const next = TUPLETS[notes === undefined ? 0 : TUPLETS.findIndex((tuplet) => tuplet.notes === notes) + 1];
  return next ? { ...next, filled: 0 } : null;
}

function moveKey(tune: Tune, entry: EntryState, key: string): EntryOutcome | null {
  const events = tune.parts.flatMap((part) => part.events);
  const at = events.findIndex(({ id }) => id === entry.caret);
  const to = (index: number): EntryOutcome => {
    const caret = events[Math.min(events.length - 1, Math.max(0, index))]!.id;
    return { entry: { ...entry, caret, place: null, rhythm: { ...entry.rhythm, filled: 0 } } };
  };
  switch (key) {
    case 'ArrowLeft':
      return to(at - 1);
    case 'ArrowRight':
      return to(at + 1);
    case 'ArrowUp':
      return to(events.findLastIndex(({ kind }, i) => i < at && kind === 'bar'));
    case 'ArrowDown': {
      const next = events.findIndex(({ kind }, i) => i > at && kind === 'bar');
      return to(next < 0 ? events.length - 1 : next);
    }
    case 'Home':
      return to(0);
    case 'End':
      return to(events.length - 1);
    default:
      return null;
  }
}

function editKey(tune: Tune, entry: EntryState, key: string): EntryOutcome | null {
  const here = eventAt(tune, entry.caret);
  if (!here) return null;
  switch (key) {
    case 'r': {
      const { duration, tuplet, next } = rhythmStep(entry.rhythm, 'rest');
      const rest: NewEvent = { kind: 'rest', duration, ...(tuplet ? { tuplet } : {}) };
      const entered = enterEvent(tune, entry.caret, rest, entry.overwrite ? 'overwrite' : 'insert');
      return { entry: { ...entry, caret: entered.caret, rhythm: next }, tune: entered.tune, label: 'enter a rest' };
    }
    case '|': {
      const begun = beginBar(tune, entry.caret);
      return { entry: { ...entry, caret: begun.caret }, tune: begun.tune, label: 'a bar line' };
    }
    case '[': {
      const { bar } = barRoom(tune, findEvent(tune, here.id)!);
      const plays = nextEnding(bar.ending ? bar.onPlays : undefined);
      const label = plays ? `ending ${plays.join(', ')}` : 'no ending';
      return { entry, tune: setEnding(tune, new Set([bar.id]), plays), label };
    }
    case 'x': {
      const part = findEvent(tune, entry.caret)!.part.name;
      const added = addPart(tune, part);
      return { entry: { ...entry, caret: added.caret }, tune: added.tune, label: `a new part ${added.name}` };
    }
    case "'":
    case ',':
      // What is about to be called goes to its octave before it stands.
      if (entry.next !== 'note') return { entry: { ...entry, octaves: entry.octaves + (key === "'" ? 1 : -1) } };
      return noteKey(tune, entry, here, key);
    case 'Backspace':
      return takeAway(tune, entry, here);
    case 'Delete': {
      const events = tune.parts.flatMap((part) => part.events);
      const next = events[events.findIndex(({ id }) => id === here.id) + 1];
      if (!next) return { entry };
      const removed = next.kind === 'bar' ? joinBar(tune, next.id) : withoutEvents(tune, new Set([next.id]));
      return { entry, tune: removed, label: `delete ${wordsOf(next)}` };
    }
    default:
      return noteKey(tune, entry, here, key);
  }
}

/** Keys that change the note at the caret; where it is none they do nothing. */
function noteKey(tune: Tune, entry: EntryState, here: TuneEvent, key: string): EntryOutcome | null {
  const change = NOTE_KEYS[key];
  if (!change) return null;
  const changed = here.kind === 'note' ? change(tune, here) : null;
  return { entry, ...changed };
}

type NoteChange = (tune: Tune, note: NoteEvent) => { readonly tune: Tune; readonly label: string } | null;

/** The finger stays and leans: its pin is kept, only the pitch moves. An open string has no finger to lean. */
const lean =
  (by: 1 | -1): NoteChange =>
  (tune, { id, place, finger }) => {
    const moved = alterNotes(tune, new Set([id]), by);
    const altered = eventAt(moved, id) as NoteEvent;
    const pinned = { ...altered, ...(place ? { place } : {}), ...(finger ? { finger } : {}) };
    return { tune: rejoined(replaceEvent(moved, pinned), id), label: by < 0 ? 'lower it' : 'raise it' };
  };

const octave =
  (by: 1 | -1): NoteChange =>
  (tune, { id }) => ({
    tune: rejoined(transposeByOctaves(tune, new Set([id]), by), id),
    label: `an octave ${by > 0 ? 'up' : 'down'}`,
  });

const NOTE_KEYS: Readonly<Record<string, NoteChange | undefined>> = {
  j: (tune, { tie, ...bare }) => ({
    tune: replaceEvent(tune, tie ? bare : { ...bare, tie: true }),
    label: tie ? 'untie' : 'tie',
  }),
  y: (tune, { id, marks }) =>
    marks?.includes('inferred-string')
      ? { tune: toggleMark(tune, new Set([id]), 'inferred-string'), label: 'confirm the string' }
      : null,
  '+': lean(1),
  '=': lean(1),
  '#': lean(1),
  '-': lean(-1),
  "'": octave(1),
  ',': octave(-1),
};

/** First, second, third ending, and none again. */
function nextEnding(plays: readonly number[] | undefined): readonly number[] | null {
  const last = plays?.at(-1) ?? 0;
  return last < 3 ? [last + 1] : null;
}

/** Takes the caret's own event away and goes back by one; before it, grace notes that wait and a string that was said. */
function takeAway(tune: Tune, entry: EntryState, here: TuneEvent): EntryOutcome {
  if (entry.place || entry.graces.length > 0 || entry.next !== 'note')
    return { entry: { ...entry, place: null, graces: entry.graces.slice(0, -1), next: 'note' } };
  if (here.kind === 'note' && here.graceNotes && here.graceNotes.length > 0)
    return { entry, tune: setGraceNotes(tune, here.id, here.graceNotes.slice(0, -1)), label: 'delete a grace note' };
  const { part, index } = findEvent(tune, here.id)!;
  const before = part.events[index - 1];
  if (!before) return { entry };
  const removed = here.kind === 'bar' ? joinBar(tune, here.id) : withoutEvents(tune, new Set([here.id]));
  const caret = findEvent(removed, before.id) ? before.id : part.events[0]!.id;
  return {
    entry: { ...entry, caret, rhythm: { ...entry.rhythm, filled: Math.max(0, entry.rhythm.filled - 1) } },
    tune: removed,
    label: `delete ${wordsOf(here)}`,
  };
}

/** A slur or hook as the note's pitch now makes it: one pitch struck again is a hook. */
function rejoined(tune: Tune, id: string): Tune {
  const { part, index } = findEvent(tune, id)!;
  const note = part.events[index] as NoteEvent;
  if (note.link !== 'slur' && note.link !== 'hook') return tune;
  const before = part.events.slice(0, index).findLast((event) => event.kind !== 'bar');
  if (before?.kind !== 'note') return tune;
  return replaceEvent(tune, { ...note, link: joiningLink(before, note, false) });
}

function replaceEvent(tune: Tune, event: TuneEvent): Tune {
  return mapEvents(tune, (old) => (old.id === event.id ? event : old));
}

function eventAt(tune: Tune, id: string): TuneEvent | null {
  const location = findEvent(tune, id);
  return location && location.part.events[location.index]!;
}

/** The note at the caret or the last one before it, across parts. */
function noteBefore(tune: Tune, caret: string): NoteEvent | null {
  let before: NoteEvent | null = null;
  for (const { events } of tune.parts)
    for (const event of events) {
      if (event.kind === 'note') before = event;
      if (event.id === caret) return before;
    }
  return before;
}

/** The key in force at the caret. */
export function keyAt(tune: Tune, caret: string): Key {
  const location = findEvent(tune, caret);
  return location ? inForce(tune, location.partIndex, location.index).key : tune.key;
}

function wordsOf(event: TuneEvent): string {
  if (event.kind === 'bar') return 'a bar line';
  return event.kind === 'rest' ? 'a rest' : writtenName(event.pitch);
}

function writtenName(pitch: Pitch): string {
  return pitchName(pitch)
    .replace('#', '♯')
    .replace(/^([A-G])b/, '$1♭');
}
