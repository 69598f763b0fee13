import { samePitch } from '#core/pitch';
import { type NoteEvent, type Tune } from '#core/tune';
import { setBowLengths } from './gestures';
import { staysInStroke } from './strokes';

/** The notes with which the strokes of some notes begin, in written order, links of single passes left aside. */
export function strokeHeads(tune: Tune, ids: ReadonlySet<string>): NoteEvent[] {
  const heads = new Set<NoteEvent>();
  for (const { events } of tune.parts) {
    let head: NoteEvent | null = null;
    let before: NoteEvent | null = null;
    for (const event of events) {
      if (event.kind !== 'note') continue;
      const isTied = before?.tie === true && samePitch(before.pitch, event.pitch);
      if (head === null || (!isTied && !staysInStroke(event.link))) head = event;
      if (ids.has(event.id)) heads.add(head);
      before = event;
    }
  }
  return [...heads];
}

/** Makes the strokes of some notes longer or shorter by a factor, within what may be wished. */
export function scaleBowLengths(
  tune: Tune,
  ids: ReadonlySet<string>,
  factor: number,
  least: number,
  most: number,
): Tune {
  const lengths = strokeHeads(tune, ids).map(({ id, bowLength = 1 }) => {
    const next = Math.round(100 * Math.min(most, Math.max(least, bowLength * factor))) / 100;
    // Back at its own length there is nothing to wish.
    return [id, next === 1 ? null : next] as const;
  });
  return setBowLengths(tune, new Map(lengths));
}
