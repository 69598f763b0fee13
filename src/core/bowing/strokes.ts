import { add, compare } from '#core/base';
import { samePitch } from '#core/pitch';
import {
  barLength,
  type Direction,
  type Link,
  type NoteEvent,
  type Tune,
  type Unrolled,
  type UnrolledNote,
} from '#core/tune';

/** What the bow does on one played note. */
export interface BowedNote {
  /** The link in force on this pass; `start` only on the very first note. */
  readonly link: Link;
  readonly bow: Direction;
  /** Strokes are numbered from 1 through the whole tune. */
  readonly stroke: number;
  /** Place of the note in its stroke, from 1. */
  readonly inStroke: number;
}

/** Why the first stroke goes the way it goes. */
export interface Start {
  readonly direction: Direction;
  readonly because: 'given' | 'locked' | 'first-bar-down';
}

export function opposite(direction: Direction): Direction {
  return direction === 'down' ? 'up' : 'down';
}

export function staysInStroke(link: Link): boolean {
  return link === 'slur' || link === 'hook';
}

/** The link of a written note on one pass of its part. */
export function linkOnPass(note: NoteEvent, pass: number): Link {
  return note.linkOnPass?.[pass] ?? note.link;
}

/** The link by which a note is reached when it is not the first thing played: `start` becomes a turn of the bow. */
export function linkInFlow(note: NoteEvent, pass: number): Link {
  const link = linkOnPass(note, pass);
  return link === 'start' ? 'change' : link;
}

/** The direction after following one link. */
export function follow(direction: Direction, link: Link): Direction {
  return link === 'change' ? opposite(direction) : direction;
}

/**
 * Directions and strokes of every played note, from a start direction and the links:
 * `slur` and `hook` stay in the stroke, `change` begins one the other way, `retake` one the same way.
 * Rests neither turn nor reset.
 * @param known how the first notes are bowed, where that is counted already
 * @returns `bowed[i]` belongs to `notes[i]`
 * Time O(n).
 */
export function bowNotes(
  notes: readonly UnrolledNote[],
  start: Direction,
  known: readonly BowedNote[] = [],
): BowedNote[] {
  const bowed = known.slice();
  const last = known[known.length - 1];
  let bow = last?.bow ?? start;
  let stroke = last?.stroke ?? 0;
  let inStroke = last?.inStroke ?? 0;
  for (let i = known.length; i < notes.length; i++) {
    const { index, note, pass } = notes[i]!;
    const link = index === 0 ? 'start' : linkInFlow(note, pass);
    bow = follow(bow, link);
    if (staysInStroke(link)) {
      inStroke += 1;
    } else {
      stroke += 1;
      inStroke = 1;
    }
    bowed.push({ link, bow, stroke, inStroke });
  }
  return bowed;
}

/** Index of the note that sounds at the first full bar of a pass, or of the next one where a rest stands there; null past the last note. */
export function entryNote(unrolled: Unrolled, passIndex: number): number | null {
  const pass = unrolled.passes[passIndex]!;
  // A note tied or held over the bar line from the pickup still sounds there, so begin one note early.
  for (let i = Math.max(0, pass.firstNote - 1); i < unrolled.notes.length; i++) {
    const { onset, duration } = unrolled.notes[i]!;
    if (compare(add(onset, duration), pass.firstFullBarOnset) > 0) return i;
  }
  return null;
}

/** Where a tune is taken up when it is played again. */
export interface Again {
  /** Index of the note it is taken up at. */
  readonly index: number;
  /** The last note is tied to that one: the stroke goes on. */
  readonly isHeld: boolean;
}

/**
 * Where the tune is taken up when it is played again: at its first note, or, where the last bar is full by itself although
 * a pickup stands before the first one, at its first full bar, since the lead-in is already in that last bar.
 * null without notes. Time O(1) but for a long pickup.
 */
export function againFrom(unrolled: Unrolled): Again | null {
  const { notes, passes, bars } = unrolled;
  const last = notes[notes.length - 1];
  const lastBar = bars[bars.length - 1];
  if (!last || !lastBar) return null;
  const hasLeadIn = passes[0]!.hasPickup && compare(lastBar.duration, barLength(lastBar.meter)) >= 0;
  const index = (hasLeadIn ? entryNote(unrolled, 0) : null) ?? 0;
  return { index, isHeld: last.tiesOn && samePitch(last.note.pitch, notes[index]!.note.pitch) };
}

/** Direction of the note at which the tune is taken up again, as it is reached from the last one; null without notes. */
export function bowAgain(unrolled: Unrolled, bowed: readonly BowedNote[]): Direction | null {
  const again = againFrom(unrolled);
  if (!again) return null;
  const { bow } = bowed[bowed.length - 1]!;
  const { note, pass } = unrolled.notes[again.index]!;
  return again.isHeld ? bow : follow(bow, linkInFlow(note, pass));
}

/**
 * The start direction: what was given, else a lock on the first note, else the direction that lets the first full
 * bar begin on a down-bow.
 */
export function startOf(tune: Tune, unrolled: Unrolled, given: Direction | null = null): Start {
  const wanted = given ?? tune.start;
  if (wanted) return { direction: wanted, because: 'given' };
  const lock = unrolled.notes[0]?.note.lock;
  if (lock) return { direction: lock, because: 'locked' };
  const entry = unrolled.passes.length > 0 ? entryNote(unrolled, 0) : null;
  let bow: Direction = 'down';
  for (let i = 1; entry !== null && i <= entry; i++) {
    const { note, pass } = unrolled.notes[i]!;
    bow = follow(bow, linkInFlow(note, pass));
  }
  return { direction: bow, because: 'first-bar-down' };
}
