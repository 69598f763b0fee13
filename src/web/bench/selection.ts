import { type NoteEvent, type Tune, writtenNotes } from '#core/tune';
import type { Selection } from './benchSlice';

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
