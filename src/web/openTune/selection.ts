import { type NoteEvent, type Tune, writtenNotes } from '#core/tune';
import type { Selection } from './openTuneSlice';

/** Ids of the selected notes in written order. */
export function selectedIds(notes: readonly NoteEvent[], selection: Selection | null): string[] {
  if (!selection) return [];
  const a = notes.findIndex(({ id }) => id === selection.anchor);
  const b = notes.findIndex(({ id }) => id === selection.focus);
  if (a < 0 || b < 0) return [];
  return notes.slice(Math.min(a, b), Math.max(a, b) + 1).map(({ id }) => id);
}

/** A step from the selection's focus: by notes, bars or to an end; `extend` keeps the anchor. */
export function moveSelection(
  tune: Tune,
  selection: Selection | null,
  move: 'next' | 'previous' | 'next-bar' | 'previous-bar' | 'first' | 'last',
  extend: boolean,
): Selection | null {
  const notes = writtenNotes(tune);
  if (notes.length === 0) return null;
  const at = selection ? notes.findIndex(({ id }) => id === selection.focus) : -1;
  const last = notes.length - 1;
  const to = (() => {
    if (at < 0) return move === 'last' ? last : 0;
    switch (move) {
      case 'next':
        return Math.min(last, at + 1);
      case 'previous':
        return Math.max(0, at - 1);
      case 'first':
        return 0;
      case 'last':
        return last;
      case 'next-bar':
        return barStart(tune, notes, at, 1);
      case 'previous-bar':
        return barStart(tune, notes, at, -1);
    }
  })();
  const focus = notes[to]!.id;
  return { anchor: extend && selection ? selection.anchor : focus, focus };
}

/** Index of the first note of the next bar that has one, or of this bar, or of the bar before. */
function barStart(tune: Tune, notes: readonly NoteEvent[], at: number, step: 1 | -1): number {
  const starts: number[] = [];
  let index = 0;
  let opens = false;
  for (const event of tune.parts.flatMap(({ events }) => events)) {
    if (event.kind === 'bar') opens = true;
    if (event.kind !== 'note') continue;
    if (opens) starts.push(index);
    opens = false;
    index += 1;
  }
  if (step > 0) return starts.find((start) => start > at) ?? notes.length - 1;
  return starts.filter((start) => start < at).pop() ?? 0;
}

/** From the first to the last of some notes; null without any. */
function spanOf(ids: readonly string[]): Selection | null {
  const [first, last] = [ids[0], ids[ids.length - 1]];
  return first !== undefined && last !== undefined ? { anchor: first, focus: last } : null;
}

/** All notes of the bar that holds an event, or that begins with it. */
export function barSelection(tune: Tune, id: string): Selection | null {
  for (const { events } of tune.parts) {
    const at = events.findIndex((event) => event.id === id);
    if (at < 0) continue;
    const from = events.findLastIndex(({ kind }, i) => i <= at && kind === 'bar');
    const next = events.findIndex(({ kind }, i) => i > at && kind === 'bar');
    return spanOf(notesIn(events.slice(from, next < 0 ? events.length : next)));
  }
  return null;
}

export function partSelection(tune: Tune, name: string): Selection | null {
  return spanOf(notesIn(tune.parts.find((part) => part.name === name)?.events ?? []));
}

/** The next wider selection: the bars it touches, then its part, then the tune. */
export function widerSelection(tune: Tune, selection: Selection | null): Selection | null {
  const whole = spanOf(writtenNotes(tune).map(({ id }) => id));
  if (!selection) return whole;
  const [first, last] = endsOf(tune, selection);
  const bars = spanOf([barSelection(tune, first)?.anchor ?? first, barSelection(tune, last)?.focus ?? last]);
  if (bars && !sameSpan(tune, bars, selection)) return bars;
  const part = tune.parts.find(({ events }) => events.some(({ id }) => id === first));
  const span = part && partSelection(tune, part.name);
  const isWithin = part?.events.some(({ id }) => id === last);
  return span && isWithin && !sameSpan(tune, span, selection) ? span : whole;
}

function notesIn(events: Tune['parts'][number]['events']): string[] {
  return events.flatMap(({ kind, id }) => (kind === 'note' ? [id] : []));
}

function endsOf(tune: Tune, selection: Selection): [string, string] {
  const ids = selectedIds(writtenNotes(tune), selection);
  return [ids[0] ?? selection.anchor, ids[ids.length - 1] ?? selection.focus];
}

function sameSpan(tune: Tune, a: Selection, b: Selection): boolean {
  return String(endsOf(tune, a)) === String(endsOf(tune, b));
}
