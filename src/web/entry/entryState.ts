import { gridUnit } from '#core/bowing';
import { findEvent } from '#core/editing';
import { type EntryRhythm, startRhythm } from '#core/entry';
import type { Pitch } from '#core/pitch';
import type { Place, Tune } from '#core/tune';

export const ENTRY_WAYS = ['calls', 'letters', 'staff'] as const;
export type EntryWay = (typeof ENTRY_WAYS)[number];

/** Notes are being entered: how, where, and in what rhythm. */
export interface EntryState {
  readonly way: EntryWay;
  /** The event after which the next one goes. */
  readonly caret: string;
  readonly rhythm: EntryRhythm;
  readonly overwrite: boolean;
  /** The string said for the next call: `D:` and the finger still to come. */
  readonly place: Place | null;
  /** The next pitch is a grace note, or joins the chord of the note at the caret. */
  readonly next: 'note' | 'grace' | 'chord';
  /** Octaves by which the next letter is moved, where it cannot be moved afterwards: grace notes and chords. */
  readonly octaves: number;
  /** Grace notes that wait for their note. */
  readonly graces: readonly Pitch[];
  /** Where the pencil stands on the staff, in letter names from C0. */
  readonly pencil: number;
  /** What could not be read of a paste; gone with the next key. */
  readonly fault: string | null;
}

/** The pencil begins on the middle line, B4. */
const MIDDLE_LINE = 34;

/** Entry begun behind an event, in the tune's own unit. */
export function beginEntry(tune: Tune, caret: string, way: EntryWay): EntryState {
  return {
    way,
    caret,
    rhythm: startRhythm(gridUnit(tune)),
    overwrite: false,
    place: null,
    next: 'note',
    octaves: 0,
    graces: [],
    pencil: MIDDLE_LINE,
    fault: null,
  };
}

/** The caret kept valid when the tune changed under it: where its event is gone, the end of the first part. */
export function keptCaret(tune: Tune, caret: string): string {
  if (findEvent(tune, caret)) return caret;
  const events = tune.parts[0]!.events;
  return events[events.length - 1]!.id;
}
