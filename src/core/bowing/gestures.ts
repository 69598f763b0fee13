import { samePitch } from '#core/pitch';
import { type Direction, type Link, mapNotes, type NoteEvent, type Tune } from '#core/tune';

/** A gesture of the bow between neighbouring notes. */
export type Gesture = 'slur' | 'change' | 'hook' | 'retake';

/** How two notes share a stroke: a rest between them or one pitch makes a slur sign a hook. */
export function joiningLink(before: NoteEvent, note: NoteEvent, restBetween: boolean): Link {
  return restBetween || (samePitch(before.pitch, note.pitch) && !before.tie) ? 'hook' : 'slur';
}

interface Edit {
  readonly link?: Link;
  readonly linkOnPass?: NoteEvent['linkOnPass'];
  readonly lock?: Direction | null;
  readonly bowLength?: number | null;
}

/**
 * The links a gesture would change on a selection: with one note the link to the note before it, with several the
 * links among them. The tune's first note has none on its first pass. `pass` speaks of one pass of the part only.
 * @returns new link per note id; empty where the gesture would change nothing
 */
export function gestureTargets(
  tune: Tune,
  ids: readonly string[],
  gesture: Gesture,
  pass: number | null = null,
): Map<string, Link> {
  const selected = new Set(ids);
  const targets = new Map<string, Link>();
  const several = ids.length > 1;
  let isFirst = true;
  let seen = 0;
  for (const part of tune.parts) {
    let before: NoteEvent | null = null;
    let restBetween = false;
    for (const event of part.events) {
      if (event.kind === 'rest') restBetween = true;
      if (event.kind !== 'note') continue;
      if (selected.has(event.id)) {
        seen += 1;
        const isContinuation = before?.tie === true && samePitch(before.pitch, event.pitch);
        // The very first note has no link on its first pass; played again it is reached like any other.
        const isReached = !isFirst || (pass !== null && pass > 1);
        if (isReached && !isContinuation && (!several || seen > 1)) {
          const link: Link = gesture === 'slur' && before ? joiningLink(before, event, restBetween) : gesture;
          const current = (pass !== null ? event.linkOnPass?.[pass] : undefined) ?? event.link;
          const hasOverrides = pass === null && event.linkOnPass !== undefined;
          if (link !== current || hasOverrides) targets.set(event.id, link);
        }
      }
      isFirst = false;
      before = event;
      restBetween = false;
    }
  }
  return targets;
}

/** Makes a gesture. Without `pass` it holds on every pass, and links changed for single passes give way. */
export function makeGesture(tune: Tune, ids: readonly string[], gesture: Gesture, pass: number | null = null): Tune {
  return setLinks(tune, gestureTargets(tune, ids, gesture, pass), pass);
}

/** Sets links by note id, on all passes or on one. */
export function setLinks(tune: Tune, links: ReadonlyMap<string, Link>, pass: number | null = null): Tune {
  return editNotes(tune, (note) => {
    const link = links.get(note.id);
    if (link === undefined) return null;
    if (pass === null) return { link, linkOnPass: undefined };
    const { [pass]: _replaced, ...others } = note.linkOnPass ?? {};
    const linkOnPass = link === note.link ? others : { ...others, [pass]: link };
    return { linkOnPass: Object.keys(linkOnPass).length > 0 ? linkOnPass : undefined };
  });
}

/** Locks notes to a direction, or unlocks them with null. */
export function setLocks(tune: Tune, ids: readonly string[], lock: Direction | null): Tune {
  const selected = new Set(ids);
  return editNotes(tune, (note) => (selected.has(note.id) ? { lock } : null));
}

/** Wishes the strokes that begin with some notes to be so many times their own length; null takes the wish back. */
export function setBowLengths(tune: Tune, lengths: ReadonlyMap<string, number | null>): Tune {
  return editNotes(tune, (note) => {
    const bowLength = lengths.get(note.id);
    return bowLength === undefined || bowLength === (note.bowLength ?? null) ? null : { bowLength };
  });
}

/** Changes notes one by one; what is set to nothing is left out. */
function editNotes(tune: Tune, edit: (note: NoteEvent) => Edit | null): Tune {
  return mapNotes(tune, (note) => {
    const change = edit(note);
    if (change === null) return note;
    const next: Record<string, unknown> = { ...note, ...change };
    for (const key of ['linkOnPass', 'lock', 'bowLength'])
      if (next[key] === undefined || next[key] === null) delete next[key];
    return next as unknown as NoteEvent;
  });
}

/** A tuplet stays whole: no stroke begins or ends within it by itself. */
export function isInsideTuplet({ tuplet }: Pick<NoteEvent, 'tuplet'>): boolean {
  return tuplet !== undefined && !tuplet.first;
}
